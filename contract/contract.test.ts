import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CHECKS } from '../core/checks/registry'
import { OPERATIONS } from '../core/operations/registry'
import { check } from './derivations'
import { operation, operationList } from './operations'
import { changedPiece, newPiece } from './pieces'
import { scheme } from './scheme'
import { paint, printer, resin } from './stock'
import { issueSentence } from './issues'

// JSON knows no negative zero.
const number = fc.double({ noNaN: true, noDefaultInfinity: true, min: -1e6, max: 1e6 }).map((v) => v || 0)
const point = fc.tuple(number, number, number)
const record = fc.oneof(
  fc.record({ kind: fc.constant('scale'), factor: fc.double({ min: 0.001, max: 10_000, noNaN: true }) }),
  fc.record({ kind: fc.constant('hollow'), wall: fc.double({ min: 0.4, max: 20, noNaN: true }) }),
  fc.record({
    kind: fc.constant('drill'),
    holes: fc.array(fc.record({ point, direction: point, diameter: fc.double({ min: 1, max: 40, noNaN: true }) }), {
      minLength: 1,
      maxLength: 5,
    }),
  }),
  fc.record({
    kind: fc.constant('support'),
    edits: fc.array(fc.record({ kind: fc.constant('add'), point, grade: fc.constantFrom('whisker', 'strut', 'post') })),
  }),
)

describe('operation records', () => {
  it('come back from their own JSON as they were, defaults filled in once and for all', () => {
    fc.assert(
      fc.property(fc.array(record, { maxLength: 8 }), (list) => {
        const parsed = operationList.parse(list)
        expect(operationList.parse(JSON.parse(JSON.stringify(parsed)))).toEqual(parsed)
        parsed.forEach((o, i) => expect(o.kind).toBe(list[i]!.kind))
      }),
    )
  })
  it('and checks have names of their own, each once, for both are kept in one table', () => {
    const kinds = [...OPERATIONS, ...CHECKS].map((d) => d.kind)
    expect(new Set(kinds).size).toBe(kinds.length)
    expect(operation.options).toHaveLength(OPERATIONS.length)
    expect(check.options).toHaveLength(CHECKS.length)
  })
  it('refuse what would make no sense or no end', () => {
    for (const bad of [
      { kind: 'scale', factor: 0 },
      { kind: 'scale', factor: NaN },
      { kind: 'scale', factor: Infinity },
      { kind: 'hollow', wall: 0.1 },
      { kind: 'hollow', wall: 2, voxel: 0.001 },
      { kind: 'drill', holes: [] },
      { kind: 'drill', holes: [{ point: [0, 0], direction: [0, 0, 1], diameter: 3 }] },
      { kind: 'support', limit: 0 },
      { kind: 'explode' },
      {},
    ])
      expect(operation.safeParse(bad).success).toBe(false)
    expect(operationList.safeParse(Array.from({ length: 201 }, () => ({ kind: 'scale', factor: 1 }))).success).toBe(
      false,
    )
  })
})

describe('checks and stock', () => {
  it('bound what a check may cost', () => {
    expect(check.safeParse({ kind: 'display', faces: 10_000_000 }).success).toBe(false)
    expect(check.safeParse({ kind: 'layers', step: 0.0001 }).success).toBe(false)
    expect(check.safeParse({ kind: 'health', extra: 1 }).success).toBe(true)
  })
  it('fill a printer, a resin and a paint from the little a user must say', () => {
    const p = printer.parse({
      name: 'P',
      pixelsX: 100,
      pixelsY: 100,
      pitchX: 0.05,
      pitchY: 0.05,
      height: 100,
      layerHeight: 0.05,
    })
    expect(p.liftTime).toBeGreaterThan(0)
    expect(resin.parse({ name: 'R' }).density).toBeGreaterThan(0.9)
    expect(paint.safeParse({ name: 'Blue', hex: 'blue', opacity: 0.5, kind: 'acrylic' }).success).toBe(false)
    expect(printer.safeParse({ ...p, pitchX: 0 }).success).toBe(false)
    expect(printer.safeParse({ ...p, pixelsX: 1e9 }).success).toBe(false)
  })
})

describe('pieces', () => {
  it('name their fault in words a bench worker understands', () => {
    const r = newPiece.safeParse({ name: ' ' })
    expect(r.success ? '' : issueSentence(r.error.issues[0]!)).toBe('name: Give the piece a name.')
    expect(changedPiece.safeParse({ name: 'New name' }).success).toBe(false)
    expect(newPiece.safeParse({ name: 'x', deadline: '31.12.2026' }).success).toBe(false)
  })
  it('keep a scheme within what the bench can paint', () => {
    expect(scheme.safeParse({ version: 0, regions: [], coats: [], maps: [] }).success).toBe(false)
    const region = { id: 0, name: 'Coat', target: null }
    expect(scheme.parse({ version: 0, regions: [region], coats: [] }).maps).toEqual([])
    expect(scheme.safeParse({ version: 0, regions: [{ ...region, id: 256 }], coats: [] }).success).toBe(false)
    expect(
      scheme.safeParse({
        version: 0,
        regions: [region],
        coats: [],
        maps: [{ partId: 'no', meshHash: 'x', labels: 'y', areas: {} }],
      }).success,
    ).toBe(false)
  })
})
