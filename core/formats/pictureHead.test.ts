import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { pictureHead } from './pictureHead'

const bytes = (...parts: (string | number[])[]): Uint8Array =>
  Uint8Array.from(parts.flatMap((p) => (typeof p === 'string' ? [...p].map((c) => c.charCodeAt(0)) : p)))

describe('the head of a picture', () => {
  it('tells type and size of PNG, JPEG after its notes, and the three kinds of WebP', () => {
    const png = bytes([0x89], 'PNG\r\n', [0x1a, 0x0a, 0, 0, 0, 13], 'IHDR', [0, 0, 0x28, 0, 0, 0, 0x1e, 0])
    expect(pictureHead(png)).toEqual({ type: 'png', width: 10_240, height: 7680 })
    const note = [0xff, 0xe1, 0, 6, 1, 2, 3, 4],
      tables = [0xff, 0xc4, 0, 4, 0, 0]
    const jpeg = bytes([0xff, 0xd8], note, tables, [0xff, 0xc2, 0, 11, 8, 0x01, 0x2c, 0x02, 0x58, 1, 0, 0, 0])
    expect(pictureHead(jpeg)).toEqual({ type: 'jpeg', width: 600, height: 300 })
    const riff = (chunk: string, rest: number[]): Uint8Array =>
      bytes('RIFF', [0, 0, 0, 0], 'WEBP', chunk, [0, 0, 0, 0], rest)
    expect(pictureHead(riff('VP8X', [0, 0, 0, 0, 0x57, 2, 0, 0x2b, 1, 0]))).toMatchObject({ width: 600, height: 300 })
    const lossless = 599 | (299 << 14)
    const packed = [0x2f, lossless & 255, (lossless >> 8) & 255, (lossless >> 16) & 255, lossless >>> 24, 0, 0, 0, 0, 0]
    expect(pictureHead(riff('VP8L', packed))).toMatchObject({ type: 'webp', width: 600, height: 300 })
    expect(pictureHead(riff('VP8 ', [0, 0, 0, 0x9d, 0x01, 0x2a, 0x58, 2, 0x2c, 1]))).toMatchObject({ width: 600 })
  })
  it('is none of whatever else there is, cut off or not', () => {
    expect(pictureHead(bytes('solid words'))).toBeNull()
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 60 }), fc.constantFrom([], [0xff, 0xd8], [0x89, 0x50]), (rest, start) => {
        const head = pictureHead(Uint8Array.from([...start, ...rest]))
        expect(head === null || (head.width > 0 && head.height > 0)).toBe(true)
      }),
      { seed: 2, numRuns: 300 },
    )
  })
})
