import { dropsOf, paintKey } from '../../core/paint/coats/coatPaints'
import * as Comlink from 'comlink'
import type { Coat } from '../../contract/scheme'
import { FILM, type Tool } from '../../core/paint/coats/batch'
import { chipOf, drawMix, type Drawn } from '../../core/paint/coats/drawMix'
import { toLab, type Triple } from '../../core/paint/optics/colour'
import { hiding, mix, thinned, type Optics } from '../../core/paint/optics/film'
import { bounds, type Mesh } from '../../core/mesh/mesh'
import type { Border } from '../../core/paint/surface/borders'
import { orderCoats, type CoatFacts } from '../../core/paint/order/ofScheme'
import { orderPlan, type OrderPlan } from '../../core/paint/order/plan'
import type { Lights } from '../../core/paint/order/rules'
import type { OrderCosts } from '../../core/defaults/paint'
import type { OrderRegion, OrderScheme } from '../../core/paint/order/types'
import { grown, mirrored, split, type Plane } from '../../core/paint/surface/regionTools'
import { carryLabels, type Carried } from '../../core/paint/surface/regions'
import { BINDER, paintOptics, solveRecipe, type RecipeAnswer, type StockPaint } from '../../core/paint/recipes/recipe'
import { coatFacts, type Below, type CoatFact } from '../../core/paint/coats/coatFacts'
import { groundOf, undercoatBy, unprimed } from '../../core/paint/coats/undercoat'
import { PRIMERS, type Undercoat } from '../../core/defaults/paint'
import type { Painted } from '../../core/paint/coats/coating'
import type { LightPlaces } from '../../core/paint/lighting/lightPlaces'
import { layOut, LIBRARY } from '../../core/paint/coats/library'
import type { StencilPage } from '../../core/paint/stencil/pages'
import { stencilPdf } from '../../core/paint/stencil/pdf'
import { stencils, type Stencils, type StencilWish } from '../../core/paint/stencil/stencil'
import { creasePatches, patchTree, type PatchTree } from '../../core/paint/surface/patches'
import { maskedBorders } from '../../core/paint/stencil/edgeMasks'
import { regionAccess, type RegionAccess } from '../../core/fit/access'
import { writeStl } from '../../core/formats/stl'
import { practiceBody } from '../../core/shape/practiceBody'
import type { Answer } from '../../core/answer'
import { placeEmblem, type Emblem } from '../../core/paint/stencil/emblem'
import { mutings, skinZones, type Muted, type SkinZone } from '../../core/paint/recipes/tones'
import { bestTint } from '../../core/paint/coats/tint'
import { compareUndercoats, type UndercoatCost } from '../../core/paint/coats/undercoats'
import { PaintedSkin, type SchemeSent, type SkinSent } from './paintedSkin'

/** Paint arithmetic off the main thread: the preview on the sculpt, mixes, coats, recipes. */
const optics = new Map<string, Optics>()
const stocked = new Map<string, StockPaint>()
/** by what each was reckoned from, so that paints that stayed are not reckoned again */
const known = new Map<string, string>()
/** What a coat is laid with, as it comes from the bottle; null where no paint is chosen. */
const opticsOfCoat = (c: Coat): Optics | null => mixed(dropsOf(c).map(({ paintId, drops }) => ({ id: paintId, drops })))
const painted = new PaintedSkin(opticsOfCoat, (c) => dropsOf(c).map((d) => stocked.get(d.paintId)))

export interface Drops {
  id: string
  drops: number
}
const mixed = (list: readonly Drops[]): Optics | null => {
  const there = list.filter((d) => d.drops > 0 && optics.has(d.id))
  return there.length === 0
    ? null
    : mix(
        there.map((d) => optics.get(d.id)!),
        there.map((d) => d.drops),
      )
}

/** Paints of the binder that drops are of: what they can be mixed with. */
function mixingWith(list: readonly Drops[], stock: readonly StockPaint[]): StockPaint[] {
  const binders = new Set(list.map((d) => BINDER[stocked.get(d.id)?.kind ?? 'varnish']))
  return stock.filter((p) => BINDER[p.kind] !== undefined && binders.has(BINDER[p.kind]))
}

/** K by which light from behind is weighed where no lamp is chosen yet. */
const NEUTRAL = 4000
/** Patches that a sculpt's skin is parted into for filling to creases. */
const PATCHES = 2400

