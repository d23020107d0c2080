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
import { usage, line, type Call } from './call'
import { load, loadJson } from './files'
import { write, writeReport, writerFor } from './results'
import { fixed } from '../core/words/format'
import { message } from '../core/words/message'

const printersFile = z.array(printerFile).min(1).max(20)

/**
 * Nests parts over plates and printers. A part is a FILE, or FILE:3 for three of it. Exit 0 when all found a place, 1 when some
 * fit no printer, 2 when something cannot be read.
 */
export async function nestCommand({ words, flags, out, fail }: Call): Promise<number> {
  const path = flags.get('printers'),
    target = flags.get('o')
  if (words.length === 0 || !path) return fail(usage('cli.usage.nest'), 2)
  const writer = target ? writerFor(target) : null
  if (writer && typeof writer !== 'function') return fail(writer, 2)
  const aim = flags.get('aim') ?? 'hours'
  if (aim !== 'hours' && aim !== 'soonest') return fail(usage('cli.usage.aim', { aim }), 2)
  const read = await loadJson(path, printersFile)
  if (!read.ok) return fail(read.problem, 2)
  const doubled = read.value.find((p, i) => read.value.findIndex((q) => q.name === p.name) !== i)
  if (doubled)
    return fail({ code: 'printers-alike', message: message('cli.file.printersAlike', { path, name: doubled.name }) }, 2)
  const printers = read.value.map((p) => nestPrinter(p.name, p, p.resin))
  const meshes = new Map<string, Mesh>()
  const items: NestItem[] = []
  for (const word of words) {
    const [, file, count] = /^(.*?)(?::(\d+))?$/.exec(word) as unknown as [string, string, string | undefined]
    const copies = Number(count ?? 1)
    if (copies < 1 || copies > 500) return fail(usage('cli.usage.copies', { word }), 2)
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

const hours = (s: number): string => line('cli.value.hours', { v: fixed(s / 3600, 1) })

function describe({ nesting: n, oneByOne, only, soonest }: NestReport): string {
  return [
    line('cli.nest.sums', {
      plates: n.plates.length,
      time: hours(n.seconds),
      finish: hours(n.finish),
      other: oneByOne.plates,
      otherTime: hours(oneByOne.seconds),
    }),
    ...n.plates.map((p) =>
      line('cli.nest.plate', {
        printer: p.printer,
        n: p.number + 1,
        parts: p.parts.length,
        height: fixed(p.height, 1),
        time: hours(p.seconds),
        covered: fixed(100 * p.filled, 0),
      }),
    ),
    ...only.map((o) =>
      o.left > 0
        ? line('cli.nest.onlyLeft', { printer: o.printer, left: o.left })
        : line('cli.nest.only', { printer: o.printer, plates: o.plates, time: hours(o.seconds) }),
    ),
    ...(soonest ? [line('cli.nest.soonest', { finish: hours(soonest.finish), time: hours(soonest.seconds) })] : []),
    ...n.left.map((l) => line('cli.nest.left', { id: l.id, why: l.why })),
    '',
  ].join('\n')
}
