import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { boxBody, cylinderBody, sphereBody } from '../../testBodies'
import { bounds, concatenate, type Mesh } from '../../mesh/mesh'
import { measure } from '../../mesh/measure'
import { identity3 } from '../../math/vectors'
import { transformed } from '../../mesh/transform'
import { tube } from '../../shape/cylinder'
import { subtract } from '../../shape/solid'
import { LayerGraph } from '../../raster/layerGraph'
import { Rasteriser } from '../../raster/raster'
import { solidOf } from '../../raster/regions'
import { Sections } from '../../mesh/sections'
import { support } from '../support/support'
import { Hanging, worldDefaults, type Hung, type World } from './hanging'
import { shares, type Hanger } from './lumps'
import { say } from '../../words/say'

const STEP = 0.05,
  PITCH = 0.05

/** Prints a body in mind; beside it, what the layers' own analysis says. */
function printed(mesh: Mesh, world: Partial<World> = {}): Hung & { graph: LayerGraph } {
  const { min, max } = bounds(mesh)
  const x0 = min[0] - 1,
    y0 = min[1] - 1
  const w = Math.ceil((max[0] - x0 + 1) / PITCH),
    h = Math.ceil((max[1] - y0 + 1) / PITCH)
  const raster = new Rasteriser(w, h, PITCH, PITCH, x0, y0)
  const sections = new Sections(mesh)
  const hanging = new Hanging({ ...worldDefaults, ...world }, [PITCH, PITCH], [x0, y0], STEP)
  const graph = new LayerGraph(PITCH, PITCH, x0, y0)
  for (let i = 0; (i + 0.5) * STEP < max[2]; i++) {
    const runs = raster.draw(sections.segments, sections.at((i + 0.5) * STEP))
    hanging.push(runs)
    graph.push(solidOf(runs))
  }
  return { ...hanging.result, graph }
}
const at = (mesh: Mesh, x: number, y: number, z: number): Mesh => transformed(mesh, identity3, [x, y, z])

