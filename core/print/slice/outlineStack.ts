import { bad, good, silent, type Answer, type Report } from '../../answer'
import { layerCount, portions, slices3mf, svgStack } from '../../formats/sliceStack'
import type { Mesh } from '../../mesh/mesh'
import type { RepairReport } from '../../mesh/repair'
import type { Printer } from './printer'
import { closedForSlicing, outsidePlate } from './slice'
import { message } from '../../words/message'

/**
 * The layers of a body as outlines instead of pictures: one SVG, or a 3MF that has them beside the mesh. Nothing is
 * compensated, which is for pixels.
 *
 * @param put takes the file's bytes in order as they are made; returns when it may go on
 */
export async function outlineStack(
  input: Mesh,
  printer: Printer,
  format: '3mf' | 'svg',
  put: (bytes: Uint8Array) => Promise<void>,
  report: Report = silent,
): Promise<Answer<{ layers: number; mended: RepairReport | null }>> {
  if (input.triangles.length === 0)
    return bad('nothing-to-slice', message('problems.outlineStack.thereIsNothingToSlice'))
  const outside = outsidePlate(input, printer)
  if (outside) return outside
  const { mesh, mended } = closedForSlicing(input)
  const layers = layerCount(mesh, printer.layerHeight)
  const seen = (i: number): void => report(i / layers)
  if (format === '3mf') await slices3mf(mesh, printer.layerHeight, put, seen)
  else {
    const text = new TextEncoder()
    for (const piece of portions(svgStack(mesh, printer.layerHeight, seen))) await put(text.encode(piece))
  }
  return good({ layers, mended })
}
