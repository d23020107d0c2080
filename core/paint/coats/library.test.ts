import { describe, expect, it } from 'vitest'
import { deltaE00, hexToLab } from '../optics/colour'
import { coatsOfStack, LIBRARY } from './library'
import type { StockPaint } from '../recipes/recipe'
import { say } from '../../words/say'

const paint = (id: string, hex: string, kind: StockPaint['kind'] = 'acrylic'): StockPaint => ({
  id,
  name: id,
  lab: hexToLab(hex),
  overBlack: null,
  opacity: 0.8,
  kind,
  open: false,
})
const stock = [
  paint('white', '#f4f2ec'),
  paint('black', '#1a1a1c'),
  paint('red', '#a8281f'),
  paint('yellow', '#e0b020'),
  paint('blue', '#24488c'),
  paint('brown', '#5a3a22'),
  paint('brass', '#b08d3e', 'metallic'),
  paint('steel', '#9a9da0', 'metallic'),
]

/** Every stack for the same brown, once: each asks for several searches of mixes. */
const laid = new Map(
  LIBRARY.map((stack) => [
    stack.id,
    coatsOfStack(stack, hexToLab('#8a5a40'), stock, { tones: 'warmLight', washScope: 'needed' }).coats,
  ]),
)

describe('the library of stacks', () => {
  it('proposes every stack in paints that are there, shade darker and light lighter than the base', () => {
    for (const stack of LIBRARY) {
      const coats = laid.get(stack.id)!
      expect(coats.map((c) => c.technique)).toEqual(stack.coats.map((c) => c.technique))
      for (const c of coats) {
        expect(c.drops.length, `${stack.id}: ${c.tone}`).toBeGreaterThan(0)
        for (const d of c.drops) expect(stock.some((p) => p.id === d.paint)).toBe(true)
      }
      const l = (tone: string): number | undefined => coats.find((c) => c.tone === tone)?.lab[0]
      const [deep, shadow, base, light] = ['deep', 'shadow', 'base', 'light'].map(l)
      const rising = [deep, shadow, base, light].filter((v) => v !== undefined)
      expect(rising).toEqual([...rising].sort((a, b) => a - b))
    }
  })
  it('paints the lights again where a wash goes over everything, and only there', () => {
    for (const stack of LIBRARY) {
      const needed = laid.get(stack.id)
      const all = coatsOfStack(stack, hexToLab('#8a5a40'), stock, { tones: 'warmLight', washScope: 'all' }).coats
      const at = stack.coats.findIndex((c) => c.technique === 'wash')
      if (at < 0 || !stack.coats.some((c) => c.tone === 'base')) expect(all).toEqual(needed)
      else {
        expect(all![at + 1]).toMatchObject({ technique: 'layer', tone: 'base', drops: needed![0]!.drops })
        expect(all!.filter((_, i) => i !== at + 1)).toEqual(needed)
      }
    }
  })
  it('offers at least one stack for each school of shading', () => {
    for (const school of ['washes', 'glazes', 'airbrush', 'powders'] as const)
      expect(LIBRARY.some((s) => s.school === school)).toBe(true)
  })
  it('puts brown under gold and black under steel, and says when there is no metal', () => {
    const metal = LIBRARY.find((s) => s.id === 'metal')!
    const gold = coatsOfStack(metal, hexToLab('#b08d3e'), stock, { tones: 'sameHue', washScope: 'needed' }).coats,
      steel = coatsOfStack(metal, hexToLab('#9a9da0'), stock, { tones: 'sameHue', washScope: 'needed' }).coats
    expect(gold[1]!.drops).toEqual([{ paint: 'brass', drops: 1 }])
    expect(steel[1]!.drops).toEqual([{ paint: 'steel', drops: 1 }])
    expect(deltaE00(gold[0]!.lab, hexToLab('#4a3020'))).toBeLessThan(12)
    expect(steel[0]!.lab[0]).toBeLessThan(15)
    const none = coatsOfStack(
      metal,
      hexToLab('#9a9da0'),
      stock.filter((p) => p.kind !== 'metallic'),
      { tones: 'sameHue', washScope: 'needed' },
    )
    expect(none.notes.map((n) => say(n)).join(' ')).toContain('no metallic paint')
    expect(none.coats[1]!.drops).toEqual([])
    expect(
      coatsOfStack(metal, hexToLab('#9a9da0'), [], { tones: 'sameHue', washScope: 'needed' })
        .notes.map((n) => say(n))
        .join(' '),
    ).toContain('no paint in the stock')
  })
})
