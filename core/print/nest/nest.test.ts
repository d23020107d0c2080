import { describe, expect, it } from 'vitest'
import { bounds, concatenate, type Mesh } from '../../mesh/mesh'
import { identity3 } from '../../math/vectors'
import { transformed } from '../../mesh/transform'
import { evenNumbers } from '../../math/random'
import { boxBody, chainBody, sphereBody } from '../../testBodies'
import { BitGrid, Dilations, noFit } from './bitGrid'
import { inFileOrder, nest } from './nest'
import { nestDefaults, type NestItem, type NestPrinter, type Nesting } from './types'
import { outlines, shapesMeet } from './outline'
import { footprint, silhouette } from './silhouette'

const item = (id: string, mesh: Mesh, more: Partial<NestItem> = {}): NestItem => ({
  id,
  silhouette: silhouette(mesh),
  copies: 1,
  turn: true,
  resin: 'grey',
  ...more,
})
/** 20 s before anything is lifted, then 50 layers a mm of 9 s. */
const printer = (id: string, width: number, depth: number, height: number, speed = 1): NestPrinter => ({
  id,
  width,
  depth,
  height,
  seconds: (h) => 20 + (450 * h) / speed,
})
/** Where a body's skin lies on its plate. */
function placed(mesh: Mesh, p: { x: number; y: number; angle: number }): Mesh {
  const [c, s] = [Math.cos(p.angle), Math.sin(p.angle)]
  return transformed(mesh, [c, -s, 0, s, c, 0, 0, 0, 1], [p.x, p.y, 0])
}
/** Places spread over a body's faces, seen from above. */
function shadow(mesh: Mesh, count: number): [number, number][] {
  const even = evenNumbers(11)
  const { positions: p, triangles: t } = mesh
  return Array.from({ length: count }, () => {
    const f = 3 * Math.floor((even() * t.length) / 3)
    let [a, b] = [even(), even()]
    if (a + b > 1) [a, b] = [1 - a, 1 - b]
    return [0, 1].map((k) => {
      const [u, v, w] = [0, 1, 2].map((i) => p[t[f + i]! * 3 + k]!) as [number, number, number]
      return u + a * (v - u) + b * (w - u)
    }) as [number, number]
  })
}
/** The least distance between two bodies on one plate, by samples of their shadows, and how far any stands in from the edge. */
function proven(
  n: Nesting,
  meshes: ReadonlyMap<string, Mesh>,
  printers: readonly NestPrinter[],
): { apart: number; inside: number } {
  let apart = Infinity,
    inside = Infinity
  for (const plate of n.plates) {
    const p = printers.find((q) => q.id === plate.printer)!
    const cells = new Map<string, { part: number; at: [number, number] }[]>()
    plate.parts.forEach((part, i) => {
      const mesh = placed(meshes.get(part.id)!, part)
      const { min, max } = bounds(mesh)
      inside = Math.min(inside, p.width / 2 - max[0], p.width / 2 + min[0], p.depth / 2 - max[1], p.depth / 2 + min[1])
      for (const at of shadow(mesh, 6000)) {
        const key = `${Math.floor(at[0] / 2)},${Math.floor(at[1] / 2)}`
        const list = cells.get(key) ?? []
        list.push({ part: i, at })
        cells.set(key, list)
      }
    })
    for (const [key, list] of cells) {
      const [x, y] = key.split(',').map(Number) as [number, number]
      const near = [0, 1].flatMap((dx) => [-1, 0, 1].flatMap((dy) => cells.get(`${x + dx},${y + dy}`) ?? []))
      for (const a of list)
        for (const b of near)
          if (a.part !== b.part) apart = Math.min(apart, Math.hypot(a.at[0] - b.at[0], a.at[1] - b.at[1]))
    }
  }
  return { apart, inside }
}

describe('no-fit positions', () => {
  it('are those from which a shape meets what stands there, and no others', () => {
    const even = evenNumbers(3)
    for (let round = 0; round < 20; round++) {
      const plate = new BitGrid(70, 30),
        shape = new BitGrid(9, 7)
      for (let k = 0; k < 90; k++) plate.set(Math.floor(70 * even()), Math.floor(30 * even()))
      for (let k = 0; k < 25; k++) shape.set(Math.floor(9 * even()), Math.floor(7 * even()))
      const no = noFit(plate, new Dilations(plate), shape.runs(), 30)
      for (let y = 0; y + 7 <= 30; y++)
        for (let x = 0; x + 9 <= 70; x++) {
          let meets = false
          for (let j = 0; j < 7; j++) for (let i = 0; i < 9; i++) meets ||= shape.has(i, j) && plate.has(x + i, y + j)
          expect(no.has(x, y)).toBe(meets)
        }
    }
  })
  it('a silhouette covers all of a body’s shadow, turned as well, and little more', () => {
    const body = chainBody(9, 7)
    for (const angle of [0, 0.7, 2.2]) {
      const f = footprint(silhouette(body), angle, 0, 1)
      for (const [x, y] of shadow(placed(body, { x: f.offset[0], y: f.offset[1], angle }), 4000))
        expect(f.cells.has(Math.floor(x), Math.floor(y))).toBe(true)
    }
    const ball = footprint(silhouette(sphereBody(15, 4)), 1, 0, 1)
    expect(ball.area / (Math.PI * 225)).toBeGreaterThan(1)
    expect(ball.area / (Math.PI * 16.5 ** 2)).toBeLessThan(1)
  })
})

