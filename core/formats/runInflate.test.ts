import fc from 'fast-check'
import { constants, deflateSync } from 'node:zlib'
import { describe, expect, it } from 'vitest'
import { inflateRuns } from './runInflate'

const unpacked = (packed: Uint8Array): { bytes: Uint8Array; runs: number; said: string | null } => {
  const parts: Uint8Array[] = []
  const said = inflateRuns(packed, (value, n) => {
    parts.push(new Uint8Array(n).fill(value))
    return true
  })
  return { bytes: Buffer.concat(parts), runs: parts.length, said }
}
/** Bytes as pictures have them: runs, repeats of what came before, and noise. */
const content = fc
  .array(
    fc.oneof(
      fc.record({
        kind: fc.constant('run'),
        value: fc.integer({ min: 0, max: 255 }),
        n: fc.integer({ min: 1, max: 70_000 }),
      }),
      fc.record({
        kind: fc.constant('again'),
        value: fc.integer({ min: 2, max: 40_000 }),
        n: fc.integer({ min: 3, max: 900 }),
      }),
      fc.record({
        kind: fc.constant('noise'),
        value: fc.integer({ min: 1, max: 9999 }),
        n: fc.integer({ min: 1, max: 500 }),
      }),
    ),
    { minLength: 0, maxLength: 14 },
  )
  .map((list) => {
    const out: number[] = []
    for (const { kind, value, n } of list)
      for (let i = 0; i < n; i++)
        out.push(
          kind === 'run'
            ? value
            : kind === 'noise'
              ? (value * (i + 7) * 2654435761) >>> 24
              : (out[out.length - value] ?? 0),
        )
    return Uint8Array.from(out)
  })

describe('unpacking into runs', () => {
  it('gives the bytes that were packed, whatever the packer’s level and strategy', () => {
    fc.assert(
      fc.property(
        content,
        fc.integer({ min: 0, max: 9 }),
        fc.constantFrom(constants.Z_DEFAULT_STRATEGY, constants.Z_RLE, constants.Z_HUFFMAN_ONLY, constants.Z_FIXED),
        (bytes, level, strategy) => {
          const r = unpacked(deflateSync(bytes, { level, strategy }))
          expect(r.said).toBeNull()
          expect(Buffer.compare(r.bytes, bytes)).toBe(0)
        },
      ),
      { numRuns: 60 },
    )
  })
  it('takes a hundred million equal bytes as a few runs, and stops when told to', () => {
    const packed = deflateSync(Buffer.alloc(1e8))
    let sum = 0
    expect(inflateRuns(packed, (_, n) => (sum += n) > 0)).toBeNull()
    expect(sum).toBe(1e8)
    expect(inflateRuns(deflateSync(Buffer.from([1, 2, 3])), () => false)).toBe('stopped')
  })
  it('refuses whatever was changed or cut off, by structure or by checksum', () => {
    const bytes = Uint8Array.from({ length: 3000 }, (_, i) => (i * i) >> 5)
    const packed = new Uint8Array(deflateSync(bytes))
    fc.assert(
      fc.property(fc.nat(packed.length - 1), fc.integer({ min: 1, max: 255 }), fc.boolean(), (at, flip, cut) => {
        const bad = packed.slice(0, cut ? at : undefined)
        if (!cut) bad[at]! ^= flip
        const r = unpacked(bad)
        expect(r.said === 'damaged' || Buffer.compare(r.bytes, bytes) === 0).toBe(true)
      }),
      { numRuns: 300 },
    )
  })
})
