import fc from 'fast-check'
import { expect, it } from 'vitest'
import { deltaE00, hexToLab, type Triple } from '../optics/colour'
import { BLACK, opticsOf } from '../optics/film'
import { chipOf, drawMix } from './drawMix'

const apart = (a: string, b: string): number => deltaE00(hexToLab(a) as Triple, hexToLab(b) as Triple)

it('draws a mix down toward its own colour, from both grounds, and counts the coats that it takes', () => {
  const hex = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`)
  fc.assert(
    fc.property(hex, fc.double({ min: 0.3, max: 0.95, noNaN: true }), (colour, opacity) => {
      const o = opticsOf(colour, opacity)
      const d = drawMix(o, 20, 'brush', { name: 'own', ground: BLACK }, null)
      const [brushed, sprayed, glazed] = d.strips
      for (const s of [brushed!, sprayed!]) {
        // Coat by coat the two grounds look more alike.
        const gaps = s.black.map((b, i) => apart(b, s.white[i]!))
        for (let i = 1; i < gaps.length; i++) expect(gaps[i]!).toBeLessThanOrEqual(gaps[i - 1]! + 1.5)
      }
      // The first coat of the brush is the chip, and a glaze covers less than the paint that it was thinned from.
      expect(chipOf(o)).toEqual({ black: brushed!.black[0], white: brushed!.white[0] })
      expect(apart(glazed!.black[5]!, glazed!.white[5]!)).toBeGreaterThanOrEqual(
        apart(sprayed!.black[5]!, sprayed!.white[5]!) - 1.5,
      )
      const [black, , own] = d.over
      expect({ ...own, ground: 'black' }).toEqual(black)
      expect(black!.reaches).toBeNull()
      if (black!.hides !== null && black!.hides <= 12)
        expect(apart(brushed!.black[Math.ceil(black!.hides) - 1]!, d.hex)).toBeLessThan(3)
    }),
    { numRuns: 60 },
  )
})
