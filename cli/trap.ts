import { basename } from 'node:path'
import { say } from '../core/words/say'
import { directionWords, rinsedAway } from '../core/findings/trappedResin'
import { trappedResin } from '../core/print/resin/trapped'
import { usage, type Call } from './call'
import { load } from './files'

/** Exit 0 when some poses one after the other empty it, 1 when resin stays whatever is done, 2 when it cannot be read. */
export async function trapCommand({ words, flags, out, fail }: Call): Promise<number> {
  const [file] = words
  if (!file) return fail(usage('trap needs a FILE.'), 2)
  const given = (flags.get('pose') ?? '0,0,-1').split(',').map(Number)
  const length = Math.hypot(...given)
  if (given.length !== 3 || !(length > 0) || !Number.isFinite(length))
    return fail(usage('--pose takes the direction that is down, as X,Y,Z.'), 2)
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
        ...r.routine.map((s, i) => `  ${i + 1}. ${say(directionWords(s.down))}: ${ml(s.left)} left`),
        '',
      ].join('\n'),
    )
  const least = rinsedAway(r.cavity)
  return (r.routine.at(-1)?.left ?? 0) < least && r.shut < least ? 0 : 1
}
