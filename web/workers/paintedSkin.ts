import type { Coat } from '../../contract/pieces'
import type { Mesh } from '../../core/mesh/mesh'
import { meanEdge, vertexNormals } from '../../core/mesh/measure'
import { thinned, type Optics } from '../../core/paint/film'
import { lampWeights } from '../../core/paint/lamp'
import { paintSkin, type Coating, type Painted, type Sheen, type Stack } from '../../core/paint/painter'
import type { StockPaint } from '../../core/paint/recipe'
import { directionOf, sprayLight } from '../../core/paint/sprayLight'
import { undercoated, unprimed, type Undercoat } from '../../core/paint/undercoat'

export interface SkinSent {
  mesh: Mesh
  /** MAPS floats per vertex */
  maps: Float32Array
}
export interface SchemeSent {
  labels: Uint8Array
  /** `clear` gets no primer */
  regions: { id: number; clear: boolean }[]
  coats: Coat[]
  undercoat: Undercoat
}

/** Spray passes kept; each is four bytes a vertex. */
const PASSES = 24

/** The skin on the table and what is sprayed onto it from anywhere, for previews that follow the hand. */
export class PaintedSkin {
  private skin: (SkinSent & { spacing: number; normals: Float32Array }) | null = null
  private readonly passes = new Map<string, Float32Array>()
  private readonly weights = new Map<number | null, ReturnType<typeof lampWeights>>()

  constructor(
    private readonly opticsOf: (c: Coat) => Optics | null,
    private readonly paintsOf: (c: Coat) => (StockPaint | undefined)[],
  ) {}

  lay(skin: SkinSent): void {
    this.passes.clear()
    this.skin = { ...skin, spacing: meanEdge(skin.mesh), normals: vertexNormals(skin.mesh) }
  }

  show(scheme: SchemeSent, lamp: number | null, done: ReadonlySet<string> | null): Painted {
    const { skin } = this
    const { labels, coats, undercoat } = scheme
    if (!skin || skin.maps.length === 0) return { colours: new Float32Array(0), sheen: new Float32Array(0) }
    const primed = undercoated(undercoat)
    const stacks = new Map(
      scheme.regions.map((r): [number, Stack] => [
        r.id,
        {
          ground: r.clear ? unprimed : primed,
          coats: coats.flatMap((c, seed) =>
            c.regionId === r.id && (done === null || done.has(c.id)) ? [this.coating(c, seed)] : [],
          ),
        },
      ]),
    )
    let w = this.weights.get(lamp)
    if (!w) this.weights.set(lamp, (w = lampWeights(lamp)))
    const { maps, spacing } = skin
    return paintSkin({ maps, spacing, positions: skin.mesh.positions }, labels, stacks, primed, w)
  }

  private coating(c: Coat, seed: number): Coating {
    const optics = this.opticsOf(c)
    return {
      technique: c.technique,
      tool: c.tool,
      grain: c.grain,
      coverage: c.coverage,
      seed,
      optics: optics && thinned(optics, c.pigment),
      film: c.film,
      sheen: sheenOf(c, this.paintsOf(c)),
      from: c.from && (c.tool === 'airbrush' || c.technique === 'airbrush') ? this.pass(c.from) : null,
    }
  }

  private pass({ turn, lift, spread }: NonNullable<Coat['from']>): Float32Array {
    const { mesh, normals } = this.skin!
    const key = `${turn} ${lift} ${spread}`
    let map = this.passes.get(key)
    if (!map) {
      map = sprayLight(mesh, normals, directionOf(turn, lift), spread)
      // A hand that drags the direction leaves many behind: the oldest go.
      if (this.passes.size >= PASSES) this.passes.delete(this.passes.keys().next().value!)
      this.passes.set(key, map)
    }
    return map
  }
}

function sheenOf(c: Coat, paints: readonly (StockPaint | undefined)[]): Sheen {
  if (c.technique === 'metallic' || paints.some((p) => p?.kind === 'metallic')) return 'metal'
  return paints[0]?.finish ?? 'matt'
}
