import { basename } from 'node:path'
import { directionWords, rinsedAway } from '../core/findings/trappedResin'
import { trappedResin } from '../core/print/resin/trapped'
import { usage, line, type Call } from './call'
import { load } from './files'
import { fixed, type Fixed } from '../core/words/format'

/** Exit 0 when some poses one after the other empty it, 1 when resin stays whatever is done, 2 when it cannot be read. */
export async function trapCommand({ words, flags, out, fail }: Call): Promise<number> {
  const [file] = words
  if (!file) return fail(usage('cli.usage.trap'), 2)
  const given = (flags.get('pose') ?? '0,0,-1').split(',').map(Number)
  const length = Math.hypot(...given)
  if (given.length !== 3 || !(length > 0) || !Number.isFinite(length)) return fail(usage('cli.usage.pose'), 2)
  const mesh = await load(file)
  if (!mesh.ok) return fail(mesh.problem, 2)
  const r = trappedResin(mesh.value, given.map((v) => v / length) as [number, number, number])
  const ml = (v: number): Fixed => fixed(v / 1000, 2)
  if (flags.has('json')) out(`${JSON.stringify(r, null, 1)}\n`)
  else
    out(
      [
        line('cli.trap.stays', { name: basename(file), trapped: ml(r.trapped) }),
        line('cli.trap.holds', { cavity: ml(r.cavity), shut: ml(r.shut) }),
        ...r.routine.map((s, i) =>
          line('cli.trap.turn', { n: i + 1, direction: directionWords(s.down), left: ml(s.left) }),
        ),
        '',
      ].join('\n'),
    )
  const least = rinsedAway(r.cavity)
  return (r.routine.at(-1)?.left ?? 0) < least && r.shut < least ? 0 : 1
}
