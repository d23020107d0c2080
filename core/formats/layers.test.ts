import fc from 'fast-check'
import { zipSync, zlibSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { Rasteriser, type Runs } from '../raster/raster'
import { readLayers, type LayersReport } from '../print/slice/readLayers'
import { crc32 } from './crc32'
import { encodeLayer } from './pngLayer'
import { readPngLayer } from './readPngLayer'
import type { ByteSource } from './zipDirectory'
import { say } from '../words/say'
import type { Said } from '../words/say'

const sourceOf = (bytes: Uint8Array): ByteSource => ({
  size: bytes.length,
  read: async (from, length) => bytes.subarray(from, from + length),
})
function chunk(type: string, data: Uint8Array): Uint8Array {
  const out = new Uint8Array(12 + data.length),
    view = new DataView(out.buffer)
  view.setUint32(0, data.length)
  out.set(
    [...type].map((c) => c.charCodeAt(0)),
    4,
  )
  out.set(data, 8)
  view.setUint32(8 + data.length, crc32(out, 4, 8 + data.length))
  return out
}
function png(parts: Uint8Array[]): Uint8Array {
  const all = [new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]), ...parts]
  const out = new Uint8Array(all.reduce((n, p) => n + p.length, 0))
  let at = 0
  for (const p of all) {
    out.set(p, at)
    at += p.length
  }
  return out
}
function header(width: number, height: number, depth: number, colour: number, interlaced = 0): Uint8Array {
  const d = new Uint8Array(13),
    v = new DataView(d.buffer)
  v.setUint32(0, width)
  v.setUint32(4, height)
  d.set([depth, colour, 0, 0, interlaced], 8)
  return chunk('IHDR', d)
}
/** Rows filtered as PNG 1.2, section 6, each by the filter named for it. */
function filtered(rows: Uint8Array[], filters: number[], step: number): Uint8Array {
  const stride = rows[0]!.length
  const out = new Uint8Array((stride + 1) * rows.length)
  rows.forEach((row, y) => {
    const f = filters[y]!,
      up = rows[y - 1] ?? new Uint8Array(stride)
    out[y * (stride + 1)] = f
    for (let i = 0; i < stride; i++) {
      const a = i < step ? 0 : row[i - step]!,
        b = up[i]!,
        c = i < step ? 0 : up[i - step]!
      const p = a + b - c
      const [pa, pb, pc] = [Math.abs(p - a), Math.abs(p - b), Math.abs(p - c)] as const
      const guess = [0, a, b, (a + b) >> 1, pa <= pb && pa <= pc ? a : pb <= pc ? b : c][f]!
      out[y * (stride + 1) + 1 + i] = row[i]! - guess
    }
  })
  return out
}
const end = chunk('IEND', new Uint8Array(0))
function pixels({ width, height, rowStart, x, length, value }: Runs): number[][] {
  return Array.from({ length: height }, (_, y) => {
    const row = new Array<number>(width).fill(0)
    for (let i = rowStart[y]!; i < rowStart[y + 1]!; i++) row.fill(value[i]!, x[i]!, x[i]! + length[i]!)
    return row
  })
}
const must = <T>(r: { ok: true; value: T } | { ok: false; problem: { message: Said } }): T => {
  if (!r.ok) throw new Error(say(r.problem.message))
  return r.value
}
const square = (w: number, h: number, boxes: number[][]): Runs => {
  const segments = Float64Array.from(
    boxes.flatMap(([a, b, c, d]) => [a!, b!, c!, b!, c!, b!, c!, d!, c!, d!, a!, d!, a!, d!, a!, b!]),
  )
  return new Rasteriser(w, h, 1, 1, 0, 0).draw(segments, segments.length / 4)
}

