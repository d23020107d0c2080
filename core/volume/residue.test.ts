import { describe, expect, it } from 'vitest'
import type { Mesh } from '../mesh/mesh'
import { ballResidue } from './residue'

const PITCH = 8,
  HIGH = 1,
  WIDE = 40,
  DEEP = 12

/** A block whose upper side is a wave along x. */
function waveBody(cells: number): Mesh {
  const positions: number[] = [],
    triangles: number[] = []
  const rows = Math.round((cells * DEEP) / WIDE)
  const z = (x: number): number => HIGH * Math.sin((2 * Math.PI * x) / PITCH)
  const at = (i: number, j: number, low: 0 | 1): number => 2 * (j * (cells + 1) + i) + low
  for (let j = 0; j <= rows; j++)
    for (let i = 0; i <= cells; i++) {
      const x = (WIDE * i) / cells,
        y = (DEEP * j) / rows
      positions.push(x, y, z(x), x, y, -10)
    }
  const quad = (a: number, b: number, c: number, d: number): void => void triangles.push(a, b, c, a, c, d)
  for (let j = 0; j < rows; j++)
    for (let i = 0; i < cells; i++) {
      quad(at(i, j, 0), at(i + 1, j, 0), at(i + 1, j + 1, 0), at(i, j + 1, 0))
      quad(at(i, j, 1), at(i, j + 1, 1), at(i + 1, j + 1, 1), at(i + 1, j, 1))
    }
  for (let i = 0; i < cells; i++) {
    quad(at(i, 0, 1), at(i + 1, 0, 1), at(i + 1, 0, 0), at(i, 0, 0))
    quad(at(i + 1, rows, 1), at(i, rows, 1), at(i, rows, 0), at(i + 1, rows, 0))
  }
  for (let j = 0; j < rows; j++) {
    quad(at(0, j + 1, 1), at(0, j, 1), at(0, j, 0), at(0, j + 1, 0))
    quad(at(cells, j, 1), at(cells, j + 1, 1), at(cells, j + 1, 0), at(cells, j, 0))
  }
  return { positions: new Float32Array(positions), triangles: new Uint32Array(triangles) }
}

/** What a circle that rolls over the wave leaves under it at x: its lowest place over all centres, searched. */
function truth(x: number, radius: number): number {
  const wave = (t: number): number => HIGH * Math.sin((2 * Math.PI * t) / PITCH)
  let best = Infinity
  for (let cx = x - radius; cx <= x + radius; cx += 0.005) {
    // The centre rests where its circle touches: the greatest of what every place of the wave asks.
    let cz = -Infinity
    for (let t = cx - radius; t <= cx + radius; t += 0.01)
      cz = Math.max(cz, wave(t) + Math.sqrt(Math.max(0, radius * radius - (t - cx) ** 2)))
    best = Math.min(best, Math.hypot(cx - x, cz - wave(x)))
  }
  return best - radius
}

describe('residue of a ball on a wave', () => {
  // A sixth of a millimetre from vertex to vertex: the wave's own facets are 2 µm off it.
  const body = waveBody(240)
  const places = [0, 1, 1.5, 2, 3, 4, 5, 5.5, 6, 6.5, 7]
  it.each([3, -2.25])('is what a circle of %s mm leaves, in troughs and on crests', (radius) => {
    const residue = ballResidue(body, radius, Math.abs(radius) * 0.48)
    const p = body.positions
    for (const place of places) {
      // From inside the wave is the same one, upside down: half a pitch along.
      const want = truth(radius > 0 ? place : place + PITCH / 2, Math.abs(radius))
      const got: number[] = []
      for (let v = 0; v < residue.length; v += 2) {
        const x = p[3 * v]!
        if (x > 12 && x < 28 && Math.abs((x % PITCH) - place) < 1e-4 && Math.abs(p[3 * v + 1]! - 6) < 2)
          got.push(residue[v]!)
      }
      expect(got.length).toBeGreaterThan(10)
      for (const v of got) expect(Math.abs(v - want)).toBeLessThan(0.01 * Math.abs(radius) + 0.01)
    }
  })
})
