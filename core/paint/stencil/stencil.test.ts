import { describe, expect, it } from 'vitest'
import { boxBody, sheetBody, sphereBody } from '../../testBodies'
import { refine } from '../../mesh/refine'
import { weldIdentical } from '../../mesh/weld'
import { crosses } from './crosses'
import { stencils } from './stencil'

describe('stencils of a region', () => {
  it('are as large as the patch on a ball, with darts where it bulges', async () => {
    const R = 20,
      ball = sphereBody(R, 5)
    const cap = (z0: number): Uint8Array =>
      Uint8Array.from({ length: ball.positions.length / 3 }, (_, v) => (ball.positions[3 * v + 2]! > z0 ? 1 : 0))
    // A cap's skin is 2πRh, its rim 2π√(R² − z²).
    for (const z0 of [16.2, 8.1]) {
      const { pieces } = await stencils(ball, cap(z0), 1)
      expect(pieces).toHaveLength(1)
      const [p] = pieces
      expect(Math.abs(p!.area.skin / (2 * Math.PI * R * (R - z0)) - 1)).toBeLessThan(0.02)
      expect(Math.abs(p!.edge.skin / (2 * Math.PI * Math.sqrt(R * R - z0 * z0)) - 1)).toBeLessThan(0.02)
      expect(Math.abs(p!.area.sheet / p!.area.skin - 1)).toBeLessThan(0.02)
      expect(Math.abs(p!.edge.sheet / p!.edge.skin - 1)).toBeLessThan(0.02)
      expect(p!.overlaps).toBe(false)
      expect(p!.stretch).toBeLessThan(0.08)
      if (z0 < 10) expect(p!.darts).toBeGreaterThan(0)
    }
  })
  it('are a rectangle round a cylinder, and know which way is up', async () => {
    const body = weldIdentical(
      sheetBody(64, 64, (u, v) => [8 * Math.cos(2 * Math.PI * (u % 1)), 8 * Math.sin(2 * Math.PI * (u % 1)), 40 * v]),
    )
    const p = body.positions
    const wall = Uint8Array.from({ length: p.length / 3 }, (_, v) => (p[3 * v + 2]! > 10 && p[3 * v + 2]! < 30 ? 1 : 0))
    const { pieces } = await stencils(body, wall, 1)
    expect(pieces).toHaveLength(1)
    expect(pieces[0]!.stretch).toBeLessThan(0.01)
    expect(Math.abs(pieces[0]!.area.sheet / pieces[0]!.area.skin - 1)).toBeLessThan(0.005)
    // Both rims of the band are its own; the slit that opens it is not.
    const own = pieces[0]!.own.filter((o) => o === 1).length
    expect(own).toBeGreaterThan(0)
    expect(own).toBeLessThan(pieces[0]!.own.length)
    expect(pieces[0]!.edge.skin).toBeCloseTo(2 * 2 * 64 * 8 * Math.sin(Math.PI / 64), 0)
  })
  it('leaves crumbs out and tells them, and has nothing of a region that is nowhere', async () => {
    const body = refine(boxBody(30, 30, 30), 3, 200_000)
    const labels = new Uint8Array(body.positions.length / 3)
    expect((await stencils(body, labels, 4)).pieces).toEqual([])
    labels[body.positions.length / 3 - 1] = 4
    const got = await stencils(body, labels, 4)
    expect(got.pieces).toEqual([])
  })
  it('knows an outline that crosses itself', () => {
    expect(crosses([0, 0, 2, 0, 2, 2, 0, 2])).toBe(false)
    expect(crosses([0, 0, 2, 2, 2, 0, 0, 2])).toBe(true)
    expect(crosses([0, 0, 4, 0, 4, 3, 1, 3, 1, 1, 5, 1, 5, 4, 0, 4])).toBe(true)
  })
})
