import { Zip, ZipDeflate } from 'fflate'
import type { Mesh } from '../mesh/mesh'
import { bounds } from '../mesh/mesh'
import { loopsOf } from '../mesh/loops'
import { Sections } from '../mesh/sections'
import { CONTENT_TYPES, meshText, RELATIONSHIPS } from './write3mf'

/** What the layers of a body are as outlines: closed loops, solid on the left, at each layer's middle. */
export interface OutlineLayer {
  index: number
  /** mm */
  top: number
  loops: Float64Array[]
  /** ways that did not close */
  open: number
}

export const layerCount = (mesh: Mesh, layerHeight: number): number =>
  Math.ceil(bounds(mesh).max[2] / layerHeight - 1e-6)

/** @param seen told of each layer before it is cut */
export function* outlineLayers(
  mesh: Mesh,
  layerHeight: number,
  seen: (layer: number) => void = () => undefined,
): Generator<OutlineLayer> {
  const sections = new Sections(mesh)
  const layers = layerCount(mesh, layerHeight)
  for (let index = 0; index < layers; index++) {
    seen(index)
    const count = sections.at((index + 0.5) * layerHeight)
    yield { index, top: (index + 1) * layerHeight, ...loopsOf(sections.segments, count) }
  }
}

const n = (v: number): string => String(Number(v.toFixed(4)))

/**
 * A body's layers as one SVG in true size: a group a layer, named and with its height in mm, shapes filled by the nonzero
 * rule. y runs up in the body and down in the picture.
 *
 * @returns its text piece by piece, to be written as it comes
 */
export function* svgStack(mesh: Mesh, layerHeight: number, seen?: (layer: number) => void): Generator<string> {
  const { min, max } = bounds(mesh)
  const [w, h] = [max[0] - min[0], max[1] - min[1]]
  yield `<svg xmlns="http://www.w3.org/2000/svg" width="${n(w)}mm" height="${n(h)}mm" viewBox="${n(min[0])} ${n(-max[1])} ${n(w)} ${n(h)}" fill="#000" fill-rule="nonzero" data-layer-height="${n(layerHeight)}">\n`
  for (const { index, top, loops } of outlineLayers(mesh, layerHeight, seen)) {
    yield `<g id="layer-${index + 1}" data-top="${n(top)}">`
    if (loops.length > 0) yield `<path d="${loops.map(pathOf).join('')}"/>`
    yield '</g>\n'
  }
  yield '</svg>\n'
}
function pathOf(loop: Float64Array): string {
  let d = ''
  for (let i = 0; i < loop.length; i += 2) d += `${i === 0 ? 'M' : 'L'}${n(loop[i]!)} ${n(-loop[i + 1]!)}`
  return `${d}Z`
}

/**
 * A body's layers as 3MF with the slice extension (1.0.2): the mesh stays in it at full resolution, its object names the stack.
 *
 * @param sink takes the file's bytes in order as they are made
 */
export async function slices3mf(
  mesh: Mesh,
  layerHeight: number,
  sink: (bytes: Uint8Array) => Promise<void>,
  seen?: (layer: number) => void,
): Promise<void> {
  const chunks: Uint8Array[] = []
  const zip = new Zip((error, chunk) => {
    if (error) throw error
    chunks.push(chunk)
  })
  const text = new TextEncoder()
  const add = (name: string): ZipDeflate => {
    const entry = new ZipDeflate(name, { level: 6 })
    entry.mtime = new Date('1980-01-02T00:00:00Z')
    zip.add(entry)
    return entry
  }
  add('[Content_Types].xml').push(text.encode(CONTENT_TYPES), true)
  add('_rels/.rels').push(text.encode(RELATIONSHIPS), true)
  const model = add('3D/3dmodel.model')
  for (const piece of portions(modelText(mesh, layerHeight, seen))) {
    model.push(text.encode(piece))
    for (const c of chunks.splice(0)) await sink(c)
  }
  model.push(new Uint8Array(0), true)
  zip.end()
  for (const c of chunks.splice(0)) await sink(c)
}

function* modelText(mesh: Mesh, layerHeight: number, seen?: (layer: number) => void): Generator<string> {
  yield '<?xml version="1.0" encoding="UTF-8"?>\n<model unit="millimeter" xml:lang="en" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02" xmlns:s="http://schemas.microsoft.com/3dmanufacturing/slice/2015/07" requiredextensions="s"><resources>'
  yield `<s:slicestack id="2" zbottom="0">`
  for (const { top, loops } of outlineLayers(mesh, layerHeight, seen)) yield sliceText(top, loops)
  yield '</s:slicestack><object id="1" type="model" s:slicestackid="2" s:meshresolution="fullres">'
  yield* meshText(mesh)
  yield '</object></resources><build><item objectid="1"/></build></model>'
}
function sliceText(top: number, loops: readonly Float64Array[]): string {
  if (loops.length === 0) return `<s:slice ztop="${n(top)}"/>`
  const vertices: string[] = [],
    polygons: string[] = []
  let from = 0
  for (const loop of loops) {
    const count = loop.length / 2
    const segments: string[] = []
    for (let i = 0; i < count; i++) {
      vertices.push(`<s:vertex x="${n(loop[i * 2]!)}" y="${n(loop[i * 2 + 1]!)}"/>`)
      segments.push(`<s:segment v2="${from + ((i + 1) % count)}"/>`)
    }
    polygons.push(`<s:polygon startv="${from}">${segments.join('')}</s:polygon>`)
    from += count
  }
  return `<s:slice ztop="${n(top)}"><s:vertices>${vertices.join('')}</s:vertices>${polygons.join('')}</s:slice>`
}

/** The same text in fewer, larger pieces. */
export function* portions(pieces: Iterable<string>, size = 1 << 17): Generator<string> {
  let held: string[] = [],
    length = 0
  for (const p of pieces) {
    held.push(p)
    length += p.length
    if (length < size) continue
    yield held.join('')
    held = []
    length = 0
  }
  if (length > 0) yield held.join('')
}
