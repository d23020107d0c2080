import { GREEN_STRENGTH, LIFT_SUCTION, PEEL_PRESSURE } from '../../defaults/print'
import type { Runs } from '../../raster/raster'
import { label, solidOf, touch, voidsOf, type Intervals, type Labels } from '../../raster/regions'
import { Voids } from '../../raster/voids'
import { Lumps, type Load } from './lumps'

/** What a printer and its resin really do, as against what a plan calculates with. */
export interface World {
  /** separation pressure, Pa */
  peelPressure: number
  /** tensile strength of green resin at a neck, Pa */
  greenStrength: number
  /** pressure difference that a lift puts on a sealed cup, Pa */
  suction: number
}
export const worldDefaults: World = {
  peelPressure: PEEL_PRESSURE,
  greenStrength: GREEN_STRENGTH,
  suction: LIFT_SUCTION,
}

/** Something that went wrong in a layer. Places in mm from the plate's middle; z from the plate. */
export type Mishap = { layer: number; x: number; y: number; z: number } & (
  | { kind: 'island'; area: number }
  /** `fell`: what hung on it had no other hold */
  | { kind: 'tip'; force: number; capacity: number; fell: boolean }
  | { kind: 'cup'; area: number; force: number; wall: number }
)
/** What is not there because of a mishap. */
export interface Loss {
  /** index of the mishap */
  mishap: number
  firstLayer: number
  lastLayer: number
  /** mm³ that should have been printed and was not */
  volume: number
  /** mm, round all of it: x and y from and to */
  box: [number, number, number, number]
}
export interface Hung {
  mishaps: Mishap[]
  losses: Loss[]
  /** mm³ that hang from the plate at the end, and that should */
  printed: number
  meant: number
}

/** mm²; a cross-section thinner than this may let go, a thicker one is taken for sound */
const NECK = 2.5
/** How much wider a print must grow again for a thin place to count as a neck, and how much thinner it must have become. */
const WIDENS = 3,
  NARROWS = 0.5
const LEAST_ISLAND = 0.01
/** mm²; what a smaller void pulls with, any wall bears */
const LEAST_CUP = 15
/** mm of height over which a wall must be too thin: the first skin of a fold that closes bends, and does not tear */
const MEMBRANE = 0.25

interface Strand {
  lump: number
  /** mm², widest since the last neck */
  widest: number
  neck: { area: number; x: number; y: number; layer: number } | null
  /** index of the loss it belongs to; -1 where it is printed */
  loss: number
}

/**
 * Prints a stack of layers in mind: follows what hangs on what, pulls each layer off the film, lets islands drop, tips let
 * go and sealed cups tear, and leaves out what then has nothing to hold to.
 *
 * Regions of a layer continue those of the layer before that they overlap. Where a region has become thin and grows wide
 * again, a neck is noted: the tip of a support, as a rule. What necks hold apart are lumps, each rigid; `Lumps` shares out
 * the pull. A cup's wall, which is never quite round, is taken as a clamped strip as wide as the cup: σ = Δp·w²/(2·t²), with
 * t the thinnest wall met along a row.
 */
export class Hanging {
  private readonly lumps = new Lumps()
  private readonly voids = new Voids()
  /** for how many layers the wall of a void has been too thin, by the void's number */
  private readonly thin = new Map<number, number>()
  private readonly mishaps: Mishap[] = []
  private readonly losses: Loss[] = []
  /** loss of a fallen lump, by its root when it fell */
  private readonly fallen = new Map<number, number>()
  private before: { solid: Intervals; strands: Strand[] } | null = null
  private layer = 0
  private meant = 0

  /** @param slack pixels by which a region may grow sideways from one layer to the next and still be held */
  constructor(
    private readonly world: World,
    private readonly pitch: readonly [number, number],
    private readonly origin: readonly [number, number],
    private readonly layerHeight: number,
    private readonly slack = 1,
  ) {}

