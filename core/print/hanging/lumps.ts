import { UnionFind } from '../../math/unionFind'

/** A neck by which one lump hangs from another. */
export interface Hanger {
  /** lump that it hangs from */
  onto: number
  /** mm, where the neck is thinnest */
  x: number
  y: number
  layer: number
  /** mm² there */
  area: number
  broken: boolean
}
export interface Load {
  /** N, and N·mm about the plate's middle: Σ F, Σ F·x, Σ F·y */
  force: number
  momentX: number
  momentY: number
}
export interface LetGo {
  hanger: Hanger
  /** N that it was pulled with, and that it holds */
  force: number
  capacity: number
  /** whether the lump lost its last hold by it */
  fell: boolean
  lump: number
}

interface Lump {
  rooted: boolean
  alive: boolean
  hangers: Hanger[]
  /** mm³ printed of it so far */
  volume: number
}

/** mm; how far a tip resists being bent, as though it were spread that wide: keeps one tip alone from being a hinge */
const STIFF = 1

/**
 * Rigid bodies that hang from each other by thin necks, up to those that hold to the plate. United as print grows (union–find),
 * pulled layer by layer; a neck that is pulled harder than it holds lets go, and what has no hold left falls.
 */
export class Lumps {
  private readonly sets = new UnionFind()
  private readonly lumps: Lump[] = []

  add(rooted: boolean): number {
    this.lumps.push({ rooted, alive: true, hangers: [], volume: 0 })
    return this.sets.add()
  }

  root(a: number): number {
    return this.sets.root(a)
  }

  alive(a: number): boolean {
    return this.lumps[this.root(a)]!.alive
  }

  grow(a: number, volume: number): void {
    this.lumps[this.root(a)]!.volume += volume
  }

  hang(lump: number, hanger: Omit<Hanger, 'broken'>): void {
    this.lumps[this.root(lump)]!.hangers.push({ ...hanger, broken: false })
  }

  unite(a: number, b: number): number {
    const joined = this.sets.join(a, b)
    if (!joined) return this.root(a)
    const keep = this.lumps[joined.keep]!,
      gone = this.lumps[joined.gone]!
    keep.rooted ||= gone.rooted
    keep.hangers.push(...gone.hangers)
    keep.volume += gone.volume
    gone.hangers = []
    return joined.keep
  }

  /** mm³ of all that still hangs. */
  get hangingVolume(): number {
    return this.lumps.reduce((sum, l, i) => sum + (this.root(i) === i && l.alive ? l.volume : 0), 0)
  }

  /**
   * Leads one layer's pull up to the plate and breaks what does not hold it. A lump is a rigid plate on springs as stiff as
   * its necks are wide: f = k·(a + b·x + c·y), with the sums of force and of both moments kept.
   *
   * @param loads by lump, of this layer alone
   * @param strength N/mm²
   */
  applyLoads(loads: ReadonlyMap<number, Load>, strength: number): LetGo[] {
    const gone: LetGo[] = []
    for (let again = true; again;) {
      again = false
      const sum = new Map<number, Load>()
      for (const [lump, l] of loads) if (this.alive(lump)) addLoad(sum, this.root(lump), l)
      for (const id of this.order(sum.keys())) {
        const lump = this.lumps[id]!,
          load = sum.get(id)
        if (lump.rooted || !lump.alive) continue
        const broken = load ? this.pull(id, load, strength, sum) : []
        gone.push(...broken)
        if (lump.hangers.some((h) => this.holds(id, h))) continue
        lump.alive = false
        const last = broken.at(-1)
        if (last) last.fell = true
        // What hung on it has to look for another hold.
        again = true
      }
    }
    return gone
  }

  private holds(id: number, h: Hanger): boolean {
    return !h.broken && this.root(h.onto) !== id && this.alive(h.onto)
  }

  private pull(id: number, load: Load, strength: number, sum: Map<number, Load>): LetGo[] {
    const gone: LetGo[] = []
    for (;;) {
      const held = this.lumps[id]!.hangers.filter((h) => this.holds(id, h))
      if (held.length === 0) return gone
      const forces = shares(held, load)
      let worst = -1,
        most = 1
      held.forEach((h, i) => {
        const use = forces[i]! / (strength * h.area)
        if (use > most) {
          most = use
          worst = i
        }
      })
      if (worst < 0) {
        held.forEach((h, i) => {
          const force = forces[i]!
          addLoad(sum, this.root(h.onto), { force, momentX: force * h.x, momentY: force * h.y })
        })
        return gone
      }
      const hanger = held[worst]!
      hanger.broken = true
      gone.push({ hanger, force: forces[worst]!, capacity: strength * hanger.area, fell: false, lump: id })
    }
  }

  /** Lumps that are pulled and all that they hang from, each before what it hangs from; a hold that leads back is passed over. */
  private order(loaded: Iterable<number>): number[] {
    const out: number[] = [],
      seen = new Set<number>()
    for (const start of loaded) {
      if (seen.has(start)) continue
      const stack: { id: number; next: number }[] = [{ id: start, next: 0 }]
      seen.add(start)
      while (stack.length > 0) {
        const top = stack.at(-1)!
        const h = this.lumps[top.id]!.hangers[top.next++]
        if (!h) {
          out.push(top.id)
          stack.pop()
          continue
        }
        const onto = this.root(h.onto)
        if (!h.broken && !seen.has(onto)) {
          seen.add(onto)
          stack.push({ id: onto, next: 0 })
        }
      }
    }
    return out.reverse()
  }
}

function addLoad(sum: Map<number, Load>, id: number, { force, momentX, momentY }: Load): void {
  const l = sum.get(id)
  if (!l) sum.set(id, { force, momentX, momentY })
  else {
    l.force += force
    l.momentX += momentX
    l.momentY += momentY
  }
}

/** Each hanger's share of a load on a rigid plate, N; below 0 it is pressed. */
export function shares(held: readonly Hanger[], load: Load): number[] {
  let k = 0,
    kx = 0,
    ky = 0
  for (const h of held) {
    k += h.area
    kx += h.area * h.x
    ky += h.area * h.y
  }
  const x0 = kx / k,
    y0 = ky / k
  let xx = k * STIFF * STIFF,
    yy = xx,
    xy = 0
  for (const h of held) {
    xx += h.area * (h.x - x0) ** 2
    yy += h.area * (h.y - y0) ** 2
    xy += h.area * (h.x - x0) * (h.y - y0)
  }
  const mx = load.momentX - load.force * x0,
    my = load.momentY - load.force * y0
  const det = xx * yy - xy * xy
  const b = (mx * yy - my * xy) / det,
    c = (my * xx - mx * xy) / det
  return held.map((h) => h.area * (load.force / k + b * (h.x - x0) + c * (h.y - y0)))
}
