import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ofProduct } from '../plan/materials/supplies'
import type { StockUnit } from '../defaults/stock'
import { amountIn, amountText } from './units'

describe('units of stock', () => {
  it('reads what stands on labels, by published factors, and says what cannot be turned into what', () => {
    expect(amountIn('ml', '1.5 l', null)).toBe(1500)
    expect(amountIn('ml', '3 fl oz', null)).toBeCloseTo(88.72, 2)
    expect(amountIn('g', '1 lb', null)).toBeCloseTo(453.592, 3)
    expect(amountIn('mm', '2 ft', null)).toBeCloseTo(609.6, 6)
    expect(amountIn('ml', '95 g', 1.9)).toBeCloseTo(50, 9)
    expect(amountIn('g', '50 ml', 1.9)).toBeCloseTo(95, 9)
    expect(amountIn('sheets', '4', null)).toBe(4)
    expect(() => amountIn('ml', '95 g', null)).toThrow('Give the density')
    expect(() => amountIn('ml', '2 m', 1)).toThrow('“2 m” is not')
    expect(() => amountIn('ml', 'much', 1)).toThrow('no amount')
    expect(() => amountIn('ml', '-3 ml', 1)).toThrow('no amount')
    expect(() => amountIn('ml', '3 cups', 1)).toThrow('no known unit')
  })
  it('writes amounts so that they are read back as they were, to what is shown', () => {
    fc.assert(
      fc.property(
        fc.constantFrom<StockUnit>('ml', 'g', 'mm', 'sheets', 'pieces'),
        fc.double({ min: 0, max: 1e5, noNaN: true }),
        (unit, amount) => {
          const back = amountIn(unit, amountText(unit, amount), null)
          expect(Math.abs(back - amount)).toBeLessThanOrEqual(Math.max(0.005, 0.006 * amount))
        },
      ),
      { seed: 3 },
    )
    expect([amountText('ml', 1200), amountText('sheets', 1)]).toEqual(['1.2 l', '1 sheet'])
  })
  it('counts a product for what steps use in its own unit, or not at all', () => {
    const putty = { serves: ['filler:epoxyPutty'], unit: 'g' as const, density: 1.9 }
    expect(ofProduct(putty, 'filler:epoxyPutty')).toBe(1.9)
    expect(ofProduct({ ...putty, density: null }, 'filler:epoxyPutty')).toBeNull()
    expect(ofProduct(putty, 'filler:uvPutty')).toBeNull()
    expect(ofProduct({ serves: ['wire:2'], unit: 'mm', density: null }, 'wire:2')).toBe(1)
  })
})
