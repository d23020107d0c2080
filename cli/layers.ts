import { open } from 'node:fs/promises'
import { basename } from 'node:path'
import { FLECK } from '../core/findings/islands'
import type { ByteSource } from '../core/formats/zipDirectory'
import { readLayers, type LayersReport } from '../core/print/slice/readLayers'
import { usage, type Call } from './call'
import { writeReport } from './results'
import { say } from '../core/words/say'

/**
 * Reads an archive of layers back and tells what it would print. Exit 0 when no island begins and no cup closes, 1 when some
 * do, 2 when it cannot be read.
 */
export async function layersCommand({ words, flags, out, fail }: Call): Promise<number> {
  const [path] = words
  if (!path) return fail(usage('layers needs a ZIP.'), 2)
  const numbers = (flag: string, count: number): number[] | null => {
    const v = (flags.get(flag) ?? '').split(',').map(Number)
    return v.length === count && v.every((n) => n > 0 && n < 10) ? v : null
  }
  const pitch = flags.has('pitch') ? numbers('pitch', 2) : undefined,
    layer = flags.has('layer') ? numbers('layer', 1) : undefined
  if (pitch === null || layer === null)
    return fail(usage('--pitch is X,Y and --layer is one number, in mm, between 0 and 10.'), 2)
  const file = await open(path).catch(() => null)
  if (!file) return fail({ code: 'file-unreadable', message: `${path}: the file cannot be opened.` }, 2)
  try {
    const source: ByteSource = {
      size: (await file.stat()).size,
      read: async (from, length) => {
        const bytes = new Uint8Array(Math.max(0, Math.min(length, source.size - from)))
        await file.read(bytes, 0, bytes.length, from)
        return bytes
      },
    }
    const r = await readLayers(source, {
      ...(pitch ? { pitch: pitch as [number, number] } : {}),
      ...(layer ? { layerHeight: layer[0]! } : {}),
    })
    if (!r.ok) return fail({ ...r.problem, message: `${basename(path)}: ${say(r.problem.message)}` }, 2)
    const noted = await writeReport(flags, r.value)
    if (noted) return fail(noted, 2)
    out(flags.has('json') ? `${JSON.stringify(r.value, null, 1)}\n` : describe(basename(path), r.value))
    return large(r.value).length + r.value.cups.length > 0 ? 1 : 0
  } finally {
    await file.close()
  }
}

const large = (r: LayersReport): LayersReport['islands'] => r.islands.filter((i) => i.area >= FLECK)

function describe(name: string, r: LayersReport): string {
  const most = (v: readonly number[]): number => v.reduce((a, b) => Math.max(a, b), 0)
  const at = (layer: number): string => `${((layer + 0.5) * r.layerHeight).toFixed(2)} mm`
  return [
    `${name}: ${r.layers.toLocaleString('en')} layers of ${r.layerHeight} mm, ${r.pixels.join(' × ')} pixels of ${r.pitch.join(' × ')} mm (${r.format})`,
    `  ${(r.volume / 1000).toFixed(1)} ml of light, largest layer ${(most(r.areas) / 100).toFixed(2)} cm², hardest peel ${most(r.peel).toFixed(1)} N`,
    ...large(r)
      .slice(0, 8)
      .map((i) => `  island at ${at(i.layer)}: ${i.area.toFixed(2)} mm² at ${i.x.toFixed(1)}, ${i.y.toFixed(1)}`),
    ...r.cups
      .slice(0, 8)
      .map(
        (c) =>
          `  cup from ${at(c.firstLayer)} to ${at(c.lastLayer)}: ${c.area.toFixed(1)} mm², up to ${c.force.toFixed(1)} N`,
      ),
    '',
  ].join('\n')
}
