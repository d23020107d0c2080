import * as Comlink from 'comlink'
import type { Coat } from '../../contract/pieces'
import { AIRBRUSHED, BRUSHED, coatsToHide, filmOver, mix, opticsOf, thinned, type Optics } from '../../core/paint/film'
import { toHex, toXyz, xyzToSrgb } from '../../core/paint/colour'
import type { Mesh } from '../../core/mesh/mesh'
import { carryLabels } from '../../core/paint/regions'
import { solveRecipe, type RecipeAnswer, type StockPaint } from '../../core/paint/recipe'
import { colourVertices, groundOf, stackTable, type StackCoat, type Undercoat } from '../../core/paint/stack'

/** Paint arithmetic off the main thread: the preview on the sculpt, coats to hide, recipes. */
const optics = new Map<string, Optics>()
let maps = new Float32Array(0)
const white = opticsOf('#f2f1ec', 0.8)
const paintsOf = (c: Coat): StackCoat['paints'] => {
  const one = (id: string, share: number): StackCoat['paints'] => {
    const o = optics.get(id)
    return o ? [{ optics: o, share }] : []
  }
  return c.mix.length > 0 ? c.mix.flatMap((m) => one(m.paintId, m.drops)) : c.paintId ? one(c.paintId, 1) : []
}
const stackCoat = (c: Coat): StackCoat => ({
  technique: c.technique,
  paints: paintsOf(c),
  film: c.film,
  pigment: c.pigment,
  tool: c.tool,
})

const work = {
  setPaints(stock: StockPaint[]): void {
    for (const p of stock) optics.set(p.id, opticsOf(p.hex, p.opacity))
  },
  setMaps(data: Float32Array): void {
    maps = data as Float32Array<ArrayBuffer>
  },
  preview(labels: Uint8Array, regions: number[], coats: Coat[], undercoat: Undercoat): Float32Array {
    const tables = new Map(
      regions.map((r) => [r, stackTable(undercoat, white, coats.filter((c) => c.regionId === r).map(stackCoat))]),
    )
    const out = new Float32Array(labels.length * 3)
    colourVertices(maps, labels, tables, out)
    return Comlink.transfer(out, [out.buffer])
  },
  /** For each coat: coats of that tool to hide what lies below it, and the colour it ends at. */
  facts(coats: Coat[], undercoat: Undercoat): { id: string; toHide: number | null; hex: string }[] {
    const ground = new Map<number, Float64Array>()
    return coats.map((c) => {
      const below = ground.get(c.regionId) ?? groundOf(undercoat)
      const paints = paintsOf(c)
      if (paints.length === 0) return { id: c.id, toHide: null, hex: '#888888' }
      const o = thinned(
        mix(
          paints.map((p) => p.optics),
          paints.map((p) => p.share),
        ),
        c.pigment,
      )
      const over = filmOver(o, c.film, below)
      if (c.technique === 'base' || c.technique === 'layer' || c.technique === 'glaze') ground.set(c.regionId, over)
      return {
        id: c.id,
        toHide: c.technique === 'base' ? coatsToHide(o, below, c.tool === 'airbrush' ? AIRBRUSHED : BRUSHED) : null,
        hex: toHex(xyzToSrgb(toXyz(over))),
      }
    })
  },
  /** Labels for another copy of the sculpt; the meshes are copied over, so the page keeps its own. */
  carry(from: Mesh, labels: Uint8Array, to: Mesh): Uint8Array {
    const out = carryLabels(from, labels, to)
    return Comlink.transfer(out, [out.buffer])
  },
  recipe(target: string, stock: StockPaint[]): RecipeAnswer {
    return solveRecipe(target, stock, optics)
  },
}
export type PaintWork = typeof work
Comlink.expose(work)
