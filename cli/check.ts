import { basename } from 'node:path'
import { health, type Health } from '../core/mesh/health'
import { usage, type Call } from './call'
import { load } from './files'

/** Health of a sculpt. Exit 0 sound, 1 defects, 2 unreadable. */
export async function checkCommand({ words, flags, out, fail }: Call): Promise<number> {
  const [file] = words
  if (!file) return fail(usage('check needs a FILE.'), 2)
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
  const rows: [string, string][] = [
    ['faces', h.faces.toLocaleString('en')],
    ['shells', String(h.shells)],
    ['size', `${h.size.map((s) => s.toFixed(2)).join(' × ')} mm (${h.units})`],
    ['volume', `${(h.volume / 1000).toFixed(2)} ml`],
    ['area', `${(h.area / 100).toFixed(1)} cm²`],
    ['open edges', `${h.openEdges.count} in ${h.holes.count} holes`],
    ['edges of more than two faces', String(h.nonManifold.count)],
    ['disagreeing directions', String(h.disoriented.count)],
    ['shells inside out', String(h.insideOut.count)],
    ['degenerate or doubled faces', String(h.degenerate.count + h.duplicate.count)],
    ['faces crossing', `${h.selfIntersecting.count}${h.selfIntersecting.complete ? '' : ' or more'}`],
    ['crumbs', String(h.crumbs.count)],
  ]
  return `${name}: ${h.sound ? 'sound' : 'has defects'}\n${rows.map(([k, v]) => `  ${k.padEnd(30)}${v}`).join('\n')}\n`
}
