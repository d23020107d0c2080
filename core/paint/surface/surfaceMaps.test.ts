import { describe, expect, it } from 'vitest'
import { sphereBody } from '../../testBodies'
import { MAP, MAPS, surfaceMaps } from './surfaceMaps'

const R = 15

describe('surface maps against what is known of the surface', () => {
  it('lights a ball by the cosine, spread over the nozzle’s cone, from one side only', () => {
    const ball = sphereBody(R, 5)
    const axis = [0.48, -0.6, 0.64] as const
    const { data, vertices } = surfaceMaps(ball, { brush: 1.5, direction: axis })
    // The mean of the cosine over a cone of half angle a is (1 + cos a) / 2 of that toward its axis.
    const cone = (1 + Math.cos((14 * Math.PI) / 180)) / 2
    let tried = 0
    for (let v = 0; v < vertices; v++) {
      const c = [0, 1, 2].reduce((s, k) => s + (ball.positions[3 * v + k]! / R) * axis[k]!, 0)
      const light = data[v * MAPS + MAP.spray]!
      // Where the whole cone lies above the horizon the law is exact.
      if (c > Math.sin((20 * Math.PI) / 180)) {
        tried++
        expect(Math.abs(light - cone * c)).toBeLessThan(0.025)
      } else if (c < -Math.sin((16 * Math.PI) / 180)) expect(light).toBe(0)
    }
    expect(tried).toBeGreaterThan(vertices / 4)
  })
})