describe('PNG layers read back', () => {
  it('give the runs that were written, to the last value', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(250), fc.nat(50), fc.double({ min: 0.2, max: 60, noNaN: true }), fc.nat(30)), {
          maxLength: 6,
        }),
        (boxes) => {
          const runs = square(
            300,
            90,
            boxes.map(([x, y, w, h]) => [x + 0.3, y, x + 0.3 + w, y + h + 0.5]),
          )
          const back = must(readPngLayer(encodeLayer(runs))).runs
          expect(pixels(back)).toEqual(pixels(runs))
          expect(back.covered).toBeCloseTo(runs.covered, 6)
        },
      ),
      { numRuns: 40 },
    )
  })
  it('of any kind and filter mean the same light', () => {
    const kinds = [
      { depth: 8, colour: 0, channels: 1 },
      { depth: 16, colour: 0, channels: 1 },
      { depth: 8, colour: 2, channels: 3 },
      { depth: 8, colour: 4, channels: 2 },
      { depth: 8, colour: 6, channels: 4 },
      { depth: 16, colour: 6, channels: 4 },
    ]
    fc.assert(
      fc.property(
        fc.constantFrom(...kinds),
        fc.array(fc.array(fc.nat(255), { minLength: 13, maxLength: 13 }), { minLength: 5, maxLength: 5 }),
        fc.array(fc.nat(4), { minLength: 5, maxLength: 5 }),
        ({ depth, colour, channels }, grey, filters) => {
          const size = depth / 8
          const rows = grey.map((row) =>
            Uint8Array.from(
              row.flatMap((v) =>
                Array.from({ length: channels }, (_, c) =>
                  Array.from({ length: size }, (_, b) =>
                    (colour & 4) !== 0 && c === channels - 1 ? 255 : b === 0 ? v : 7,
                  ),
                ).flat(),
              ),
            ),
          )
          const file = png([
            header(13, 5, depth, colour),
            chunk('IDAT', zlibSync(filtered(rows, filters, size * channels))),
            end,
          ])
          expect(pixels(must(readPngLayer(file)).runs)).toEqual(grey)
        },
      ),
      { numRuns: 120 },
    )
    // One bit a pixel: 10110010 1.
    const bits = png([header(9, 1, 1, 0), chunk('IDAT', zlibSync(Uint8Array.of(0, 0b10110010, 0b10000000))), end])
    expect(pixels(must(readPngLayer(bits)).runs)[0]!.map((v) => v / 255)).toEqual([1, 0, 1, 1, 0, 0, 1, 0, 1])
    // A palette of black, white and a blue, two bits a pixel.
    const swatches = png([
      header(4, 1, 2, 3),
      chunk('PLTE', Uint8Array.of(0, 0, 0, 255, 255, 255, 0, 0, 200)),
      chunk('pHYs', Uint8Array.of(0, 0, 0x4e, 0x20, 0, 0, 0x27, 0x10, 1)),
      chunk('IDAT', zlibSync(Uint8Array.of(0, 0b01_10_00_01))),
      end,
    ])
    const read = must(readPngLayer(swatches))
    expect(pixels(read.runs)).toEqual([[255, 23, 0, 255]])
    expect(read.pitch).toEqual([0.05, 0.1])
  })
  it('that are broken or hostile are refused in words', () => {
    const good = encodeLayer(square(40, 30, [[5, 5, 20, 20]]))
    const cases: [Uint8Array, RegExp][] = [
      [new Uint8Array(60), /does not start/],
      [good.subarray(0, 60), /ends too early|damaged/],
      [good.map((b, i) => (i === 45 ? b ^ 255 : b)), /IDAT is damaged/],
      [png([header(100_000, 9, 8, 0), end]), /no layer/],
      [png([header(9, 9, 8, 0, 1), end]), /interlaced/],
      [png([header(9, 2, 8, 0), chunk('IDAT', zlibSync(new Uint8Array(10))), end]), /fewer pixels/],
      // It unpacks to a thousand times what it declares: reading stops at the first byte too many.
      [png([header(9, 2, 8, 0), chunk('IDAT', zlibSync(new Uint8Array(50_000_000))), end]), /more pixels/],
      [png([header(9, 1, 8, 0), chunk('IDAT', zlibSync(new Uint8Array(10).fill(9))), end]), /no known way/],
      [png([header(9, 1, 8, 3), chunk('IDAT', zlibSync(new Uint8Array(10))), end]), /palette/],
    ]
    for (const [bytes, words] of cases) {
      const r = readPngLayer(bytes)
      expect(r.ok).toBe(false)
      if (!r.ok) expect(say(r.problem.message)).toMatch(words)
    }
  })
})

