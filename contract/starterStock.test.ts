import { describe, expect, it } from 'vitest'
import { material, paint, printer, resin } from './stock'
import { STARTER_SIZES, starterSpace } from '../core/defaults/stock'
import { hexToLab } from '../core/paint/optics/colour'
import { say } from '../core/words/say'
import { starterStock } from '../core/plan/materials/starterStock'

const SCHEMAS = { printer, resin, paint, material }

describe('the stock to start with', () => {
  it('is what the contract takes, each thing once, each marked', () => {
    for (const size of STARTER_SIZES) {
      const all = starterStock(size).map(({ kind, name, data }) => ({
        kind,
        data: SCHEMAS[kind].parse({ name: say(name), ...data }),
      }))
      expect(new Set(all.map((i) => `${i.kind} ${i.data.name}`)).size).toBe(all.length)
      expect(all.every((i) => i.data.starting === true)).toBe(true)
      expect(all.filter((i) => i.kind === 'paint')).toHaveLength(24)
    }
  })
  it('has a printer whose screen is as large as it says, each larger than the one before', () => {
    let before = [0, 0, 0]
    for (const size of STARTER_SIZES) {
      const data = printer.parse({ name: 'x', ...starterStock(size)[0]!.data })
      const space = starterSpace(size)
      expect([data.pixelsX * data.pitchX, data.pixelsY * data.pitchY, data.height]).toEqual(space)
      space.forEach((v, k) => expect(v).toBeGreaterThan(before[k]!))
      before = space
    }
  })
  it('has colours that can be told apart, from nearly white to nearly black', () => {
    const labs = starterStock('small').flatMap((i) => (i.kind === 'paint' ? [hexToLab(String(i.data.hex))] : []))
    labs.forEach((a, i) => {
      for (const b of labs.slice(i + 1)) expect(Math.hypot(...a.map((v, k) => v - b[k]!))).toBeGreaterThan(5)
    })
    expect(Math.max(...labs.map((l) => l[0]))).toBeGreaterThan(93)
    expect(Math.min(...labs.map((l) => l[0]))).toBeLessThan(15)
  })
})
