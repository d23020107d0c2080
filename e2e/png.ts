import { deflateSync } from 'node:zlib'

/**
 * A plain PNG, by hand: what the browser reads must not depend on a file of ours. All pixels are alike, so that a picture that is large
 * to open is small to send.
 *
 * @param bits of grey in a pixel, 1 or 8
 */
export function plainPng(width: number, height: number, bits: 1 | 8 = 8): Buffer {
  const line = Math.ceil((width * bits) / 8) + 1
  const rows = Buffer.alloc(line * height, 0x99)
  for (let y = 0; y < height; y++) rows[y * line] = 0
  return png(width, height, bits, 0, rows)
}

/** A PNG whose pixels are told one by one, sRGB bytes. */
export function paintedPng(
  width: number,
  height: number,
  at: (x: number, y: number) => readonly [number, number, number],
): Buffer {
  const line = 3 * width + 1
  const rows = Buffer.alloc(line * height)
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) at(x, y).forEach((v, k) => (rows[y * line + 1 + 3 * x + k] = v))
  return png(width, height, 8, 2, rows)
}

function png(width: number, height: number, bits: number, kind: number, rows: Buffer): Buffer {
  const chunk = (name: string, data: Buffer): Buffer => {
    const body = Buffer.concat([Buffer.from(name, 'latin1'), data])
    const out = Buffer.alloc(body.length + 8)
    out.writeUInt32BE(data.length, 0)
    body.copy(out, 4)
    out.writeUInt32BE(crc(body), body.length + 4)
    return out
  }
  const head = Buffer.alloc(13)
  head.writeUInt32BE(width, 0)
  head.writeUInt32BE(height, 4)
  head[8] = bits
  head[9] = kind
  return Buffer.concat([
    Buffer.from([137, 80, 78, 71, 13, 10, 26, 10]),
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(rows)),
    chunk('IEND', Buffer.alloc(0)),
  ])
}
function crc(bytes: Buffer): number {
  let c = ~0
  for (const b of bytes) {
    c ^= b
    for (let k = 0; k < 8; k++) c = c & 1 ? (c >>> 1) ^ 0xedb88320 : c >>> 1
  }
  return ~c >>> 0
}
