import type { Coat, Region, Scheme } from '../../contract/scheme'
import type { Mesh } from '../../core/mesh/mesh'
import { meanEdge, vertexNormals } from '../../core/mesh/measure'
import { effectCoat } from '../../core/paint/coats/effectCoats'
import { thinned, type Optics } from '../../core/paint/optics/film'
import { lampWeights } from '../../core/paint/optics/lamp'
import { lightPlaces, placesSheet, type LightPlaces } from '../../core/paint/lighting/lightPlaces'
import type { Coating, Painted, Sheen, Stack } from '../../core/paint/coats/coating'
import type { Hand } from '../../core/defaults/paint'
import { levelsOf } from '../../core/paint/coats/levels'
import { Painter, paintSkin } from '../../core/paint/coats/painter'
import type { StockPaint } from '../../core/paint/recipes/recipe'
import { followsSpray, inSpots, readOf } from '../../core/paint/coats/technique'
import { directionOf, sprayLight } from '../../core/paint/surface/sprayLight'
import { MAP, MAPS } from '../../core/paint/surface/surfaceMaps'
import { undercoated, unprimed } from '../../core/paint/coats/undercoat'
import type { Undercoat } from '../../core/defaults/paint'
import type { Manner } from '../../core/words/manner'

export interface SkinSent {
  mesh: Mesh
  /** MAPS floats per vertex */
  maps: Float32Array
}
export interface SchemeSent {
  labels: Uint8Array
  /** `clear` gets no primer; a lamp may stand behind it */
  regions: { id: number; clear: boolean; behind: Region['behind'] }[]
  coats: Coat[]
  /** drawn over the coats, as what they look like */
  effects: Scheme['effects']
  undercoat: Undercoat
  /** by which washes, brushes and powder follow the skin */
  hand: Hand
}

/** degrees, half the angle under which a strip of light over a cabinet is seen */
const LAMP_SPREAD = 20
/** Maps kept of each sort; each is up to four bytes a vertex. */
const MAX_KEPT = 64

/** The skin on the table and what is sprayed onto it from anywhere, for previews that follow the hand. */
export class PaintedSkin {
  private skin: (SkinSent & { spacing: number; normals: Float32Array }) | null = null
  private painter: Painter | null = null
  private readonly passes = new Map<string, Float32Array>()
  private readonly levels = new Map<string, Uint8Array | null>()
  private readonly weights = new Map<string, ReturnType<typeof lampWeights>>()

  constructor(
    private readonly opticsOf: (c: Coat) => Optics | null,
    private readonly paintsOf: (c: Coat) => (StockPaint | undefined)[],
  ) {}

  setSkin(skin: SkinSent): void {
    this.passes.clear()
    this.levels.clear()
    this.painter = new Painter(skin.maps)
    this.skin = { ...skin, spacing: meanEdge(skin.mesh), normals: vertexNormals(skin.mesh) }
  }

  /** @param followed whether this is the one that a hand drags, and not another beside it */
  show(scheme: SchemeSent, lamp: number | null, done: ReadonlySet<string> | null, followed: boolean): Painted {
    const { skin } = this
    const { labels, coats, undercoat, hand } = scheme
    if (!skin || skin.maps.length === 0) return { colours: new Float32Array(0), sheen: new Float32Array(0), glow: null }
    const primed = undercoated(undercoat)
    const stacks = new Map(
      scheme.regions.map((r): [number, Stack] => [
        r.id,
        {
          ground: r.clear ? unprimed : primed,
          behind: r.clear && r.behind ? this.weightsOf(r.behind.kelvin, lamp, r.behind.strength) : null,
          coats: [
            ...coats.flatMap((c) =>
              c.regionId === r.id && (done === null || done.has(c.id)) ? [this.coating(c, hand)] : [],
            ),
            // They are laid at the end: where only some coats are on, none of them is.
            ...(done === null
              ? scheme.effects.flatMap((e) => (e.regionId === r.id ? [this.effect(e, hand)] : []))
              : []),
          ],
        },
      ]),
    )
    const weights = this.weightsOf(lamp, lamp, 1)
    return followed
      ? this.painter!.paint(labels, stacks, primed, weights)
      : paintSkin(skin.maps, labels, stacks, primed, weights)
  }

