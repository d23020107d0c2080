export interface PictureHead {
  type: 'png' | 'jpeg' | 'webp'
  width: number
  height: number
}

/**
 * What a picture's first bytes say of it: PNG, JPEG (ITU T.81, B.2.2) or WebP (RFC 9649). 64 kB are enough unless a JPEG has
 * longer notes before its frame.
 *
 * @returns null where it is none of them, or its size is not among these bytes
 */
export function pictureHead(bytes: Uint8Array): PictureHead | null {
  const v = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const word = (at: number, n: number): string => String.fromCharCode(...bytes.subarray(at, at + n))
  if (bytes.length >= 24 && v.getUint32(0) === 0x89504e47 && v.getUint32(4) === 0x0d0a1a0a && word(12, 4) === 'IHDR')
    return sized('png', v.getUint32(16), v.getUint32(20))
  if (bytes.length >= 4 && v.getUint16(0) === 0xffd8) return jpeg(v)
  if (bytes.length >= 30 && word(0, 4) === 'RIFF' && word(8, 4) === 'WEBP') {
    const chunk = word(12, 4)
    if (chunk === 'VP8X')
      return sized('webp', 1 + (v.getUint32(24, true) & 0xffffff), 1 + (v.getUint32(26, true) >>> 8))
    if (chunk === 'VP8L') {
      const b = v.getUint32(21, true)
      return sized('webp', 1 + (b & 0x3fff), 1 + ((b >>> 14) & 0x3fff))
    }
    if (chunk === 'VP8 ') return sized('webp', v.getUint16(26, true) & 0x3fff, v.getUint16(28, true) & 0x3fff)
  }
  return null
}

function jpeg(v: DataView): PictureHead | null {
  for (let at = 2; at + 9 < v.byteLength;) {
    if (v.getUint8(at) !== 0xff) return null
    const marker = v.getUint8(at + 1)
    // A start of frame, of whatever process; 0xC4, 0xC8 and 0xCC are tables.
    if (marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc)
      return sized('jpeg', v.getUint16(at + 7), v.getUint16(at + 5))
    at += marker === 0xff ? 1 : 2 + v.getUint16(at + 2)
  }
  return null
}

const sized = (type: PictureHead['type'], width: number, height: number): PictureHead | null =>
  width > 0 && height > 0 ? { type, width, height } : null