  /** Prints one layer; gives what went wrong in it. */
  push(runs: Runs): Mishap[] {
    const from = this.mishaps.length
    const pixel = this.pitch[0] * this.pitch[1]
    const solid = solidOf(runs)
    const parts = label(solid)
    const strands = this.continued(solid, parts)
    const loads = new Map<number, Load>()
    for (let c = 0; c < parts.count; c++) {
      const s = strands[c]!,
        area = parts.light[c]! * pixel
      this.meant += area * this.layerHeight
      if (s.loss >= 0) {
        this.miss(s.loss, parts, c, area)
        continue
      }
      this.lumps.grow(s.lump, area * this.layerHeight)
      this.load(loads, s.lump, this.world.peelPressure * area * 1e-6, this.place(parts, c))
    }
    this.seals(solid, strands, loads)
    for (const g of this.lumps.applyLoads(loads, this.world.greenStrength * 1e-6)) {
      this.mishaps.push({
        kind: 'tip',
        layer: this.layer,
        x: g.hanger.x,
        y: g.hanger.y,
        z: g.hanger.layer * this.layerHeight,
        force: g.force,
        capacity: g.capacity,
        fell: g.fell,
      })
      if (g.fell) this.fallen.set(g.lump, this.loses())
    }
    this.before = { solid, strands }
    this.layer++
    return this.mishaps.slice(from)
  }

  get result(): Hung {
    return { mishaps: this.mishaps, losses: this.losses, printed: this.lumps.hangingVolume, meant: this.meant }
  }

  /** Which strand each region of this layer continues. */
  private continued(solid: Intervals, parts: Labels): Strand[] {
    const pixel = this.pitch[0] * this.pitch[1]
    const { before } = this
    if (!before)
      return Array.from({ length: parts.count }, (_, c) => ({
        lump: this.lumps.add(true),
        widest: parts.light[c]! * pixel,
        neck: null,
        loss: -1,
      }))
    const over: Set<number>[] = Array.from({ length: parts.count }, () => new Set())
    touch(solid, before.solid, [this.slack, this.slack], (i, j) => over[solid.label[i]!]!.add(before.solid.label[j]!))
    const children = new Uint32Array(before.strands.length)
    for (const set of over) for (const p of set) children[p]!++
    return over.map((set, c) => {
      const area = parts.light[c]! * pixel,
        place = this.place(parts, c)
      const held: { strand: Strand; split: boolean }[] = []
      let lost = -1
      for (const p of set) {
        const strand = before.strands[p]!
        if (strand.loss >= 0) lost = strand.loss
        else if (this.lumps.alive(strand.lump)) held.push({ strand, split: children[p]! > 1 })
        else lost = this.lossOf(strand.lump)
      }
      if (held.length === 0) {
        if (lost < 0) lost = this.drops(area, place)
        return { lump: -1, widest: area, neck: null, loss: lost }
      }
      return this.grown(held, area, place)
    })
  }

  /** A region that continues one strand or joins several. */
  private grown(held: { strand: Strand; split: boolean }[], area: number, place: Place): Strand {
    const here = { area, ...place, layer: this.layer }
    if (held.length === 1) {
      const [{ strand, split }] = held as [{ strand: Strand; split: boolean }]
      // Branches of a split each become thin for themselves.
      const s: Strand = split ? { ...strand, neck: null } : { ...strand }
      if (area < NARROWS * s.widest && area < (s.neck?.area ?? Infinity)) s.neck = here
      if (!s.neck) s.widest = Math.max(s.widest, area)
      if (!widened(s, area)) return s
      const lump = this.lumps.add(false)
      this.lumps.hang(lump, { onto: s.lump, ...s.neck! })
      return { lump, widest: area, neck: null, loss: -1 }
    }
    const sound = held.filter(({ strand }) => !widened(strand, area))
    const lump =
      sound.length > 0
        ? sound.map(({ strand }) => strand.lump).reduce((a, b) => this.lumps.unite(a, b))
        : this.lumps.add(false)
    for (const { strand } of held)
      if (widened(strand, area)) this.lumps.hang(lump, { onto: strand.lump, ...strand.neck! })
    return { lump, widest: area, neck: null, loss: -1 }
  }

  /** Voids that the layer shuts in pull on what surrounds them, and tear a wall that is too thin for them. */
  private seals(solid: Intervals, strands: readonly Strand[], loads: Map<number, Load>): void {
    const empty = voidsOf(solid)
    const labels = label(empty)
    const ids = this.voids.push(empty, labels)
    const pixel = this.pitch[0] * this.pitch[1]
    const shut = new Uint8Array(labels.count)
    let any = false
    for (let c = 0; c < labels.count; c++)
      if (labels.pixels[c]! * pixel >= LEAST_CUP && this.voids.shut(ids[c]!)) {
        shut[c] = 1
        any = true
      }
    if (!any) return
    const walls = thinnestWalls(empty, solid, shut, (part) => strands[part]!.loss < 0)
    for (const [c, wall] of walls) {
      const area = labels.pixels[c]! * pixel
      const force = this.world.suction * area * 1e-6
      const t = wall.pixels * this.pitch[0],
        across = Math.sqrt((4 * area) / Math.PI)
      const root = this.voids.root(ids[c]!)
      const tears = (this.world.suction * across * across) / (2 * t * t) > this.world.greenStrength
      const layers = tears ? (this.thin.get(root) ?? 0) + 1 : 0
      this.thin.set(root, layers)
      if (layers * this.layerHeight >= MEMBRANE - 1e-9) {
        this.voids.vent(root)
        this.mishaps.push({
          kind: 'cup',
          layer: this.layer,
          x: this.origin[0] + wall.x * this.pitch[0],
          y: this.origin[1] + (wall.row + 0.5) * this.pitch[1],
          z: this.layer * this.layerHeight,
          area,
          force,
          wall: t,
        })
      } else this.load(loads, strands[wall.part]!.lump, force, this.place(labels, c))
    }
  }