  private weightsOf(lamp: number | null, eye: number | null, strength: number): ReturnType<typeof lampWeights> {
    return kept(this.weights, `${lamp} ${eye} ${strength}`, () => {
      const w = lampWeights(lamp, eye)
      for (const row of w) for (let b = 0; b < row.length; b++) row[b]! *= strength
      return w
    })
  }

  /** Where the light of a lamp falls on a region, or on all of them. */
  places(labels: Uint8Array, region: number | null, at: { turn: number; lift: number }): LightPlaces | null {
    if (!this.skin) return null
    const { mesh, maps } = this.skin
    const straight = this.pass({ ...at, spread: LAMP_SPREAD })
    const open = Float32Array.from({ length: labels.length }, (_, v) => maps[v * MAPS + MAP.exposure]!)
    return lightPlaces(
      mesh,
      straight,
      open,
      labels.map((l) => (region === null || l === region ? 1 : 0)),
    )
  }
  /** The same as a drawing from four sides. */
  placesSheet(places: LightPlaces, title: string, manner: Manner): string | null {
    return this.skin && placesSheet(this.skin.mesh, places, title, manner)
  }

  private coating(c: Coat, hand: Hand): Coating {
    const optics = this.opticsOf(c)
    return {
      technique: c.technique,
      optics: optics && thinned(optics, c.pigment),
      film: c.film,
      sheen: sheenOf(c, this.paintsOf(c)),
      levels: this.levelsOf(c, hand),
    }
  }

  private effect({ id, kind, coverage }: Scheme['effects'][number], hand: Hand): Coating {
    const { optics, film, sheen, ...laid } = effectCoat(kind)
    // What lies in spots or as powder covers its share; of the rest so much less is laid.
    const share = inSpots(laid.technique) || laid.technique === 'powder' ? 1 : coverage
    const levels = this.levelsOf({ id, coverage, ...laid }, hand)
    return { technique: laid.technique, optics, film: share * film, sheen, levels }
  }

  private levelsOf(
    {
      id,
      technique,
      tool,
      grain,
      coverage,
      from,
    }: Pick<Coat, 'id' | 'technique' | 'tool' | 'grain' | 'coverage' | 'from'>,
    hand: Hand,
  ): Uint8Array | null {
    const { maps, spacing, mesh } = this.skin!
    const seed = seedOf(id)
    const aimed = followsSpray({ technique, tool }) ? from : null
    const followed = readOf({ technique, tool }).hand.map((k) => hand[k])
    return kept(this.levels, JSON.stringify([technique, tool, grain, coverage, aimed, seed, followed]), () =>
      levelsOf(
        { technique, tool, grain, coverage, seed, hand },
        { maps, spacing, positions: mesh.positions },
        aimed && this.pass(aimed),
      ),
    )
  }

  private pass({ turn, lift, spread }: NonNullable<Coat['from']>): Float32Array {
    const { mesh, normals } = this.skin!
    return kept(this.passes, `${turn} ${lift} ${spread}`, () =>
      sprayLight(mesh, normals, directionOf(turn, lift), spread),
    )
  }
}

/** What was calculated for the key, or is now; a hand that drags leaves many behind, and the oldest go. */
function kept<T>(there: Map<string, T>, key: string, make: () => T): T {
  if (there.has(key)) return there.get(key)!
  const made = make()
  if (there.size >= MAX_KEPT) there.delete(there.keys().next().value!)
  there.set(key, made)
  return made
}

/** A pattern of its own for each coat, which stays where it is whatever is laid before it (FNV-1a). */
function seedOf(id: string): number {
  let h = 0x811c9dc5
  for (let i = 0; i < id.length; i++) h = Math.imul(h ^ id.charCodeAt(i), 0x01000193)
  return h >>> 0
}

function sheenOf(c: Coat, paints: readonly (StockPaint | undefined)[]): Sheen {
  if (c.technique === 'metallic' || paints.some((p) => p?.kind === 'metallic')) return 'metal'
  return paints[0]?.finish ?? 'matt'
}
