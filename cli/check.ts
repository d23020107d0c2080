import { basename } from 'node:path'
import { health, type Health } from '../core/mesh/health'
import { usage, line, table, type Call } from './call'
import { load } from './files'
import { fixed } from '../core/words/format'
import { METRIC, numberText } from '../core/words/manner'

/** Health of a sculpt. Exit 0 sound, 1 defects, 2 unreadable. */
export async function checkCommand({ words, flags, out, fail }: Call): Promise<number> {
  const [file] = words
  if (!file) return fail(usage('cli.usage.check'), 2)
  const mesh = await load(file)
  if (!mesh.ok) return fail(mesh.problem, 2)
  const h = health(mesh.value)
  const name = basename(file)
  out(
    flags.has('json')
      ? `${JSON.stringify({ file: name, ...h, volumeMl: h.volume / 1000 }, null, 1)}\n`
      : describe(name, h),
  )
  return h.sound ? 0 : 1
}

function describe(name: string, h: Health): string {
  const count = (n: number): string => numberText(n, undefined, METRIC)
  return table(line('cli.check.title', { name, sound: h.sound }), [
    [line('cli.check.faces'), count(h.faces)],
    [line('cli.check.shells'), count(h.shells)],
    [line('cli.check.size'), line('cli.check.sized', { size: h.size.map((s) => fixed(s, 2)), units: h.units })],
    [line('cli.check.volume'), line('cli.value.ml', { v: fixed(h.volume / 1000, 2) })],
    [line('cli.check.area'), line('cli.value.cm2', { v: fixed(h.area / 100, 1) })],
    [line('cli.check.open'), line('cli.check.openIn', { edges: h.openEdges.count, holes: h.holes.count })],
    [line('cli.check.nonManifold'), count(h.nonManifold.count)],
    [line('cli.check.disoriented'), count(h.disoriented.count)],
    [line('cli.check.insideOut'), count(h.insideOut.count)],
    [line('cli.check.degenerate'), count(h.degenerate.count + h.duplicate.count)],
    [
      line('cli.check.crossing'),
      line('cli.check.crossings', { n: h.selfIntersecting.count, complete: h.selfIntersecting.complete }),
    ],
    [line('cli.check.crumbs'), count(h.crumbs.count)],
  ])
}
