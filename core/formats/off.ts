import { bad, good, type Answer } from '../answer'
import type { Mesh } from '../mesh/mesh'
import { checkSoup } from './checkSoup'
import { message } from '../words/message'
import type { Said } from '../words/say'

/**
 * Reads OFF text (OFF, COFF, NOFF, CNOFF): vertices, polygon faces (fanned), vertex colours. Comments and blank lines
 * are passed over.
 */
export function readOff(bytes: Uint8Array): Answer<Mesh> {
  if (bytes.length === 0) return bad('file-empty', message('problems.off.theFileIsEmpty'))
  const lines = new TextDecoder('latin1').decode(bytes).split('\n')
  let at = 0
  const next = (): string[] | null => {
    while (at < lines.length) {
      const row = lines[at++]!.replace(/#.*/, '').trim()
      if (row !== '') return row.split(/\s+/)
    }
    return null
  }
  const head = next()
  const kind = /^(C?)(N?)OFF$/.exec(head?.[0] ?? '')
  if (!kind) return bad('off-not-off', message('problems.off.theFileDoesNotStart'))
  if (head![1] === 'BINARY') return bad('off-binary', message('problems.off.thisIsABinaryOff'))
  const counts = (head!.length > 2 ? head!.slice(1) : next())?.map(Number)
  const [vertices, faces] = counts ?? []
  if (!Number.isInteger(vertices) || !Number.isInteger(faces) || vertices! < 0 || faces! < 0)
    return bad('off-header', message('problems.off.theOffHasNoSensible'))
  // Each vertex takes at least "0 0 0", each face at least "3 0 1 2".
  if (vertices! * 6 + faces! * 8 > bytes.length + 16)
    return bad(
      'off-truncated',
      message('problems.off.theOffAnnouncesVerticesAnd', { vertices: vertices!, faces: faces! }),
    )
  const positions = new Float32Array(vertices! * 3),
    triangles: number[] = []
  const colours = kind[1] ? new Uint8Array(vertices! * 3) : null
  const cut = (what: Said): ReturnType<typeof bad> =>
    bad('off-truncated', message('problems.off.theOffEndsOrIs', { what }))
  for (let v = 0; v < vertices!; v++) {
    const row = next()?.map(Number)
    if (!row || row.length < 3 || row.some(Number.isNaN)) return cut(message('problems.off.vertex', { v: v + 1 }))
    positions.set(row.slice(0, 3), v * 3)
    if (!colours) continue
    const rgb = row.slice(kind[2] ? 6 : 3)
    const scale = rgb.some((c) => c > 1) ? 1 : 255
    for (let k = 0; k < 3; k++) colours[v * 3 + k] = Math.round((rgb[k] ?? 0) * scale)
  }
  for (let f = 0; f < faces!; f++) {
    const row = next()?.map(Number)
    const length = row?.[0] ?? -1
    if (!row || !Number.isInteger(length) || length < 1 || row.length <= length)
      return cut(message('problems.off.face', { f: f + 1 }))
    for (let k = 1; k <= length; k++)
      if (!Number.isInteger(row[k]) || row[k]! < 0 || row[k]! >= vertices!)
        return bad('off-missing-vertex', message('problems.off.faceUsesVertexWhichIs', { f: f + 1, row: row[k] }))
    for (let k = 3; k <= length; k++) triangles.push(row[1]!, row[k - 1]!, row[k]!)
  }
  const problem = checkSoup(positions, (n) => message('problems.checkSoup.vertexOrAfter', { n: n * 3 + 1 }))
  if (problem) return problem
  return good({ positions, triangles: new Uint32Array(triangles), ...(colours ? { colours } : {}) })
}