describe('what hangs on what', () => {
  it('prints a body that stands on the plate as a whole, to its volume', () => {
    const body = at(sphereBody(6, 4), 0, 0, 4)
    const r = printed(concatenate([body, cylinderBody(2, 5, 48)]))
    expect(r.mishaps).toEqual([])
    expect(r.printed).toBe(r.meant)
  })
  it('lets a planted island drop in the layer that the analysis names, and misses just its volume', () => {
    const ball = at(sphereBody(3, 4), 12, 0, 9)
    const r = printed(concatenate([boxBody(8, 8, 14), ball]))
    expect(r.graph.islands).toHaveLength(1)
    expect(r.mishaps).toHaveLength(1)
    expect(r.mishaps[0]).toMatchObject({ kind: 'island', layer: r.graph.islands[0]!.layer })
    expect(r.losses[0]!.volume / measure(ball).volume).toBeCloseTo(1, 2)
    expect(r.meant - r.printed).toBeCloseTo(r.losses[0]!.volume, 6)
    expect(r.losses[0]!.box[0]).toBeCloseTo(9, 0)
  })
  it('a tip lets go of a growing cone when peel passes its strength, layer and place as calculated by hand', () => {
    // Neck of 0.4 mm radius at z = 4; above it a cone that widens by 2 mm a mm.
    const neck = 0.4,
      slope = 2
    const stem = tube(
      [
        [0, 0, 0],
        [0, 0, 4],
      ],
      [1.4, neck],
      96,
    )
    const cone = tube(
      [
        [0, 0, 3.99],
        [0, 0, 12],
      ],
      [neck, neck + slope * 8.01],
      192,
    )
    const r = printed(concatenate([stem, cone]))
    const { peelPressure, greenStrength } = worldDefaults
    const radius = neck * Math.sqrt(greenStrength / peelPressure)
    const z = 3.99 + (radius - neck) / slope
    expect(r.mishaps).toHaveLength(1)
    const [m] = r.mishaps
    expect(m).toMatchObject({ kind: 'tip', fell: true })
    expect(Math.abs(m!.layer * STEP - z)).toBeLessThan(0.2)
    expect(m!.z).toBeCloseTo(4, 0)
    // What had been printed below the neck stays; all beyond it is gone.
    expect(r.printed / measure(stem).volume).toBeCloseTo(1, 1)
  })
  it('one of two holds lets go and the other takes over, or all falls', () => {
    const pins = [-6, 6].map((x) =>
      tube(
        [
          [x, 0, 0],
          [x, 0, 5],
        ],
        [1.2, x < 0 ? 0.5 : 0.25],
        64,
      ),
    )
    const bar = boxBody(16, 3, 6, -8, -1.5, 4.98)
    const strong = printed(concatenate([...pins, bar]))
    expect(strong.mishaps).toHaveLength(0)
    const weak = printed(concatenate([...pins, bar]), { peelPressure: 12_000 * 4 })
    expect(weak.mishaps).toHaveLength(1)
    expect(weak.mishaps[0]).toMatchObject({ kind: 'tip', fell: false })
    expect(weak.mishaps[0]!.x).toBeCloseTo(6, 0)
    expect(weak.printed / weak.meant).toBeCloseTo(1, 9)
    const none = printed(concatenate([...pins, bar]), { peelPressure: 12_000 * 8 })
    expect(none.mishaps.map((m) => m.kind === 'tip' && m.fell)).toEqual([false, true])
    expect(none.printed / measure(concatenate(pins)).volume).toBeCloseTo(1, 1)
  })
  it('a sealed cup tears a thin wall a quarter of a millimetre after it closes, and a thick one holds', async () => {
    const cup = async (wall: number): Promise<Hung & { graph: LayerGraph }> => {
      const made = await subtract(cylinderBody(10, 12, 128), [at(cylinderBody(10 - wall, 12, 128), 0, 0, 3)])
      if (!made.ok) throw new Error(say(made.problem.message))
      return printed(made.value)
    }
    const thin = await cup(0.8)
    expect(thin.mishaps).toHaveLength(1)
    expect(thin.mishaps[0]).toMatchObject({ kind: 'cup', layer: thin.graph.suction()[0]!.firstLayer + 4 })
    const [m] = thin.mishaps
    expect(m!.kind === 'cup' && m!.wall).toBeCloseTo(0.8, 1)
    // t = w·√(Δp/2σ) = 16·√(0.06/9) ≈ 1.3 mm at the bore of 2 mm walls
    expect((await cup(2)).mishaps).toEqual([])
  })
  it('holds on generated supports that are not worked past their strength, and falls when the film pulls ten times as hard', async () => {
    const ball = sphereBody(9, 4)
    const made = support(ball, {
      limit: 40,
      spacing: 3,
      clearance: 0.5,
      lift: 5,
      peelPressure: 12_000,
      greenStrength: 4.5e6,
      automatic: true,
      edits: [],
    })
    if (!made.ok) throw new Error('refused')
    const sound = printed(made.value.mesh)
    expect(sound.mishaps.filter((m) => m.kind === 'tip' && m.fell)).toEqual([])
    expect(sound.printed / sound.meant).toBeGreaterThan(0.999)
    const torn = printed(made.value.mesh, { peelPressure: 120_000 })
    expect(torn.mishaps.some((m) => m.kind === 'tip' && m.fell)).toBe(true)
    expect(torn.printed / torn.meant).toBeLessThan(0.9)
  })
})

describe('a rigid plate on springs', () => {
  const hanger = (x: number, y: number, area: number): Hanger => ({ onto: 0, x, y, area, layer: 0, broken: false })
  it('follows the lever for two far holds, and keeps force and moments for any', () => {
    const [a, b] = shares([hanger(-100, 0, 1), hanger(100, 0, 1)], { force: 10, momentX: 500, momentY: 0 })
    expect(a!).toBeCloseTo(2.5, 2)
    expect(b!).toBeCloseTo(7.5, 2)
    const place = fc.double({ min: -80, max: 80, noNaN: true })
    fc.assert(
      fc.property(
        fc.array(fc.tuple(place, place, fc.double({ min: 0.05, max: 2, noNaN: true })), {
          minLength: 1,
          maxLength: 12,
        }),
        place,
        place,
        (holds, x, y) => {
          const held = holds.map(([hx, hy, k]) => hanger(hx, hy, k))
          const f = shares(held, { force: 3, momentX: 3 * x, momentY: 3 * y })
          expect(f.reduce((p, q) => p + q, 0)).toBeCloseTo(3, 6)
        },
      ),
    )
  })
})