const work = {
  setPaints(stock: StockPaint[]): void {
    for (const p of stock) {
      stocked.set(p.id, p)
      const from = JSON.stringify([p.lab, p.overBlack, p.opacity])
      if (known.get(p.id) === from) continue
      known.set(p.id, from)
      optics.set(p.id, paintOptics(p))
    }
  },
  setSkin(skin: SkinSent): void {
    painted.lay(skin)
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
  placesSheet(places: LightPlaces, title: string): string | null {
    return painted.placesSheet(places, title)
  },
  /** What each coat does over those before it. */
  facts(coats: Coat[], regions: SchemeSent['regions'], undercoat: Undercoat): CoatFact[] {
    const under = new Map(
      regions.map((r): [number, Below] => [
        r.id,
        r.clear
          ? { reflectance: unprimed.reflectance, lamp: r.behind?.kelvin ?? NEUTRAL }
          : { reflectance: groundOf(undercoat), lamp: null },
      ]),
    )
    return coatFacts(
      coats.map((c) => {
        const full = opticsOfCoat(c)
        return { ...c, optics: full && thinned(full, c.pigment), once: FILM[c.tool] }
      }),
      (id) => under.get(id) ?? { reflectance: groundOf(undercoat), lamp: null },
    )
  },
  /** Labels for another copy of the sculpt; the meshes are copied over, so the page keeps its own. */
  carry(from: Mesh, labels: Uint8Array, to: Mesh): Carried {
    return carryLabels(from, labels, to)
  },
  recipe(target: string | Triple, stock: StockPaint[]): RecipeAnswer {
    work.setPaints(stock)
    return solveRecipe(target, stock, optics)
  },
  /** A stack of the library in the paints of the stock. */
  layOut(
    id: string,
    target: Triple,
    stock: StockPaint[],
    rules: Parameters<typeof layOut>[3],
  ): ReturnType<typeof layOut> | null {
    work.setPaints(stock)
    const stack = LIBRARY.find((s) => s.id === id)
    return stack ? layOut(stack, target, stock, rules, optics) : null
  },
  /** Each paint as one brushed coat over black and over white. */
  chips(stock: StockPaint[]): { id: string; black: string; white: string }[] {
    work.setPaints(stock)
    return stock.map((p) => ({ id: p.id, ...chipOf(optics.get(p.id)!) }))
  },
  /** A mix as it looks: at full hiding, as a film over several grounds, and drawn down. */
  draw(list: Drops[], film: number, tool: Tool, undercoat: Undercoat, target: Triple | null): Drawn | null {
    const o = mixed(list)
    return o && drawMix(o, film, tool, { name: undercoat, ground: groundOf(undercoat) }, target)
  },
  /** Colour at full hiding that drops come to from the bottles in use; null when none of them is in stock. */
  labOf(list: Drops[], stock: StockPaint[]): Triple | null {
    work.setPaints(stock)
    const o = mixed(list)
    return o && toLab(hiding(o))
  },
  mute(list: Drops[], stock: StockPaint[], keep: number): (Muted & { id: string | null })[] {
    work.setPaints(stock)
    const base = mixed(list),
      usable = mixingWith(list, stock)
    const paints = usable.map((p) => optics.get(p.id)!)
    return base
      ? mutings(base, paints, keep).map((m) => ({ ...m, id: m.paint === null ? null : usable[m.paint]!.id }))
      : []
  },
  skin(list: Drops[], stock: StockPaint[]): (SkinZone & { id: string | null })[] {
    work.setPaints(stock)
    const base = mixed(list),
      usable = mixingWith(list, stock)
    const paints = usable.map((p) => optics.get(p.id)!)
    return base ? skinZones(base, paints).map((z) => ({ ...z, id: z.paint === null ? null : usable[z.paint]!.id })) : []
  },
  /** What each undercoat would cost in coats over the whole scheme, a tinted one last, and the tint that fits it best. */
  undercoats(
    coats: Coat[],
    stock: StockPaint[],
    regions: { id: number; target: Triple | null; area: number }[],
    tint: string,
  ): { costs: UndercoatCost[]; best: string | null } {
    work.setPaints(stock)
    const bases = regions.flatMap((r) => {
      const base = coats.find((c) => c.regionId === r.id && c.technique === 'base')
      const o = base && opticsOfCoat(base)
      return o ? [{ area: r.area, optics: thinned(o, base.pigment), tool: base.tool, goal: r.target }] : []
    })
    return {
      costs: compareUndercoats(bases, [...PRIMERS, undercoatBy('tinted', tint)]),
      best: bestTint(bases),
    }
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
  /**
   * The cheapest order of a scheme's coats, and what the hand's costs beside it.
   *
   * @param hand ids of coats in an order of one's own; empty: as they are listed
   */
  order(
    coats: Coat[],
    stock: StockPaint[],
    regions: OrderRegion[],
    borders: Border[],
    hand: string[],
    undercoat: Undercoat,
    costs: OrderCosts,
    lights: Lights,
  ): { scheme: OrderScheme; plan: OrderPlan; inks: string[] } {
    work.setPaints(stock)
    const facts = coats.map((c): CoatFacts => {
      const drops = dropsOf(c)
      const list = drops.map((m) => stocked.get(m.paintId))
      const finish = list[0]?.finish
      return {
        id: c.id,
        region: c.regionId,
        technique: c.technique,
        tool: c.technique === 'airbrush' ? 'airbrush' : c.tool,
        optics: opticsOfCoat(c),
        // Nobody knows of two coats without a paint that they would be the same.
        paint: paintKey(c),
        name: list.map((p) => p?.name ?? '?').join(' + ') || 'paint to choose',
        film: c.film,
        pigment: c.pigment,
        metallic: c.technique === 'metallic' || list.some((p) => p?.kind === 'metallic'),
        varnish: c.technique !== 'varnish' ? null : finish === 'gloss' || finish === 'satin' ? finish : 'matt',
        area: regions.find((r) => r.id === c.regionId)?.area ?? 0,
      }
    })
    const scheme: OrderScheme = { regions, borders, coats: orderCoats(facts, undercoat) }
    const place = new Map(hand.map((id, i) => [id, i]))
    const own = [...coats.keys()].sort(
      (a, b) => (place.get(coats[a]!.id) ?? Infinity) - (place.get(coats[b]!.id) ?? Infinity) || a - b,
    )
    const inks = coats.filter((c) => {
      const drops = dropsOf(c)
      return drops.length > 0 && drops.every((m) => stocked.get(m.paintId)?.kind === 'ink')
    })
    return { scheme, plan: orderPlan(scheme, own, costs, lights), inks: inks.map((c) => c.id) }
  },
}
export type PaintWork = typeof work
Comlink.expose(work)
