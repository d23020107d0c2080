import { bad, good, type Answer } from '../answer'
import { faceCross, lengthOf } from '../mesh/face'
import type { Mesh } from '../mesh/mesh'
import { weldExact } from '../mesh/weld'
import { checkSoup } from './checkSoup'
import { fixed } from '../words/format'
import { message, type Message } from '../words/message'

const HEADER = 84
const RECORD = 50

/**
 * Reads STL, binary or ASCII, into a welded mesh in the file's units (taken as mm).
 * The count in a binary header is believed only when the bytes are there; nothing is allocated before that.
 */
export function readStl(bytes: Uint8Array): Answer<Mesh> {
  if (bytes.length === 0) return bad('file-empty', message('problems.stl.theFileIsEmpty'))
  const text = looksLikeText(bytes)
  if (bytes.length >= HEADER) {
    const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
    const count = view.getUint32(80, true)
    const needed = HEADER + count * RECORD
    // Some writers start a binary header with "solid", so the arithmetic decides before the words do.
    if (needed === bytes.length && count > 0) return readBinary(view, count)
    if (!text) {
      if (count === 0) return bad('stl-no-faces', message('problems.stl.theStlHeaderSaysThere'))
      if (needed > bytes.length) {
        return bad(
          'stl-truncated',
          message('problems.stl.theStlHeaderAnnouncesTriangles', {
            count,
            needed: megabytes(needed),
            there: megabytes(bytes.length),
            n: Math.floor((bytes.length - HEADER) / RECORD),
          }),
        )
      }
      return readBinary(view, count)
    }
  } else if (!text) {
    return bad('stl-truncated', message('problems.stl.theFileHasOnlyBytes', { length: bytes.length }))
  }
  return readAscii(bytes)
}

const megabytes = (n: number): Message =>
  n < 1e5 ? message('problems.stl.bytes', { n }) : message('problems.stl.megabytes', { n: fixed(n / 1e6, 1) })

function looksLikeText(bytes: Uint8Array): boolean {
  const n = Math.min(bytes.length, 1024)
  for (let i = 0; i < n; i++) {
    const c = bytes[i]!
    if (c === 0 || (c < 32 && c !== 9 && c !== 10 && c !== 13 && c !== 12)) return false
  }
  return true
}

function readBinary(view: DataView, count: number): Answer<Mesh> {
  const soup = new Float32Array(count * 9)
  // Records are 50 bytes, so every other one is misaligned: bytes are moved to an aligned buffer in one pass.
  const source = new Uint8Array(view.buffer, view.byteOffset, view.byteLength)
  const target = new Uint8Array(soup.buffer)
  for (let i = 0, s = HEADER + 12, d = 0; i < count; i++, s += RECORD, d += 36)
    for (let k = 0; k < 36; k++) target[d + k] = source[s + k]!
  const problem = checkSoup(soup, (face) => message('problems.checkSoup.triangle', { n: face + 1 }))
  return problem ?? good(weldExact(soup))
}

/** Tolerates any white space and letter case; numbers must be plain, so a decimal comma is named as such. */
function readAscii(bytes: Uint8Array): Answer<Mesh> {
  const text = new TextDecoder().decode(bytes)
  if (!/^\s*solid\b/i.test(text)) {
    return bad('stl-not-stl', message('problems.stl.theFileIsTextBut'))
  }
  const numbers: number[] = []
  const vertex = /\bvertex\s+(\S+)\s+(\S+)\s+(\S+)/gi
  let m: RegExpExecArray | null
  while ((m = vertex.exec(text))) {
    for (let k = 1; k <= 3; k++) {
      const n = Number(m[k])
      if (Number.isNaN(n) && !/^[-+]?nan/i.test(m[k]!)) {
        const line = text.slice(0, m.index).split('\n').length
        return m[k]!.includes(',')
          ? bad('stl-decimal-comma', message('problems.stl.lineHasANumberWith', { line, m: m[k] }))
          : bad('stl-bad-number', message('problems.stl.lineHasWhereANumber', { line, m: m[k]!.slice(0, 20) }))
      }
      numbers.push(n)
    }
  }
  if (numbers.length === 0) return bad('stl-no-faces', message('problems.stl.theStlHasNoTriangles'))
  if (numbers.length % 9 !== 0 || !/\bendsolid\b/i.test(text.slice(-4096))) {
    return bad('stl-truncated', message('problems.stl.theAsciiStlStopsAfter', { n: Math.floor(numbers.length / 9) }))
  }
  const soup = new Float32Array(numbers)
  const problem = checkSoup(soup, (face) => message('problems.checkSoup.triangle', { n: face + 1 }))
  return problem ?? good(weldExact(soup))
}

/** Binary STL with face normals; 84 + 50 bytes a face. */
export function writeStl(mesh: Mesh): Uint8Array {
  const { positions: p, triangles: t } = mesh
  const faces = t.length / 3
  const bytes = new Uint8Array(HEADER + faces * RECORD)
  bytes.set(new TextEncoder().encode('Undercut binary STL, millimetres'))
  const view = new DataView(bytes.buffer)
  view.setUint32(80, faces, true)
  const normal = new Float64Array(3)
  for (let f = 0, o = HEADER; f < faces; f++, o += RECORD) {
    const a = t[f * 3]! * 3,
      b = t[f * 3 + 1]! * 3,
      c = t[f * 3 + 2]! * 3
    faceCross(p, a, b, c, normal)
    const l = lengthOf(normal) || 1
    for (let k = 0; k < 3; k++) view.setFloat32(o + 4 * k, normal[k]! / l, true)
    let at = o + 12
    for (const v of [a, b, c]) for (let k = 0; k < 3; k++, at += 4) view.setFloat32(at, p[v + k]!, true)
  }
  return bytes
}
