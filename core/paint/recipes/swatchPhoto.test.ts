import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { deltaE00, encodeSrgb, srgbToXyz, xyzToLab, type Triple } from '../optics/colour'
import { readSwatch } from './swatchPhoto'
import { say } from '../../words/say'

/** A patch of a linear colour under a light, as a camera writes it, with a little noise. */
function patch(linear: Triple, light: Triple, noise = 0): Uint8Array {
  const out = new Uint8Array(3 * 400)
  for (let i = 0; i < 400; i++)
    for (let k = 0; k < 3; k++) {
      const v = linear[k]! * light[k]! * (1 + noise * Math.sin(i * 12.9898 + k))
      out[3 * i + k] = Math.round(255 * encodeSrgb(v))
    }
  return out
}
const GREY: Triple = [0.18, 0.18, 0.18]

describe('a swatch beside a grey card', () => {
  it('gives the colour back whatever the light and the exposure, within what 8 bits leave', () => {
    const part = fc.double({ min: 0.05, max: 0.55, noNaN: true }),
      gain = fc.double({ min: 0.8, max: 1.3, noNaN: true })
    fc.assert(
      fc.property(fc.tuple(part, part, part), fc.tuple(gain, gain, gain), (colour, light) => {
        const read = readSwatch(patch(GREY, light, 0.02), [patch(colour, light, 0.02), patch(colour, light)])
        if (!read.ok) throw new Error(say(read.problem.message))
        const was = xyzToLab(srgbToXyz(colour.map(encodeSrgb) as unknown as Triple))
        expect(deltaE00(read.value.lab, was)).toBeLessThan(1)
        expect(read.value.spread).toBeLessThan(1)
      }),
      { numRuns: 100 },
    )
  })
  it('refuses what it cannot know, each with its own sentence', () => {
    const plain: Triple = [1, 1, 1],
      red: Triple = [0.4, 0.05, 0.04]
    const code = (card: Uint8Array, swatch: Uint8Array): string => {
      const r = readSwatch(card, [swatch])
      return r.ok ? 'read' : r.problem.code
    }
    expect(code(patch(GREY, plain), patch(red, plain))).toBe('read')
    expect(code(patch(GREY, [6, 6, 6]), patch(red, plain))).toBe('card-clipped')
    expect(code(patch(GREY, plain, 0.5), patch(red, plain))).toBe('no-card')
    expect(code(patch(red, plain), patch(red, plain))).toBe('light-tinted')
    // Half on the card and half on a blue that is as light in the green.
    const half = patch(GREY, plain)
    half.set(patch([0.07, 0.18, 0.4], plain).subarray(0, 600), 600)
    expect(code(half, patch(red, plain))).toBe('no-card')
    expect(code(patch(GREY, plain), patch(red, [9, 9, 9]))).toBe('swatch-clipped')
    expect(code(new Uint8Array(3), patch(red, plain))).toBe('patch-small')
  })
})
