import * as Comlink from 'comlink'
import type { Coat } from '../../contract/scheme'
import type { Answer } from '../../core/answer'
import type { OrderCosts, Undercoat } from '../../core/defaults/paint'
import { regionAccess, type RegionAccess } from '../../core/fit/access'
import { writeStl } from '../../core/formats/stl'
import { bounds, type Mesh } from '../../core/mesh/mesh'
import type { Tool } from '../../core/paint/coats/batch'
import type { CoatFact } from '../../core/paint/coats/coatFacts'
import type { Painted } from '../../core/paint/coats/coating'
import { drawMix, type Drawn } from '../../core/paint/coats/drawMix'
import { coatsOfStack, LIBRARY } from '../../core/paint/coats/library'
import { groundOf } from '../../core/paint/coats/undercoat'
import type { LightPlaces } from '../../core/paint/lighting/lightPlaces'
import type { Triple } from '../../core/paint/optics/colour'
import type { Lights } from '../../core/paint/order/rules'
import type { OrderRegion } from '../../core/paint/order/types'
import { factsOf, orderOf, undercoatsOf } from '../../core/paint/palette/coats'
import { Palette, type Drops } from '../../core/paint/palette/palette'
import { solveRecipe, type RecipeAnswer, type StockPaint } from '../../core/paint/recipes/recipe'
import { maskedBorders } from '../../core/paint/stencil/edgeMasks'
import { placeEmblem, type Emblem } from '../../core/paint/stencil/emblem'
import type { StencilPage } from '../../core/paint/stencil/pages'
import { stencilPdf } from '../../core/paint/stencil/pdf'
import { stencils, type Stencils, type StencilWish } from '../../core/paint/stencil/stencil'
import type { Border } from '../../core/paint/surface/borders'
import { creasePatches, patchTree, type PatchTree } from '../../core/paint/surface/patches'
import { transferLabels, type TransferredLabels } from '../../core/paint/surface/regions'
import { grown, mirrored, split, type Plane } from '../../core/paint/surface/regionTools'
import { practiceBody } from '../../core/shape/practiceBody'
import { PaintedSkin, type SchemeSent, type SkinSent } from './paintedSkin'
import type { Manner } from '../../core/words/manner'

/** Paint arithmetic off the main thread: the preview on the sculpt, mixes, coats, recipes. */
const palette = new Palette()
const painted = new PaintedSkin(
  (c) => palette.ofCoat(c),
  (c) => palette.paintsOf(c),
)
export type { Drops }

/** Patches that a sculpt's skin is parted into for filling to creases. */
const PATCHES = 2400

