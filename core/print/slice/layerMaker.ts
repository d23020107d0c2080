import { encodeLayer } from '../../formats/pngLayer'
import { bounds, type Mesh } from '../../mesh/mesh'
import { Drawn, inset, noCompensation, stepped } from './compensation'
import type { Printer } from './printer'
import { Rasteriser } from '../../raster/raster'
import { followedFor } from './followed'
import type { Intervals } from '../../raster/regions'
import { sectionPerimeter, Sections } from '../../mesh/sections'

/** One layer as the printer gets it, with what is reported of it. */
export interface MadeLayer {
  png: Uint8Array
  /** mm² of light, mm of outline */
  area: number
  perimeter: number
  /** rows whose outline did not close; left blank */
  brokenRows: number
  /** what is lit, by which its regions are followed: before anything is taken off at its edges */
  solid: Intervals
}

/** mm by which the body rises from layer to layer, and how many layers there are: one of h prints h·s tall. */
export function layerSteps(mesh: Mesh, printer: Printer): { rise: number; layers: number } {
  const rise = printer.layerHeight * (printer.compensation ?? noCompensation).scale[2]
  return { rise, layers: Math.ceil(bounds(mesh).max[2] / rise - 1e-6) }
}

/** Makes the layers of a closed body, any of them, one after the other; holds one layer and no bitmap. */
export class LayerMaker {
  private readonly fix
  private readonly drawn: Drawn
  private readonly fine: Rasteriser
  private readonly sections: Sections
  private readonly rise: number
  private readonly followed

  constructor(
    mesh: Mesh,
    private readonly printer: Printer,
  ) {
    const { pixelsX, pixelsY, pitchX, pitchY } = printer
    this.fix = printer.compensation ?? noCompensation
    this.drawn = new Drawn(this.fix)
    this.fine = new Rasteriser(pixelsX, pixelsY, pitchX, pitchY, (-pixelsX * pitchX) / 2, (-pixelsY * pitchY) / 2)
    this.sections = new Sections(mesh)
    this.rise = layerSteps(mesh, printer).rise
    this.followed = followedFor(printer)
  }

  make(i: number): MadeLayer {
    const { fix, sections, printer } = this
    const count = sections.at((i + 0.5) * this.rise)
    const by = (fix.growth + (i < fix.bleedLayers ? fix.bleed : 0)) / fix.scale[0]
    const outline = this.fine.draw(this.drawn.of(sections.segments, count), count)
    const runs = stepped(inset(outline, by, printer.pitchX, printer.pitchY), fix.greys)
    return {
      png: encodeLayer(runs),
      area: runs.covered * printer.pitchX * printer.pitchY,
      perimeter: sectionPerimeter(sections.segments, count),
      brokenRows: runs.brokenRows,
      solid: this.followed.of(outline),
    }
  }
}
