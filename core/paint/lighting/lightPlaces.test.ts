import { describe, expect, it } from 'vitest'
import { contourLength, contours } from '../../mesh/contours'
import { concatenate } from '../../mesh/mesh'
import { vertexNormals } from '../../mesh/measure'
import { boxBody, sphereBody } from '../../testBodies'
import { lightPlaces, placesSheet, ZONES } from './lightPlaces'
import { exposure, sprayLight } from '../surface/sprayLight'
import { FOUR_SIDES, viewSheet } from './viewSheet'

const R = 20
const ball = sphereBody(R, 5)
const heights = Float32Array.from({ length: ball.positions.length / 3 }, (_, v) => ball.positions[3 * v + 2]!)

describe('contours', () => {
  it('are circles of latitude on a ball, closed and as long as they should be', () => {
    for (const z of [-15.3, -4.1, 0.02, 7.7, 18.9]) {
      const lines = contours(ball, heights, z)
      expect(lines).toHaveLength(1)
      expect(lines[0]!.closed).toBe(true)
      const length = 2 * Math.PI * Math.sqrt(R * R - z * z)
      expect(Math.abs(contourLength(lines[0]!) / length - 1)).toBeLessThan(0.01)
      for (let i = 2; i < lines[0]!.points.length; i += 3) expect(lines[0]!.points[i]).toBeCloseTo(z, 4)
    }
    expect(contours(ball, heights, R + 1)).toEqual([])
  })
  it('run open to the edge of the faces that are looked at', () => {
    const t = ball.triangles
    const half = Uint8Array.from({ length: t.length / 3 }, (_, f) =>
      [0, 1, 2].every((k) => ball.positions[3 * t[3 * f + k]!]! >= 0) ? 1 : 0,
    )
    const lines = contours(ball, heights, 3.3, half)
    expect(lines).toHaveLength(1)
    expect(lines[0]!.closed).toBe(false)
    expect(contourLength(lines[0]!)).toBeGreaterThan(0.45 * 2 * Math.PI * Math.sqrt(R * R - 3.3 ** 2))
  })
})

describe('where light and shade go', () => {
  const normals = vertexNormals(ball)
  const open = exposure(ball, normals)
  it('finds a ball open on every side, and before a long wall what its height hides', () => {
    for (const v of open) expect(v).toBeGreaterThan(0.93)
    // The view factor of a long wall H high, from a level place d before it, is (1 − d/√(d² + H²)) / 2.
    const H = 30
    const scene = concatenate([
      boxBody(400, 2, H, -200, -2, 0),
      ...[5, 15, 40].map((d) => ({
        positions: new Float32Array([-1, d - 1, 0, 1, d - 1, 0, 1, d + 1, 0, -1, d + 1, 0]),
        triangles: new Uint32Array([0, 1, 2, 0, 2, 3]),
      })),
    ])
    const seen = exposure(scene, vertexNormals(scene))
    for (let v = 8; v < seen.length; v++) {
      const d = scene.positions[3 * v + 1]!
      expect(Math.abs(seen[v]! - (1 + d / Math.hypot(d, H)) / 2)).toBeLessThan(0.04)
    }
  })
  it('are caps about the light, each of its share of the skin', () => {
    const axis = [0, 0, 1] as const
    const places = lightPlaces(ball, sprayLight(ball, normals, axis, 20), open, new Uint8Array(heights.length).fill(1))
    const whole = 4 * Math.PI * R * R
    const shares = ZONES.map((z, i) => z.upTo - (ZONES[i - 1]?.upTo ?? 0))
    // What the light does not reach at all is all one to it: the share of shade is not split there.
    for (const i of [3, 4]) expect(Math.abs(places.areas[i]! / whole - shares[i]!)).toBeLessThan(0.02)
    expect(places.areas.reduce((a, b) => a + b) / whole).toBeCloseTo(1, 2)
    // A cap of 6 % of a ball begins at the height where (1 − z/R)/2 = 0.06.
    const [edge] = places.borders.at(-1)!.lines
    const z = Array.from({ length: edge!.points.length / 3 }, (_, i) => edge!.points[3 * i + 2]!)
    for (const v of z) expect(Math.abs(v - R * (1 - 2 * 0.06))).toBeLessThan(0.8)
  })
  it('asks nothing of the skin beside the region', () => {
    const inside = Uint8Array.from(heights, (z) => (z > 0 ? 1 : 0))
    const places = lightPlaces(ball, sprayLight(ball, normals, [0, 0, 1], 20), open, inside)
    for (let v = 0; v < inside.length; v++) expect(places.zone[v] === 255).toBe(inside[v] === 0)
    expect(Math.abs(places.areas[4]! / (2 * Math.PI * R * R) - 0.06)).toBeLessThan(0.02)
    const none = lightPlaces(ball, open, open, new Uint8Array(heights.length))
    expect(none.borders.every((b) => b.lines.length === 0)).toBe(true)
  })
  it('is drawn to scale from four sides, without what is hidden', () => {
    const meridian = contours(
      ball,
      Float32Array.from({ length: heights.length }, (_, v) => ball.positions[3 * v]!),
      0.01,
    )[0]!
    const line = { ...meridian, colour: '#ff0000', width: 0.3, dashed: false }
    const { svg, scale } = viewSheet(ball, [line], FOUR_SIDES, 'A < B', [])
    expect(scale).toBe(1)
    expect(svg).toContain('A &lt; B')
    const red = [...svg.matchAll(/<path d="([^"]*)"[^>]*stroke="#ff0000"/g)].map((m) => numbers(m[1]!))
    // From each side the near half of the meridian alone is seen: a straight line from in front, an arc from aside.
    expect(red).toHaveLength(4)
    const span = (list: number[], axis: 0 | 1): number => {
      const own = list.filter((_, i) => i % 2 === axis)
      return Math.max(...own) - Math.min(...own)
    }
    expect(span(red[0]!, 0)).toBeLessThan(0.5)
    expect(Math.abs(span(red[0]!, 1) - 2 * R)).toBeLessThan(1.5)
    const outline = numbers(/<path d="([^"]*)"[^>]*stroke="#222"/.exec(svg)![1]!)
    expect(Math.abs(span(outline, 0) - 2 * R)).toBeLessThan(0.4)
    const sheet = placesSheet(ball, lightPlaces(ball, open, open, new Uint8Array(heights.length).fill(1)), 'Ball')
    expect(sheet).toContain('highlight within')
  })
})

const numbers = (d: string): number[] => (d.match(/-?\d+(\.\d+)?/g) ?? []).map(Number)