const work = {
  setPaints(stock: StockPaint[]): void {
    palette.keep(stock)
  },
  setSkin(skin: SkinSent): void {
    painted.setSkin(skin)
  },
  /**
   * @param done ids of the coats that are on; null for all of them
   * @param followed whether a hand drags it
   */
  preview(scheme: SchemeSent, lamp: number | null, done: string[] | null, followed = false): Painted {
    const out = painted.show(scheme, lamp, done && new Set(done), followed)
    return Comlink.transfer(out, [out.colours.buffer, out.sheen.buffer, ...(out.glow ? [out.glow.buffer] : [])])
  },
  places(labels: Uint8Array, region: number | null, at: { turn: number; lift: number }): LightPlaces | null {
    return painted.places(labels, region, at)
  },
  placesSheet(places: LightPlaces, title: string, manner: Manner): string | null {
    return painted.placesSheet(places, title, manner)
  },
  facts(coats: Coat[], regions: SchemeSent['regions'], undercoat: Undercoat): CoatFact[] {
    return factsOf(palette, coats, regions, undercoat)
  },
  /** Labels for another copy of the sculpt; the meshes are copied over, so the page keeps its own. */
  transferLabels(from: Mesh, labels: Uint8Array, to: Mesh): TransferredLabels {
    return transferLabels(from, labels, to)
  },
  recipe(target: string | Triple, stock: StockPaint[]): RecipeAnswer {
    palette.keep(stock)
    return solveRecipe(target, stock, palette.optics)
  },
  /** A stack of the library in the paints of the stock. */
  coatsOfStack(
    id: string,
    target: Triple,
    stock: StockPaint[],
    rules: Parameters<typeof coatsOfStack>[3],
  ): ReturnType<typeof coatsOfStack> | null {
    palette.keep(stock)
    const stack = LIBRARY.find((s) => s.id === id)
    return stack ? coatsOfStack(stack, target, stock, rules, palette.optics) : null
  },
  chips(stock: StockPaint[]): ReturnType<Palette['chips']> {
    palette.keep(stock)
    return palette.chips(stock)
  },
  /** A mix as it looks: at full hiding, as a film over several grounds, and drawn down. */
  draw(list: Drops[], film: number, tool: Tool, undercoat: Undercoat, target: Triple | null): Drawn | null {
    const o = palette.mixed(list)
    return o && drawMix(o, film, tool, { name: undercoat, ground: groundOf(undercoat) }, target)
  },
  labOf(list: Drops[], stock: StockPaint[]): Triple | null {
    palette.keep(stock)
    return palette.labOf(list)
  },
  mute(list: Drops[], stock: StockPaint[], keep: number): ReturnType<Palette['muted']> {
    palette.keep(stock)
    return palette.muted(list, stock, keep)
  },
  skin(list: Drops[], stock: StockPaint[]): ReturnType<Palette['skin']> {
    palette.keep(stock)
    return palette.skin(list, stock)
  },
  undercoats(
    coats: Coat[],
    stock: StockPaint[],
    regions: { id: number; target: Triple | null; area: number }[],
    tint: string,
  ): ReturnType<typeof undercoatsOf> {
    palette.keep(stock)
    return undercoatsOf(palette, coats, regions, tint)
  },
  grow(mesh: Mesh, labels: Uint8Array, region: number, by: number): Uint8Array {
    return grown(mesh, labels, region, by)
  },
  /** Left to right, across the middle of the sculpt's box. */
  mirror(mesh: Mesh, labels: Uint8Array, region: number): ReturnType<typeof mirrored> {
    const { min, max } = bounds(mesh)
    return mirrored(mesh, labels, region, { point: [(min[0] + max[0]) / 2, 0, 0], normal: [1, 0, 0] })
  },
  split(mesh: Mesh, labels: Uint8Array, region: number, plane: Plane, into: number): ReturnType<typeof split> {
    return split(mesh, labels, region, plane, into)
  },
  /** The body to practise on, as a binary STL. */
  practiceStl(): Uint8Array {
    return writeStl(practiceBody())
  },
  emblem(mesh: Mesh, point: Triple, face: number, mark: Float64Array[], turn: number): Answer<Emblem> {
    return placeEmblem(mesh, point, face, mark, turn)
  },
  patches(mesh: Mesh): PatchTree {
    return patchTree(creasePatches(mesh, PATCHES))
  },
  stencils(
    mesh: Mesh,
    labels: Uint8Array,
    region: number,
    wish: StencilWish,
    told: (share: number) => void,
  ): Promise<Stencils> {
    return stencils(mesh, labels, region, wish, told)
  },
  stencilPdf(pages: StencilPage[], title: string): Promise<Uint8Array> {
    return stencilPdf(pages, title)
  },
  borders(mesh: Mesh, labels: Uint8Array): ReturnType<typeof maskedBorders> {
    return maskedBorders(mesh, labels)
  },
  reach(mesh: Mesh, labels: Uint8Array): RegionAccess[] {
    return regionAccess(mesh, labels)
  },
  order(
    coats: Coat[],
    stock: StockPaint[],
    regions: OrderRegion[],
    borders: Border[],
    own: string[],
    undercoat: Undercoat,
    costs: OrderCosts,
    lights: Lights,
  ): ReturnType<typeof orderOf> {
    palette.keep(stock)
    return orderOf(palette, coats, regions, borders, own, undercoat, costs, lights)
  },
}
export type PaintWork = typeof work
Comlink.expose(work)