describe('outlines', () => {
  it('go round what is set and round its holes, enclose its cells, and tell whether two shapes meet', () => {
    const even = evenNumbers(5)
    const area = (loop: readonly (readonly [number, number])[]): number =>
      loop.reduce((s, [x, y], i) => {
        const [u, v] = loop[(i + 1) % loop.length]!
        return s + (x * v - u * y) / 2
      }, 0)
    for (let round = 0; round < 20; round++) {
      const grid = new BitGrid(20, 14)
      for (let k = 0; k < 40 + 10 * round; k++) grid.set(Math.floor(20 * even()), Math.floor(14 * even()))
      const loops = outlines(grid)
      expect(loops.reduce((s, l) => s + area(l), 0)).toBeCloseTo(grid.count(), 9)
      for (const l of loops)
        l.forEach(([x, y], i) => {
          const [u, v] = l[(i + 1) % l.length]!
          expect((x === u) !== (y === v)).toBe(true)
        })
    }
    const ring: [number, number][][] = [
      [
        [0, 0],
        [10, 0],
        [10, 10],
        [0, 10],
      ],
      [
        [2, 2],
        [2, 8],
        [8, 8],
        [8, 2],
      ],
    ]
    const square = (x: number, y: number, s: number): [number, number][][] => [
      [
        [x, y],
        [x + s, y],
        [x + s, y + s],
        [x, y + s],
      ],
    ]
    expect(shapesMeet(ring, square(4, 4, 2))).toBe(false)
    expect(shapesMeet(ring, square(0.5, 0.5, 1))).toBe(true)
    expect(shapesMeet(ring, square(7, 4, 2))).toBe(true)
    expect(shapesMeet(ring, square(11, 0, 3))).toBe(false)
  })
})

