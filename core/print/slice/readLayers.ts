import { PEEL_PRESSURE } from '../../defaults/print'
import { bad, good, silent, type Answer, type Report } from '../../answer'
import { readEntry, zipDirectory, type ByteSource, type ZipEntry } from '../../formats/zipDirectory'
import { readPngLayer } from '../../formats/readPngLayer'
import { Hanging, worldDefaults, type Mishap } from '../hanging/hanging'
import { followed, slack, type Followed } from './followed'
import type { Cup, Island, LayerGraph } from '../../raster/layerGraph'
import { message } from '../../words/message'

/** How large pixels and layers are, where the archive does not say. */
export interface LayerScale {
  /** mm in x and y */
  pitch?: [number, number]
  /** mm */
  layerHeight?: number
  /** Pa */
  peelPressure?: number
}
export interface LayersReport {
  /** what wrote it, as far as it says */
  format: string
  layers: number
  layerHeight: number
  pixels: [number, number]
  pitch: [number, number]
  /** mm², per layer */
  areas: number[]
  /** N, per layer, and of all voids shut in then at 100 kPa */
  peel: number[]
  suction: number[]
  islands: Island[]
  cups: Cup[]
  /** mm³ of light */
  volume: number
  /** what would go wrong by usual figures of film and resin: islands drop, tips let go, sealed cups tear */
  mishaps: Mishap[]
}

const MAX_MANIFEST = 50_000_000
/** A layer of 40,000 × 40,000 pixels packs into far less; what is larger is no layer. */
export const MAX_LAYER = 200_000_000

/**
 * Reads an archive of PNG layers back, whoever wrote it, and follows what it prints: islands, cups and peel, layer by layer.
 * One layer is held at a time. Layers are its PNG files in the order of the numbers in their names; previews beside them
 * (of another size, or without a number) are passed over. A manifest of ours says how large pixels and layers are; else the
 * PNGs' own resolution, or the caller.
 */
export async function readLayers(
  source: ByteSource,
  scale: LayerScale = {},
  report: Report = silent,
): Promise<Answer<LayersReport>> {
  const directory = await zipDirectory(source)
  if (!directory.ok) return directory
  const files = layerFiles(directory.value)
  if (files.length === 0) return bad('layers-none', message('problems.readLayers.thereAreNoNumberedPng'))
  const ours = await ourManifest(source, directory.value)
  if (!ours.ok) return ours
  const layerHeight = scale.layerHeight ?? ours.value?.layerHeight
  if (!layerHeight) return bad('layers-unscaled', message('problems.readLayers.theArchiveDoesNotSay'))
  let follow: Followed | null = null,
    graph: LayerGraph | null = null,
    hanging: Hanging | null = null,
    size: [number, number] | null = null,
    pitch: [number, number] | undefined = scale.pitch ?? ours.value?.pitch
  const areas: number[] = [],
    peel: number[] = []
  for (const [i, entry] of files.entries()) {
    const bytes = await readEntry(source, entry, MAX_LAYER)
    if (!bytes.ok) return bytes
    const layer = readPngLayer(bytes.value)
    if (!layer.ok)
      return bad(
        layer.problem.code,
        message('problems.readLayers.ofLayer', { name: entry.name, message: layer.problem.message }),
      )
    const { runs } = layer.value
    pitch ??= layer.value.pitch ?? undefined
    if (!pitch) return bad('layers-unscaled', message('problems.readLayers.theArchiveDoesNotSay2'))
    size ??= [runs.width, runs.height]
    if (runs.width !== size[0] || runs.height !== size[1])
      return bad(
        'layers-uneven',
        message('problems.readLayers.hasPixelsTheLayersBefore', {
          name: entry.name,
          width: runs.width,
          height: runs.height,
          size: size[0],
          size2: size[1],
        }),
      )
    const corner: [number, number] = [(-size[0] * pitch[0]) / 2, (-size[1] * pitch[1]) / 2]
    follow ??= followed(pitch, corner, layerHeight)
    graph ??= follow.graph()
    hanging ??= new Hanging(
      { ...worldDefaults, ...(scale.peelPressure ? { peelPressure: scale.peelPressure } : {}) },
      pitch,
      corner,
      layerHeight,
      slack(pitch),
    )
    const area = runs.covered * pitch[0] * pitch[1]
    areas.push(area)
    peel.push((scale.peelPressure ?? PEEL_PRESSURE) * area * 1e-6)
    graph.push(follow.of(runs))
    hanging.push(runs)
    if ((i & 7) === 0) report(i / files.length)
  }
  return good({
    format: ours.value ? 'undercut-layers' : 'numbered PNG layers',
    layers: files.length,
    layerHeight,
    pixels: size!,
    pitch: pitch!,
    areas,
    peel,
    suction: graph!.suctionByLayer,
    islands: graph!.islands,
    cups: graph!.suction(),
    volume: areas.reduce((a, b) => a + b, 0) * layerHeight,
    mishaps: hanging!.result.mishaps,
  })
}

/** The largest set of PNGs in one folder that differ in the last number of their names alone, by that number. */
export function layerFiles(entries: readonly ZipEntry[]): ZipEntry[] {
  const sets = new Map<string, { number: number; entry: ZipEntry }[]>()
  for (const entry of entries) {
    if (!/\.png$/i.test(entry.name) || /(^|\/)(\.|__MACOSX\/)/.test(entry.name)) continue
    const name = entry.name.slice(0, -4),
      number = /(\d+)\D*$/.exec(name)
    if (!number) continue
    const head = name.replace(/\d+(\D*)$/, '#$1')
    const set = sets.get(head)
    if (set) set.push({ number: Number(number[1]), entry })
    else sets.set(head, [{ number: Number(number[1]), entry }])
  }
  const best = [...sets.values()].sort((a, b) => b.length - a.length)[0] ?? []
  return best.sort((a, b) => a.number - b.number).map((f) => f.entry)
}

/** What our own manifest says of scale; null where there is none. */
async function ourManifest(
  source: ByteSource,
  entries: readonly ZipEntry[],
): Promise<Answer<{ pitch: [number, number]; layerHeight: number } | null>> {
  const entry = entries.find((e) => e.name === 'manifest.json')
  if (!entry) return good(null)
  const bytes = await readEntry(source, entry, MAX_MANIFEST)
  if (!bytes.ok) return bytes
  try {
    const m = JSON.parse(new TextDecoder().decode(bytes.value)) as {
      format?: unknown
      layerHeight?: unknown
      printer?: { pitch?: unknown }
    }
    const pitch = m.printer?.pitch
    if (m.format !== 'undercut-layers') return good(null)
    if (!Array.isArray(pitch) || pitch.length !== 2 || ![...pitch, m.layerHeight].every(sound))
      return bad('layers-manifest', message('problems.readLayers.theArchiveSManifestDoes'))
    return good({ pitch: pitch as [number, number], layerHeight: m.layerHeight as number })
  } catch {
    return good(null)
  }
}
const sound = (v: unknown): boolean => typeof v === 'number' && v > 0 && v < 10
