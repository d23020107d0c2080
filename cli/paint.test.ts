import { describe, expect, it } from 'vitest'
import { call, file } from './testCall'

const paints = file(
  'paints.csv',
  'name,colour,opacity,kind\nWhite,#f3f1ea,0.86,acrylic\nBlack,#1b1a1c,0.95,acrylic\nRed,#c02528,0.62,acrylic\nYellow,#e7b416,0.48,acrylic\nBrass,#b08d3e,0.8,metallic\n',
)

describe('colour on the command line', () => {
  it('finds a mix, says which pigment is missing, and reads no wrong list', async () => {
    const near = await call('recipe', '--target', '#c98a70', '--paints', paints, '--json')
    const answer = JSON.parse(near.out) as { recipes: { error: number; merits: string[] }[]; excluded: string[] }
    expect(near.code).toBe(0)
    expect(answer.recipes.find((r) => r.merits.includes('closest'))!.error).toBeLessThan(2)
    expect(answer.excluded).toEqual([expect.stringContaining('Brass')])
    const far = await call('recipe', '--target', '40,-10,-50', '--paints', paints)
    expect(far).toMatchObject({ code: 1, out: expect.stringMatching(/What is missing is a .*blue/) })
    expect(await call('recipe', '--target', 'blue', '--paints', paints)).toMatchObject({ code: 2 })
    const wrong = file('wrong.csv', 'name,colour\nFog,grey\n')
    expect(await call('recipe', '--target', '50,0,0', '--paints', wrong)).toMatchObject({
      code: 2,
      err: expect.stringContaining('Line 2: “grey” is no colour'),
    })
  })
  it('calculates a stack of coats over its undercoat', async () => {
    const stack = (count: number, undercoat: string): string =>
      file(
        'stack.json',
        JSON.stringify({
          undercoat,
          coats: [
            { name: 'yellow', mix: [{ colour: '#e7b416', opacity: 0.5 }], count },
            { name: 'shade', mix: [{ colour: '#4a2c18', opacity: 0.3 }], film: 8, pigment: 0.2 },
          ],
        }),
      )
    const read = async (count: number, undercoat: string): Promise<{ code: number; hides: number; lab: number[] }> => {
      const r = await call('coats', stack(count, undercoat), '--json')
      const { coats } = JSON.parse(r.out) as { coats: { hides: number; lab: number[] }[] }
      return { code: r.code, hides: coats[0]!.hides, lab: coats[1]!.lab }
    }
    const white = await read(2, 'white'),
      black = await read(2, 'black')
    expect(black.hides).toBeGreaterThan(white.hides)
    expect(black.code).toBe(1)
    expect(black.lab[0]).toBeLessThan(white.lab[0]!)
    expect((await read(black.hides, 'black')).code).toBe(0)
    // A primer of the paint's own colour is hidden at once; what is no colour is refused in words.
    expect((await read(1, '#e7b416')).hides).toBe(1)
    expect(await call('coats', stack(1, 'brown'))).toMatchObject({
      code: 2,
      err: expect.stringMatching(/#rrggbb of a tinted primer\.\s*$/),
    })
    expect(await call('coats', file('none.json', '{"coats":[]}'))).toMatchObject({ code: 2 })
    expect(await call('coats', file('bad.json', '{"coats":[{"mix":[{"colour":"red"}]}]}'))).toMatchObject({
      code: 2,
      err: expect.stringContaining('#rrggbb'),
    })
  })
  it('puts coats in order, says what a hand order breaks, and reads no wrong scheme', async () => {
    const regions = [
      { id: 0, name: 'coat', area: 3000 },
      { id: 1, name: 'scarf', area: 400 },
    ]
    const coats = [
      { id: 'navy', region: 0, paint: 'navy', lightness: 18 },
      { id: 'yellow', region: 1, paint: 'yellow', lightness: 78, hides: 5 },
    ]
    const borders = [{ a: 0, b: 1, mm: 70 }]
    const scheme = (more: object): string => file('scheme.json', JSON.stringify({ regions, borders, coats, ...more }))
    const best = await call('order', scheme({}), '--json')
    expect(best.code).toBe(0)
    expect(JSON.parse(best.out)).toMatchObject({ order: ['yellow', 'navy'], cost: { tape: 70 } })
    expect(await call('order', scheme({ order: ['navy', 'yellow'] }))).toMatchObject({
      code: 1,
      out: expect.stringContaining('broken: yellow comes before navy (lightFirst)'),
    })
    // By the other school, and by a bench where tape takes twice as long: its cost is in the sum.
    const dark = JSON.parse((await call('order', scheme({ lights: 'darkFirst', costs: { tape: 2.4 } }), '--json')).out)
    const usual = JSON.parse((await call('order', scheme({ lights: 'darkFirst' }), '--json')).out)
    expect(dark.order).toEqual(['navy', 'yellow'])
    expect(dark.cost.masking - usual.cost.masking).toBeCloseTo(1.2 * usual.cost.tape, 6)
    expect((await call('order', scheme({ lights: 'both' }))).err).toContain('scheme.json')
    expect((await call('order', scheme({ order: ['navy'] }))).err).toContain('does not name every coat once')
    expect((await call('order', scheme({ coats: [] }))).err).toContain('no coat to put in order')
    expect((await call('order', scheme({ coats: [{ id: 'x', region: 7, paint: 'x' }] }))).err).toContain(
      'does not exist',
    )
  })
})
