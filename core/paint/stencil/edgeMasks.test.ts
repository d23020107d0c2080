import { describe, expect, it } from 'vitest'
import { sheetBody, sphereBody } from '../../testBodies'
import { edgeMasks } from './edgeMasks'

describe('what masks an edge', () => {
  const sheet = sheetBody(120, 120, (u, v) => [60 * u, 60 * v, 0])
  const disc = (r: number): Uint8Array =>
    Uint8Array.from({ length: sheet.positions.length / 3 }, (_, v) =>
      Math.hypot(sheet.positions[3 * v]! - 30, sheet.positions[3 * v + 1]! - 30) < r ? 1 : 0,
    )
  it('is tape on a wide round, putty on a narrow one, liquid on a dot', () => {
    for (const [r, kind] of [
      [24, 'tape'],
      [6, 'putty'],
      [1.6, 'liquid'],
    ] as const) {
      const [edge] = edgeMasks(sheet, disc(r))
      const { masks } = edge!
      const whole = masks.tape + masks.putty + masks.liquid
      expect(masks[kind] / whole, `${r} mm: ${JSON.stringify(masks)}`).toBeGreaterThan(0.75)
      if (r > 2) expect(Math.abs(whole / (2 * Math.PI * r) - 1)).toBeLessThan(0.06)
    }
  })
  it('is tape round the middle of a ball, which is straight within its skin, however small the ball', () => {
    const ball = sphereBody(7, 5)
    const half = Uint8Array.from({ length: ball.positions.length / 3 }, (_, v) =>
      ball.positions[3 * v + 2]! > 0.01 ? 1 : 0,
    )
    const [edge] = edgeMasks(ball, half)
    const { tape, putty, liquid } = edge!.masks
    expect(tape / (tape + putty + liquid)).toBeGreaterThan(0.95)
  })
})