describe('layer archives of others', () => {
  const scale = { pitch: [0.1, 0.1] as [number, number], layerHeight: 0.05 }
  const tower = (names: (i: number) => string, more: Record<string, Uint8Array> = {}): Uint8Array =>
    zipSync({
      ...Object.fromEntries(
        Array.from({ length: 12 }, (_, i) => [
          names(i),
          // A post of 4 × 4 mm; from layer 6 on a second one begins in the air.
          encodeLayer(square(200, 120, [[20, 20, 60, 60], ...(i >= 6 ? [[100, 40, 130, 60]] : [])])),
        ]),
      ),
      ...more,
    })
  const read = async (bytes: Uint8Array, how = scale): Promise<LayersReport> =>
    must(await readLayers(sourceOf(bytes), how))

  it('are read in the order of their numbers, previews passed over, and their island is found', async () => {
    const preview = encodeLayer(square(20, 20, [[2, 2, 9, 9]]))
    for (const names of [(i: number) => `${i + 1}.png`, (i: number) => `out/slice_${i}_a.png`]) {
      const r = await read(
        tower(names, { 'preview.png': preview, 'thumb/1.png': preview, 'notes.txt': new Uint8Array(3) }),
      )
      expect(r.layers).toBe(12)
      expect(r.areas.map((a) => Math.round(a))).toEqual([...Array<number>(6).fill(16), ...Array<number>(6).fill(22)])
      expect(r.islands).toHaveLength(1)
      expect(r.islands[0]).toMatchObject({ layer: 6 })
      expect(r.islands[0]!.area).toBeCloseTo(6, 3)
      // mm from the middle of the plate.
      expect(r.islands[0]!.x).toBeCloseTo(1.5, 1)
      expect(r.islands[0]!.y).toBeCloseTo(-1, 1)
      expect(r.volume).toBeCloseTo(0.05 * (6 * 16 + 6 * 22), 3)
      expect(r.peel[0]).toBeCloseTo(12_000 * 16e-6, 6)
    }
  })
  it('that cannot be are refused in words', async () => {
    const cases: [Uint8Array, Parameters<typeof readLayers>[1], RegExp][] = [
      [new Uint8Array(500), scale, /damaged or is not a ZIP/],
      [tower((i) => `${i}.png`).subarray(0, 900), scale, /damaged or is not a ZIP/],
      [zipSync({ 'model.stl': new Uint8Array(9) }), scale, /no numbered PNG/],
      [tower((i) => `${i}.png`), { pitch: [0.1, 0.1] }, /how thick a layer/],
      [tower((i) => `${i}.png`), { layerHeight: 0.05 }, /how large a pixel/],
      [tower((i) => `${i}.png`, { '12.png': encodeLayer(square(100, 50, [])) }), scale, /12\.png has 100 × 50 pixels/],
      [tower((i) => `${i}.png`, { '12.png': new Uint8Array(99) }), scale, /12\.png is no sound PNG/],
    ]
    for (const [bytes, how, words] of cases) {
      const r = await readLayers(sourceOf(bytes), how)
      expect(r.ok).toBe(false)
      if (!r.ok) expect(say(r.problem.message)).toMatch(words)
    }
  })
  it('with any byte changed are read or refused, never worse', async () => {
    const sound = tower((i) => `${i}.png`)
    await fc.assert(
      fc.asyncProperty(fc.nat(sound.length - 1), fc.nat(255), async (at, to) => {
        const bytes = sound.slice()
        bytes[at] = to
        const r = await readLayers(sourceOf(bytes), scale)
        if (!r.ok) expect(say(r.problem.message).length).toBeGreaterThan(10)
      }),
      { numRuns: 150 },
    )
  })
})
