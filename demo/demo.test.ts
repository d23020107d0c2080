import { describe, expect, it } from 'vitest'
import { health } from '../core/mesh/health'
import { faceCount, type Mesh } from '../core/mesh/mesh'
import { repair } from '../core/mesh/repair'
import { shells, topology } from '../core/mesh/topology'
import { hollow } from '../core/shape/hollow'
import { LayerMaker, layerSteps } from '../core/print/slice/layerMaker'
import type { Printer } from '../core/print/slice/printer'
import { orient } from '../core/shape/orient'
import { acceptedAsSolid, sectionAreaOfSolid } from '../core/shape/solid'
import { damaged } from './damage'
import { build } from './sculpts/build'
import { lanternKeeper } from './sculpts/lanternKeeper'
import { pilotBust } from './sculpts/pilotBust'
import { tern } from './sculpts/tern'
import { PRINTERS, RESINS } from './workshop'
import { PAINTS } from './paints'
import { paint, printer, resin } from '../contract/stock'
import { say } from '../core/words/say'

const closed = { openEdges: 0, nonManifoldEdges: 0, disorientedEdges: 0 }

/** The same bird for all that is asked of it. */
let bird: Promise<Mesh> | null = null
const builtTern = (): Promise<Mesh> => (bird ??= build(tern(), { min: [-16, -27, -1], max: [16, 38, 60] }, 0.45))

describe('demo', () => {
  it('has a bust that hollows to a valid solid with the wall that was asked', async () => {
    const bust = await build(pilotBust(), { min: [-42, -34, -1], max: [42, 34, 150] }, 0.6)
    expect(faceCount(bust)).toBeGreaterThan(150_000)
    expect(faceCount(bust)).toBeLessThanOrEqual(400_000)
    expect(topology(bust)).toMatchObject(closed)
    const r = await hollow(bust, { wall: 2, voxel: 0.8, opening: 1, leastPocket: 100 })
    if (!r.ok) throw new Error(say(r.problem.message))
    // At this coarse voxel: well within one voxel; at 0.5 mm within 5 % (core/shape).
    expect(r.value.report.wall.minimum).toBeGreaterThan(2 - 0.8 / 3)
    expect(r.value.report.wall.mean).toBeLessThan(2.2)
    expect(await acceptedAsSolid(r.value.mesh)).toBe(true)
  })
  it('has a keeper in one closed piece, lantern, rope and all', async () => {
    const keeper = await build(lanternKeeper(), { min: [-38, -38, -1], max: [40, 38, 168] }, 1)
    expect(topology(keeper)).toMatchObject(closed)
    expect(shells(keeper).count).toBe(1)
    expect(health(keeper).size[2]).toBeGreaterThan(160)
  })
  it('has a tern whose damaged copy shows every kind of damage, and mends', async () => {
    const whole = await builtTern()
    expect(topology(whole)).toMatchObject(closed)
    const h = health(damaged(whole))
    expect(h.holes.count).toBeGreaterThanOrEqual(3)
    expect(h.disoriented.count).toBeGreaterThan(0)
    expect(h.crumbs.count).toBe(3)
    const mended = repair(damaged(whole))
    expect(mended.report.crumbs).toBe(3)
    expect(topology(mended.mesh)).toMatchObject(closed)
    expect(shells(mended.mesh).count).toBe(1)
  })
  it('is sliced to the areas that the boolean library cuts, within a thousandth', async () => {
    for (const sculpt of [
      await builtTern(),
      await build(pilotBust(), { min: [-42, -34, -1], max: [42, 34, 150] }, 1.2),
    ]) {
      const body = orient(sculpt, [0, 0, 0, 1]).mesh
      const at = new LayerMaker(body, { ...(PRINTERS[0] as Printer), layerHeight: 0.2 })
      const { layers } = layerSteps(body, { ...(PRINTERS[0] as Printer), layerHeight: 0.2 })
      for (const share of [0.03, 0.2, 0.45, 0.7, 0.9]) {
        const i = Math.floor(share * layers)
        const truth = await sectionAreaOfSolid(body, (i + 0.5) * 0.2)
        expect(Math.abs(at.make(i).area / truth - 1)).toBeLessThan(0.001)
      }
    }
  })
  it('stocks only what the contracts accept', () => {
    for (const p of PRINTERS) printer.parse(p)
    for (const r of RESINS) resin.parse(r)
    for (const p of PAINTS) paint.parse(p)
    expect(new Set(PAINTS.map((p) => p.name)).size).toBe(PAINTS.length)
  })
})
