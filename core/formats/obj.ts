import { bad, good, type Answer } from '../answer'
import type { Mesh } from '../mesh/mesh'
import type { Body } from './body'
import { checkSoup } from './checkSoup'
import { floatText } from './floatText'
import { weldExact } from '../mesh/weld'
import { message } from '../words/message'

/**
 * Reads the polygons of an OBJ: `v`, `f` (any corner count, fanned; negative indices count back), `o`, `g`.
 * Materials and texture coordinates are passed over. Bodies share vertices only within themselves.
 */
export function readObj(bytes: Uint8Array): Answer<Body[]> {
  if (bytes.length === 0) return bad('file-empty', message('problems.obj.theFileIsEmpty'))
  const text = new TextDecoder().decode(bytes)
  const vertices: number[] = []
  const bodies: { name: string; corners: number[] }[] = []
  let body = { name: '', corners: [] as number[] }
  let line = 0,
    at = 0
  while (at <= text.length) {
    let end = text.indexOf('\n', at)
    if (end < 0) end = text.length
    const row = text.slice(at, end).trim()
    at = end + 1
    line++
    if (row.startsWith('v ') || row.startsWith('v\t')) {
      const f = row.split(/\s+/)
      for (let k = 1; k <= 3; k++) {
        const word = f[k] ?? ''
        const n = Number(word)
        if (word === '' || (Number.isNaN(n) && !/^[-+]?nan/i.test(word))) {
          return bad(
            'obj-bad-number',
            word.includes(',')
              ? message('problems.obj.lineHasANumberWith', { line, word })
              : message('problems.obj.lineHasTooFewNumbers', { line, word: word === '', word2: word.slice(0, 20) }),
          )
        }
        vertices.push(n)
      }
    } else if (row.startsWith('f ') || row.startsWith('f\t')) {
      const f = row.split(/\s+/)
      const count = vertices.length / 3
      const ring: number[] = []
      for (let k = 1; k < f.length; k++) {
        const index = parseInt(f[k]!, 10)
        const v = index < 0 ? count + index : index - 1
        if (!Number.isInteger(v) || v < 0 || v >= count || index === 0) {
          return bad(
            'obj-missing-vertex',
            message('problems.obj.lineUsesVertexButOnly', { line, f: f[k]!.slice(0, 20), count }),
          )
        }
        ring.push(v)
      }
      if (ring.length < 3) return bad('obj-short-face', message('problems.obj.lineHasAFaceWith', { line }))
      for (let k = 2; k < ring.length; k++) body.corners.push(ring[0]!, ring[k - 1]!, ring[k]!)
    } else if (/^[og]\s/.test(row) || row === 'g' || row === 'o') {
      if (body.corners.length > 0) bodies.push(body)
      body = { name: row.slice(2).trim(), corners: [] }
    }
  }
  if (body.corners.length > 0) bodies.push(body)
  if (bodies.length === 0)
    return bad(
      'obj-no-faces',
      vertices.length > 0 ? message('problems.obj.theObjHasPointsBut') : message('problems.obj.theFileHasNoVertices'),
    )
  const result: Body[] = []
  for (const [i, b] of bodies.entries()) {
    const soup = new Float32Array(b.corners.length * 3)
    for (let k = 0; k < b.corners.length; k++)
      for (let a = 0; a < 3; a++) soup[k * 3 + a] = vertices[b.corners[k]! * 3 + a]!
    const name = b.name || `body ${i + 1}`
    const problem = checkSoup(soup, (face) => message('problems.checkSoup.faceOf', { n: face + 1, name }))
    if (problem) return problem
    result.push({ name, mesh: weldExact(soup) })
  }
  return good(result)
}

/** OBJ text; coordinates are printed so that they read back to the same Float32. */
export function writeObj(mesh: Mesh, name = 'undercut'): Uint8Array {
  const { positions: p, triangles: t } = mesh
  const rows: string[] = [`# millimetres`, `o ${name}`]
  for (let i = 0; i < p.length; i += 3)
    rows.push(`v ${floatText(p[i]!)} ${floatText(p[i + 1]!)} ${floatText(p[i + 2]!)}`)
  for (let i = 0; i < t.length; i += 3) rows.push(`f ${t[i]! + 1} ${t[i + 1]! + 1} ${t[i + 2]! + 1}`)
  return new TextEncoder().encode(rows.join('\n') + '\n')
}
