import { basename } from 'node:path'
import { z } from 'zod'
import { printerFile } from '../contract/stock'
import { bounds, type Mesh } from '../core/mesh/mesh'
import { identity3 } from '../core/math/vectors'
import { transformed } from '../core/mesh/transform'
import { nestDefaults, type NestItem } from '../core/print/nest/types'
import { nestReport, type NestReport } from '../core/print/nest/nestReport'
import { plateBody } from '../core/print/nest/plateBody'
import { nestPrinter } from '../core/print/nest/printerTime'
import { silhouette } from '../core/print/nest/silhouette'
import { usage, type Call } from './call'
import { load, loadJson } from './files'
import { write, writeReport, writerFor } from './results'

const printersFile = z.array(printerFile).min(1).max(20)

/**
 * Nests parts over plates and printers. A part is a FILE, or FILE:3 for three of it. Exit 0 when all found a place, 1 when some
 * fit no printer, 2 when something cannot be read.
 */
export async function nestCommand({ words, flags, out, fail }: Call): Promise<number> {
  const path = flags.get('printers'),
    target = flags.get('o')
  if (words.length === 0 || !path) return fail(usage('nest needs PARTS and --printers PRINTERS.json.'), 2)
  const writer = target ? writerFor(target) : null
  if (writer && typeof writer !== 'function') return fail(writer, 2)
  const aim = flags.get('aim') ?? 'hours'
  if (aim !== 'hours' && aim !== 'soonest') return fail(usage(`--aim is hours or soonest, not "${aim}".`), 2)
  const read = await loadJson(path, printersFile)
  if (!read.ok) return fail(read.problem, 2)
  const doubled = read.value.find((p, i) => read.value.findIndex((q) => q.name === p.name) !== i)
  if (doubled)
    return fail(
      { code: 'printers-alike', message: `${path}: two printers are called "${doubled.name}". Name them apart.` },
      2,
    )
  const printers = read.value.map((p) => nestPrinter(p.name, p, p.resin))
  const meshes = new Map<string, Mesh>()
  const items: NestItem[] = []
  for (const word of words) {
    const [, file, count] = /^(.*?)(?::(\d+))?$/.exec(word) as unknown as [string, string, string | undefined]
    const copies = Number(count ?? 1)
    if (copies < 1 || copies > 500) return fail(usage(`${word}: between 1 and 500 of a part can be nested.`), 2)
    const mesh = await load(file)
    if (!mesh.ok) return fail(mesh.problem, 2)
    // It stands on its lowest point, as it will on the plate.
    const stood = transformed(mesh.value, identity3, [0, 0, -bounds(mesh.value).min[2]])
    const id = [basename(file), ...Array.from({ length: 1000 }, (_, k) => `${basename(file)} ${k + 2}`)].find(
      (n) => !meshes.has(n),
    )!
    meshes.set(id, stood)
    items.push({ id, silhouette: silhouette(stood), copies, turn: true, resin: '' })
  }
  const full = nestReport(items, printers, { ...nestDefaults, aim })
  const n = full.nesting
  if (target && writer)
    for (const [k, plate] of n.plates.entries()) {
      const noted = await write(
        target.replace(/(\.[^.]+)$/, `-${k + 1}$1`),
        writer(plateBody(plate.parts, (id) => meshes.get(id)!)),
      )
      if (noted) return fail(noted, 2)
    }
  const noted = await writeReport(flags, full)
  if (noted) return fail(noted, 2)
  out(flags.has('json') ? `${JSON.stringify(full, null, 1)}\n` : describe(full))
  return n.left.length === 0 ? 0 : 1
}

const hours = (s: number): string => `${(s / 3600).toFixed(1)} h`
const WHY = { tall: 'too tall for every printer', wide: 'too wide for every plate', taken: 'its place is taken' }

function describe({ nesting: n, oneByOne, only, soonest }: NestReport): string {
  return [
    `${n.plates.length} plates, ${hours(n.seconds)} of machine time, done after ${hours(n.finish)}; one by one in the order given: ${oneByOne.plates} plates, ${hours(oneByOne.seconds)}`,
    ...n.plates.map(
      (p) =>
        `  ${p.printer}, plate ${p.number + 1}: ${p.parts.length} parts, ${p.height.toFixed(1)} mm tall, ${hours(p.seconds)}, ${(100 * p.filled).toFixed(0)} % covered`,
    ),
    ...only.map(
      (o) =>
        `  all on ${o.printer}: ${o.left > 0 ? `${o.left} parts do not fit` : `${o.plates} plates, ${hours(o.seconds)}`}`,
    ),
    ...(soonest
      ? [`  side by side: done after ${hours(soonest.finish)}, ${hours(soonest.seconds)} of machine time`]
      : []),
    ...n.left.map((l) => `  left: ${l.id}, ${WHY[l.why]}`),
    '',
  ].join('\n')
}