  private drops(area: number, { x, y }: Place): number {
    // A fleck is no island: it is gone with the next lift, and nobody misses it.
    if (area >= LEAST_ISLAND)
      this.mishaps.push({ kind: 'island', layer: this.layer, x, y, z: this.layer * this.layerHeight, area })
    else return this.speck()
    return this.loses()
  }

  /** Begins a loss by the mishap noted last. */
  private loses(): number {
    this.losses.push({
      mishap: this.mishaps.length - 1,
      firstLayer: this.layer,
      lastLayer: this.layer,
      volume: 0,
      box: [Infinity, -Infinity, Infinity, -Infinity],
    })
    return this.losses.length - 1
  }

  /** All flecks share one loss without a mishap. */
  private speck(): number {
    const at = this.losses.findIndex((l) => l.mishap < 0)
    if (at >= 0) return at
    const loss = this.loses()
    this.losses[loss]!.mishap = -1
    return loss
  }

  /** What fell because that on which it hung had fallen belongs to the loss noted last. */
  private lossOf(lump: number): number {
    const root = this.lumps.root(lump)
    const loss = this.fallen.get(root) ?? this.losses.length - 1
    this.fallen.set(root, loss)
    return loss
  }

  private miss(loss: number, parts: Labels, c: number, area: number): void {
    const l = this.losses[loss]!,
      { x, y } = this.place(parts, c),
      r = Math.sqrt(area / Math.PI)
    l.lastLayer = this.layer
    l.volume += area * this.layerHeight
    l.box = [Math.min(l.box[0], x - r), Math.max(l.box[1], x + r), Math.min(l.box[2], y - r), Math.max(l.box[3], y + r)]
  }

  private load(loads: Map<number, Load>, lump: number, force: number, { x, y }: Place): void {
    const root = this.lumps.root(lump)
    const l = loads.get(root) ?? { force: 0, momentX: 0, momentY: 0 }
    l.force += force
    l.momentX += force * x
    l.momentY += force * y
    loads.set(root, l)
  }

  private place(l: Labels, c: number): Place {
    return {
      x: this.origin[0] + (l.sumX[c]! / l.pixels[c]!) * this.pitch[0],
      y: this.origin[1] + (l.sumY[c]! / l.pixels[c]! + 0.5) * this.pitch[1],
    }
  }
}

interface Place {
  x: number
  y: number
}

const widened = (s: Strand, area: number): boolean =>
  s.neck !== null && s.neck.area < NECK && area > WIDENS * s.neck.area

interface Wall {
  /** pixels along the row */
  pixels: number
  x: number
  row: number
  /** region it belongs to */
  part: number
}

/** The thinnest solid beside each void that is asked for, measured along the rows. */
function thinnestWalls(
  empty: Intervals,
  solid: Intervals,
  asked: Uint8Array,
  printed: (part: number) => boolean,
): Map<number, Wall> {
  const out = new Map<number, Wall>()
  const see = (c: number, k: number, row: number): void => {
    const pixels = solid.light[k]!,
      part = solid.label[k]!
    const best = out.get(c)
    if (printed(part) && (!best || pixels < best.pixels))
      out.set(c, { pixels, x: (solid.from[k]! + solid.to[k]!) / 2, row, part })
  }
  for (let row = 0; row < solid.height; row++) {
    let k = solid.rowStart[row]!
    const end = solid.rowStart[row + 1]!
    for (let i = empty.rowStart[row]!; i < empty.rowStart[row + 1]!; i++) {
      const c = empty.label[i]!
      if (!asked[c]) continue
      while (k < end && solid.to[k]! <= empty.from[i]!) k++
      if (k > solid.rowStart[row]!) see(c, k - 1, row)
      if (k < end) see(c, k, row)
    }
  }
  return out
}
