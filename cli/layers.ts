import { open } from 'node:fs/promises'
import { basename } from 'node:path'
import { FLECK } from '../core/findings/islands'
import type { ByteSource } from '../core/formats/zipDirectory'
import { readLayers, type LayersReport } from '../core/print/slice/readLayers'
import { usage, line, type Call } from './call'
import { writeReport } from './results'
import { fixed, type Fixed } from '../core/words/format'
import { message } from '../core/words/message'

/**
 * Reads an archive of layers back and tells what it would print. Exit 0 when no island begins and no cup closes, 1 when some
 * do, 2 when it cannot be read.
 */
export async function layersCommand({ words, flags, out, fail }: Call): Promise<number> {
  const [path] = words
  if (!path) return fail(usage('cli.usage.layers'), 2)
  const numbers = (flag: string, count: number): number[] | null => {
    const v = (flags.get(flag) ?? '').split(',').map(Number)
    return v.length === count && v.every((n) => n > 0 && n < 10) ? v : null
  }
  const pitch = flags.has('pitch') ? numbers('pitch', 2) : undefined,
    layer = flags.has('layer') ? numbers('layer', 1) : undefined
  if (pitch === null || layer === null) return fail(usage('cli.usage.pitch'), 2)
  const file = await open(path).catch(() => null)
  if (!file) return fail({ code: 'file-unreadable', message: message('cli.file.cannotOpen', { path, why: 'none' }) }, 2)
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
    if (!r.ok)
      return fail(
        { ...r.problem, message: message('cli.atFile', { file: basename(path), what: r.problem.message }) },
        2,
      )
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
  const at = (layer: number): Fixed => fixed((layer + 0.5) * r.layerHeight, 2)
  return [
    line('cli.layers.title', {
      name,
      layers: r.layers,
      height: r.layerHeight,
      pixels: r.pixels.join(' × '),
      pitch: r.pitch,
      format: r.format,
    }),
    line('cli.layers.sums', {
      light: fixed(r.volume / 1000, 1),
      largest: fixed(most(r.areas) / 100, 2),
      peel: fixed(most(r.peel), 1),
    }),
    ...large(r)
      .slice(0, 8)
      .map((i) =>
        line('cli.layers.island', {
          height: at(i.layer),
          area: fixed(i.area, 2),
          x: fixed(i.x, 1),
          y: fixed(i.y, 1),
        }),
      ),
    ...r.cups.slice(0, 8).map((c) =>
      line('cli.layers.cup', {
        from: at(c.firstLayer),
        to: at(c.lastLayer),
        area: fixed(c.area, 1),
        force: fixed(c.force, 1),
      }),
    ),
    '',
  ].join('\n')
}
