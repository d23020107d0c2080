import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { arithmetic } from './arithmetic'

describe('what is typed into a field', () => {
  it('is worked out as one would on paper', () => {
    expect(arithmetic('180/6')).toBe(30)
    expect(arithmetic('2*(3+1,5) - -1')).toBe(10)
    expect(arithmetic('10-3-2')).toBe(5)
    expect(arithmetic('3 × 4')).toBe(12)
    fc.assert(
      fc.property(fc.integer(), fc.integer(), fc.integer({ min: 1, max: 999 }), (a, b, c) => {
        expect(arithmetic(`${a}+${b}*2/${c}`)).toBeCloseTo(a + (b * 2) / c, 6)
      }),
    )
  })
  it('has a comma or a point before its decimals, whichever the hand is used to', () => {
    fc.assert(
      fc.property(fc.integer({ min: -99, max: 99 }), fc.nat(999), (whole, part) => {
        const digits = String(part).padStart(3, '0')
        const value = Number(`${whole}.${digits}`)
        expect(arithmetic(`${whole},${digits}`)).toBe(value)
        expect(arithmetic(` ${whole}.${digits} `)).toBe(value)
      }),
    )
  })
  it('may have units, of the field’s own family, and is turned into the field’s unit', () => {
    expect(arithmetic('1 1/2 in', 'mm')).toBeCloseTo(38.1, 9)
    expect(arithmetic('1/2in', 'mm')).toBeCloseTo(12.7, 9)
    expect(arithmetic('3 cm + 2', 'mm')).toBe(32)
    expect(arithmetic('(1+1) cm', 'mm')).toBe(20)
    expect(arithmetic('12 mm', 'mm')).toBe(12)
    expect(arithmetic('6"', 'mm')).toBeCloseTo(152.4, 9)
    expect(arithmetic('250 µm', 'mm')).toBeCloseTo(0.25, 12)
    expect(arithmetic('2 oz', 'g')).toBeCloseTo(56.69904625, 9)
    expect(arithmetic('1 fl oz', 'ml')).toBeCloseTo(29.5735295625, 9)
    expect(arithmetic('0.5 l', 'ml')).toBe(500)
    expect(arithmetic('68 °F', '°C')).toBeCloseTo(20, 9)
    expect(arithmetic('1 h 30 min', 'min')).toBeNull()
    expect(arithmetic('1 h + 30', 'min')).toBe(90)
    expect(arithmetic('90 s', 'min')).toBe(1.5)
    expect(arithmetic('50 %', '%')).toBe(50)
  })
  it('comes back to what it was through any unit of its family', () => {
    const length = fc.constantFrom('mm', 'cm', 'm', 'in', 'ft', 'µm')
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5000 }), length, length, (n, a, b) => {
        const there = arithmetic(`${n} ${a}`, b)!
        expect(arithmetic(`${there} ${b}`, a)! / n).toBeCloseTo(1, 9)
      }),
    )
  })
  it('is none where it is not a sum, has a unit of something else, or two in one product', () => {
    for (const bad of ['', '12 mm', '2*', '(1', '1/0', 'abc', '1..2', '1 2', 'in', '5 💀', '１２', '2 mmm'])
      expect(arithmetic(bad), bad).toBeNull()
    for (const bad of ['3 g', '3 °C', '2 in * 3 cm', '5 apples', '1 in in'])
      expect(arithmetic(bad, 'mm'), bad).toBeNull()
  })
})
