import { basename } from 'node:path'
import type { Problem } from '../core/answer'
import { directionWords } from '../core/findings/trappedResin'
import { trappedResin } from '../core/print/trapped'
import { load } from './files'

/** mm³ under which a part counts as empty: a film that a rinse takes along */
const EMPTY = 150

/** Exit 0 when some poses one after the other empty it, 1 when resin stays whatever is done, 2 when it cannot be read. */
export async function trapCommand(
  files: readonly string[],
  flags: ReadonlyMap<string, string>,
  out: (s: string) => void,
  fail: (p: Problem, code: number) => number,
): Promise<number> {
  const [file] = files
  if (!file) return fail({ code: 'usage', message: 'trap needs a FILE.' }, 2)
  const given = (flags.get('pose') ?? '0,0,-1').split(',').map(Number)
  const length = Math.hypot(...given)
  if (given.length !== 3 || !(length > 0) || !Number.isFinite(length))
    return fail({ code: 'usage', message: '--pose takes the direction that is down, as X,Y,Z.' }, 2)
  const mesh = await load(file)
  if (!mesh.ok) return fail(mesh.problem, 2)
  const r = trappedResin(mesh.value, given.map((v) => v / length) as [number, number, number])
  const ml = (v: number): string => `${(v / 1000).toFixed(2)} ml`
  if (flags.has('json')) out(`${JSON.stringify(r, null, 1)}\n`)
  else
    out(
      [
        `${basename(file)}: ${ml(r.trapped)} stay inside in that pose`,
        `  cavities hold ${ml(r.cavity)}, shut in for good ${ml(r.shut)}`,
        ...r.routine.map((s, i) => `  ${i + 1}. ${directionWords(s.down)}: ${ml(s.left)} left`),
        '',
      ].join('\n'),
    )
  return (r.routine.at(-1)?.left ?? 0) < EMPTY && r.shut < EMPTY ? 0 : 1
}
