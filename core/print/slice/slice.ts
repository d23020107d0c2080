import { bad, good, silent, type Answer, type Report } from '../../answer'
import { bounds, type Mesh } from '../../mesh/mesh'
import { measure } from '../../mesh/measure'
import { repair, type RepairReport } from '../../mesh/repair'
import { topology } from '../../mesh/topology'
import { followedFor, REST } from './followed'
import { LayerGraph, type Cup, type Island } from '../../raster/layerGraph'
import { LayerMaker, layerSteps, type MadeLayer } from './layerMaker'
import { peelOn, plateSize, printSeconds, resinUse, type Printer, type Resin } from './printer'
import { Rasteriser } from '../../raster/raster'
import { solidOf } from '../../raster/regions'
import { sectionArea, Sections } from '../../mesh/sections'
import { fixed } from '../../words/format'
import { message } from '../../words/message'

export interface SliceReport {
  layers: number
  layerHeight: number
  pixels: [number, number]
  /** s */
  seconds: number
  resinMl: number
  resinCost: number
  /** mm² per layer, and mm of outline */
  areas: number[]
  perimeters: number[]
  /** N per layer */
  peel: number[]
  islands: Island[]
  cups: Cup[]
  /** N per layer at 100 kPa, of all voids shut in then */
  suction: number[]
  /** rows of layers whose outline did not close after mending; left blank */
  brokenRows: number
  /** what had to be mended before slicing, null when the body was clean */
  mended: RepairReport | null
}

/** Makes layers; may be asked for several at once, and in any order. */
export type LayerSource = (index: number) => Promise<MadeLayer> | MadeLayer

/** Receives each layer's PNG as it is made; returns when it may go on. */
export type LayerSink = (name: string, png: Uint8Array) => Promise<void> | void

/**
 * Slices a body standing on z = 0, centred on the plate, into PNG layers of exact area coverage. Layer i covers z from i·h to
 * (i + 1)·h and is cut in its middle.
 *
 * @param ahead makes the layers of a closed body elsewhere, side by side; without it they are made here, one at a time
 */
export async function slice(
  input: Mesh,
  printer: Printer,
  resin: Resin,
  sink: LayerSink,
  report: Report = silent,
  ahead?: { layers: (mesh: Mesh) => LayerSource; width: number; done: () => void },
): Promise<Answer<SliceReport>> {
  if (input.triangles.length === 0) return bad('nothing-to-slice', message('problems.slice.thereIsNothingToSlice'))
  const fit = outsidePlate(input, printer)
  if (fit) return fit
  const { mesh, mended } = closedForSlicing(input)
  const h = printer.layerHeight
  const { layers } = layerSteps(mesh, printer)
  const graph = followedFor(printer).graph()
  const areas: number[] = [],
    perimeters: number[] = [],
    peel: number[] = []
  const pull = peelOn(printer, resin)
  let brokenRows = 0
  const maker = ahead ? null : new LayerMaker(mesh, printer)
  const source: LayerSource = ahead ? ahead.layers(mesh) : (i) => maker!.make(i)
  const width = ahead?.width ?? 1
  // Layers are asked for some way ahead, and taken in order.
  const asked: ReturnType<LayerSource>[] = []
  try {
    for (let i = 0; i < layers; i++) {
      while (asked.length < width && i + asked.length < layers) asked.push(source(i + asked.length))
      const made = await asked.shift()!
      graph.push(made.solid)
      brokenRows += made.brokenRows
      areas.push(made.area)
      perimeters.push(made.perimeter)
      peel.push(pull * made.area * 1e-6)
      await sink(layerName(i), made.png)
      if ((i & 7) === 0) report(i / layers)
    }
  } finally {
    ahead?.done()
  }
  const volume = areas.reduce((a, b) => a + b, 0) * h
  const resinMl = resinUse(volume, measure(mesh).area)
  return good({
    layers,
    layerHeight: h,
    pixels: [printer.pixelsX, printer.pixelsY],
    seconds: printSeconds(printer, resin, layers),
    resinMl,
    resinCost: (resinMl / 1000) * resin.pricePerLitre,
    areas,
    perimeters,
    peel,
    islands: graph.islands,
    cups: graph.suction(),
    suction: graph.suctionByLayer,
    brokenRows,
    mended,
  })
}

/** A torn body is mended before it is cut; a clean one comes back as it is. */
export function closedForSlicing(input: Mesh): { mesh: Mesh; mended: RepairReport | null } {
  const topo = topology(input)
  if (topo.openEdges + topo.disorientedEdges + topo.nonManifoldEdges === 0) return { mesh: input, mended: null }
  const r = repair(input, { weld: 0.002, dropCrumbs: false, fillHoles: true })
  return { mesh: r.mesh, mended: r.report }
}

export const layerName = (i: number): string => `layers/${String(i + 1).padStart(5, '0')}.png`

/** Islands and cups without writing any layer, at every `step` mm. */
export function inspectLayers(
  mesh: Mesh,
  step: number,
  report: Report = silent,
): { islands: Island[]; cups: Cup[]; areas: number[]; suction: number[] } {
  const { graph, coarse } = layerGraph(mesh, step)
  const sections = new Sections(mesh)
  const layers = Math.ceil(bounds(mesh).max[2] / step - 1e-6)
  const areas: number[] = []
  for (let i = 0; i < layers; i++) {
    const count = sections.at((i + 0.5) * step)
    areas.push(Math.abs(sectionArea(sections.segments, count)))
    graph.push(solidOf(coarse.draw(sections.segments, count)))
    if ((i & 15) === 0) report(i / layers)
  }
  return { islands: graph.islands, cups: graph.suction(), areas, suction: graph.suctionByLayer }
}

/** Regions are followed at a tenth of a millimetre, or as coarse as keeps 4,000 pixels across a large body. */
function layerGraph(mesh: Mesh, layerHeight: number): { graph: LayerGraph; coarse: Rasteriser } {
  const box = bounds(mesh)
  const pixel = Math.max(REST, layerHeight, Math.max(box.max[0] - box.min[0], box.max[1] - box.min[1]) / 4000)
  const x0 = box.min[0] - 3 * pixel,
    y0 = box.min[1] - 3 * pixel
  const w = Math.ceil((box.max[0] - x0) / pixel) + 3,
    h = Math.ceil((box.max[1] - y0) / pixel) + 3
  return { graph: new LayerGraph(pixel, pixel, x0, y0), coarse: new Rasteriser(w, h, pixel, pixel, x0, y0) }
}

/** A problem naming by how much the body stands out of the printer; null when it fits. */
export function outsidePlate(mesh: Mesh, printer: Printer): ReturnType<typeof bad> | null {
  const box = bounds(mesh)
  const [w, d] = plateSize(printer)
  const over = [
    Math.max(-box.min[0], box.max[0]) - w / 2,
    Math.max(-box.min[1], box.max[1]) - d / 2,
    box.max[2] - printer.height,
  ]
  const SIDES = ['wide', 'deep', 'tall']
  const worst = over.indexOf(Math.max(...over))
  if (over[worst]! > 1e-6) {
    return bad(
      'does-not-fit',
      message('problems.slice.itStandsMmOutOf', {
        over: fixed(over[worst]!, 1),
        name: printer.name,
        side: SIDES[worst],
      }),
    )
  }
  if (box.min[2] < -1e-3)
    return bad('below-plate', message('problems.slice.itReachesMmBelowThe', { box: fixed(-box.min[2], 2) }))
  return null
}
