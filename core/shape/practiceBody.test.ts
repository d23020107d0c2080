import { describe, expect, it } from 'vitest'
import { bounds } from '../mesh/mesh'
import { shells, topology } from '../mesh/topology'
import { vertexNormals } from '../mesh/measure'
import { eyeballAt, placesAbout } from '../paint/eyes/eyes'
import { practiceBody } from './practiceBody'
import { say } from '../words/say'

describe('the practice body', () => {
  it('is one closed flat solid, with two eyeballs that the planner finds', () => {
    const body = practiceBody(0.6)
    expect(topology(body)).toMatchObject({ openEdges: 0, nonManifoldEdges: 0, disorientedEdges: 0 })
    expect(shells(body).count).toBe(1)
    const { min, max } = bounds(body)
    expect(Math.abs(min[2])).toBeLessThan(0.05)
    expect(max[0] - min[0]).toBeGreaterThan(95)
    const normals = vertexNormals(body)
    for (const y of [8, -8]) {
      const about = placesAbout(body.positions, normals, [41, y, 8.2], [0, 0, 1], 2)
      const ball = eyeballAt(about.places, [41, y, 8.2], about.normal, 2)
      if (!ball.ok) throw new Error(say(ball.problem.message))
      expect(Math.abs(ball.value.radius - 4.2)).toBeLessThan(0.25)
    }
  })
})
