import { basename } from 'node:path'
import { operation } from '../contract/operations'
import { printerFile } from '../contract/stock'
import { peelOn } from '../core/print/slice/printer'
import { doesNotStand } from '../core/findings/doesNotFit'
import { FLECK } from '../core/findings/islands'
import { bounds, boxSize } from '../core/mesh/mesh'
import { INSPECTION_STEP } from '../core/raster/layerGraph'
import { inspectLayers } from '../core/print/slice/slice'
import { support, type SupportReport } from '../core/print/support/support'
import { usage, line, type Call } from './call'
import { load, loadJson } from './files'
import { write, writeReport, writerFor } from './results'
import { fixed } from '../core/words/format'

/**
 * Supports for a body as it stands in its file. Exit 0 when every island is held, no tip is overloaded and the whole fits
 * the printer, 1 when one of these does not hold, 2 when something cannot be read.
 */
export async function supportsCommand({ words, flags, out, fail }: Call): Promise<number> {
  const [file] = words,
    printerPath = flags.get('printer')
  if (!file || !printerPath) return fail(usage('cli.usage.supports'), 2)
  const target = flags.get('o')
  const writer = target ? writerFor(target) : null
  if (writer && typeof writer !== 'function') return fail(writer, 2)
  const printer = await loadJson(printerPath, printerFile)
  if (!printer.ok) return fail(printer.problem, 2)
  const { resin } = printer.value
  const asked = operation.parse({
    kind: 'support',
    peelPressure: peelOn(printer.value, resin),
    greenStrength: resin.greenStrength,
  })
  if (asked.kind !== 'support') throw new Error('A support record is one.')
  const mesh = await load(file)
  if (!mesh.ok) return fail(mesh.problem, 2)
  const made = support(mesh.value, asked)
  if (!made.ok) return fail(made.problem, 1)
  const { mesh: whole, report } = made.value
  const size = boxSize(bounds(whole))
  const misfits = doesNotStand(size, printer.value)
  const islands = inspectLayers(whole, INSPECTION_STEP).islands.filter((i) => i.area >= FLECK)
  const full = { ...report, size, fits: misfits.length === 0, islands }
  const noted = (target && writer ? await write(target, writer(whole)) : null) ?? (await writeReport(flags, full))
  if (noted) return fail(noted, 2)
  out(flags.has('json') ? `${JSON.stringify(full, null, 1)}\n` : describe(basename(file), report, full))
  return islands.length === 0 && worst(report) <= 1 && full.fits ? 0 : 1
}

const worst = (r: SupportReport): number => Math.max(0, ...r.tips.map((t) => t.utilisation))

function describe(name: string, r: SupportReport, o: { fits: boolean; islands: readonly unknown[] }): string {
  const least = Math.min(...r.tips.map((t) => t.clearance))
  return [
    line('cli.supports.tips', {
      name,
      tips: r.tips.length,
      volume: fixed(r.supportVolume / 1000, 1),
      joined: r.joined,
    }),
    line('cli.supports.worst', {
      percent: fixed(100 * worst(r), 0),
      clearance: Number.isFinite(least) ? least.toFixed(2) : 'none',
    }),
    line('cli.supports.scars', {
      area: fixed(r.scarArea, 1),
      unreached: r.unreached.length,
      islands: o.islands.length,
    }),
    line('cli.supports.fits', { fits: o.fits, height: fixed(r.height, 1) }),
    '',
  ].join('\n')
}