describe('nesting', () => {
  const meshes = new Map(
    Array.from({ length: 12 }, (_, k): [string, Mesh] => {
      const size = 0.8 + 0.15 * (k % 5)
      const body = transformed(chainBody(100 + k, 6), [size, 0, 0, 0, size, 0, 0, 0, size * (1 + (k % 4))], [0, 0, 0])
      return [`figure ${k}`, transformed(body, identity3, [0, 0, -bounds(body).min[2]])]
    }),
  )
  const printers = [printer('small', 120, 68, 165), printer('large', 218, 123, 220, 0.8)]
  const items = [...meshes].map(([id, mesh]) => item(id, mesh, { copies: 2 }))

  it('puts 24 figurines on two printers, clear of each other and of the edge, in far fewer hours than one by one', () => {
    const n = nest(items, printers, { ...nestDefaults, rounds: 12 })
    expect(n.left).toEqual([])
    expect(n.plates.flatMap((p) => p.parts)).toHaveLength(24)
    const { apart, inside } = proven(n, meshes, printers)
    expect(apart).toBeGreaterThan(0.95 * nestDefaults.margin)
    expect(inside).toBeGreaterThan(0.95 * nestDefaults.margin)
    const plain = inFileOrder(items, printers)
    expect(plain.left).toEqual([])
    expect(n.seconds).toBeLessThan(0.85 * plain.seconds)
    for (const p of n.plates) {
      const tallest = Math.max(...p.parts.map((q) => bounds(meshes.get(q.id)!).max[2]))
      expect(p.height).toBeCloseTo(tallest, 4)
      expect(p.seconds).toBeCloseTo(printers.find((q) => q.id === p.printer)!.seconds(tallest), 3)
    }
    expect(n.seconds).toBeCloseTo(
      n.plates.reduce((s, p) => s + p.seconds, 0),
      6,
    )
    // The same again, to the hair.
    expect(nest(items, printers, { ...nestDefaults, rounds: 12 })).toEqual(n)
    // Side by side they are done sooner, though the machines run no shorter.
    const soon = nest(items, printers, { ...nestDefaults, rounds: 12, aim: 'soonest' })
    expect(soon.finish).toBeLessThanOrEqual(n.finish)
    expect(soon.seconds).toBeGreaterThanOrEqual(n.seconds - 1e-6)
  })
  it('interlocks shapes that their boxes would keep apart', () => {
    // Two L of 40 × 40 with arms of 10: boxes need 82 × 40, the shapes one plate of 56 × 56.
    const ell = concatenate([boxBody(40, 10, 10, 0, 0, 0), boxBody(10, 40, 10, 0, 0, 0)])
    const one = [printer('only', 58, 58, 50)]
    const n = nest([item('ell', ell, { copies: 2 })], one)
    expect(n.plates).toHaveLength(1)
    expect(n.left).toEqual([])
  })
  it('groups by height: low parts do not wait on a tall one’s plate when they fit on another', () => {
    const tower = boxBody(30, 30, 100),
      slab = boxBody(30, 30, 10)
    const one = [printer('only', 68, 36, 120)]
    const n = nest([item('slab', slab, { copies: 2 }), item('tower', tower, { copies: 2 })], one)
    expect(n.plates.map((p) => p.parts.map((q) => q.id).sort())).toEqual([
      ['tower', 'tower'],
      ['slab', 'slab'],
    ])
  })
  it('keeps resins apart, counts the changes of vat, and leaves what a hand has put where it is', () => {
    const cube = boxBody(20, 20, 20, -10, -10, 0)
    const lock = { copy: 0, printer: 'only', plate: 0, x: 17.3, y: -8.1, angle: 0.4 }
    const n = nest(
      [
        item('kept', cube, { locks: [lock] }),
        item('grey', cube, { copies: 3 }),
        item('clear', cube, { resin: 'clear', copies: 2 }),
      ],
      [printer('only', 120, 68, 50)],
    )
    expect(n.plates.map((p) => p.resin).sort()).toEqual(['clear', 'grey'])
    expect(n.vatChanges).toBe(1)
    const kept = n.plates.flatMap((p) => p.parts).find((p) => p.id === 'kept')!
    expect(kept).toMatchObject({ x: 17.3, y: -8.1, angle: 0.4 })
    const all = new Map([...['kept', 'grey', 'clear'].map((id): [string, Mesh] => [id, cube])])
    expect(proven(n, all, [printer('only', 120, 68, 50)]).apart).toBeGreaterThan(1)
    // Put down by hand just the margin apart, and just as far from the edge, they stay, however that falls on the cells.
    for (const shift of [0, 0.13, 0.37, 0.61]) {
      const lockAt = (x: number): NestItem['locks'] => [{ copy: 0, printer: 'only', plate: 0, x, y: 0, angle: 0 }]
      const near = nest(
        [item('a', cube, { locks: lockAt(-48 + shift) }), item('b', cube, { locks: lockAt(-26 + shift) })],
        [printer('only', 120, 68, 50)],
      )
      expect(near.left).toEqual([])
      expect(near.plates).toHaveLength(1)
    }
    // A hand's plate keeps its number, and a second part put beside the first comes onto the same one.
    const onSecond = (x: number): NestItem['locks'] => [{ copy: 0, printer: 'only', plate: 1, x, y: 0, angle: 0 }]
    const big = boxBody(100, 50, 5, -50, -25, 0)
    const hands = nest(
      [item('a', cube, { locks: onSecond(-30) }), item('b', cube, { locks: onSecond(30) }), item('big', big)],
      [printer('only', 120, 68, 50)],
    )
    expect(hands.plates.map((p) => [p.number, p.parts.map((q) => q.id)])).toEqual([
      [0, ['big']],
      [1, ['a', 'b']],
    ])
    // Two hands put two parts on one place: the second is left out, and said to be.
    const twice = nest(
      [item('a', cube, { locks: [lock] }), item('b', cube, { locks: [lock] })],
      [printer('only', 120, 68, 50)],
    )
    expect(twice.left).toEqual([{ id: 'b', why: 'taken' }])
  })
  it('says what is too tall or too wide for every printer', () => {
    const n = nest(
      [item('mast', boxBody(5, 5, 300)), item('plank', boxBody(200, 200, 5)), item('ok', boxBody(5, 5, 5))],
      printers,
    )
    expect(n.left).toEqual([
      { id: 'mast', why: 'tall' },
      { id: 'plank', why: 'wide' },
    ])
    expect(n.plates.flatMap((p) => p.parts.map((q) => q.id))).toEqual(['ok'])
    // Alone on its plate, a part stands in the middle.
    const [only] = n.plates[0]!.parts
    expect(Math.abs(only!.x + 2.5 * Math.cos(only!.angle) - 2.5 * Math.sin(only!.angle))).toBeLessThan(1.5)
    expect(nest([], printers)).toMatchObject({ plates: [], left: [], seconds: 0, finish: 0 })
  })
})
