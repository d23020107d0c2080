import { noCompensation } from './compensation'
import { LayerGraph } from '../../raster/layerGraph'
import type { Printer } from './printer'
import type { Runs } from '../../raster/raster'
import { SolidReader, type Intervals } from '../../raster/regions'

/** mm within which a region still rests on the layer below: of that size are the rows in which regions are followed. */
export const REST = 0.1

/** Pixels within which a region still rests on the layer below, and one at least. */
export const slack = (pitch: readonly [number, number]): number => Math.max(1, Math.round(REST / Math.max(...pitch)))

/** Rows of pixels that are followed as one; layers thicker than a tenth of a millimetre hold over as much. */
const rowsFollowed = (pitchY: number, layerHeight: number): number =>
  Math.max(1, Math.round(Math.max(REST, layerHeight) / pitchY))

/** How regions are followed in layers of a printer's pixels: what is taken of each layer, and the graph that it goes into. */
export interface Followed {
  of: (runs: Runs) => Intervals
  graph: () => LayerGraph
}

/**
 * @param pitch mm, x and y; below 0 where the picture is mirrored
 * @param corner mm, where the picture begins
 */
export function followed(
  pitch: readonly [number, number],
  corner: readonly [number, number],
  layerHeight: number,
): Followed {
  const rows = rowsFollowed(Math.abs(pitch[1]), layerHeight)
  const near = Math.max(1, Math.round(Math.max(REST, layerHeight) / Math.abs(pitch[0])))
  const reader = new SolidReader(rows)
  return {
    of: (runs) => reader.of(runs),
    graph: () => new LayerGraph(pitch[0], pitch[1] * rows, corner[0], corner[1], [near, 1]),
  }
}

/** The same in what is drawn for a printer, whose places are given as the body has them. */
export function followedFor(printer: Printer): Followed {
  const { pixelsX, pixelsY, pitchX, pitchY, layerHeight } = printer
  const { scale, mirrorX, mirrorY } = printer.compensation ?? noCompensation
  const x = pitchX * scale[0] * (mirrorX ? -1 : 1),
    y = pitchY * scale[1] * (mirrorY ? -1 : 1)
  return followed([x, y], [(-pixelsX * x) / 2, (-pixelsY * y) / 2], layerHeight)
}
