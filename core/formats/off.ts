import { bad, good, type Answer } from '../answer'
import type { Mesh } from '../mesh/mesh'
import { checkSoup } from './checkSoup'

/**
 * Reads OFF text (OFF, COFF, NOFF, CNOFF): vertices, polygon faces (fanned), vertex colours. Comments and blank lines
 * are passed over.
 */
export function readOff(bytes: Uint8Array): Answer<Mesh> {
  if (bytes.length === 0) return bad('file-empty', 'The file is empty.')
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
  if (!kind) return bad('off-not-off', 'The file does not start with OFF.')
  if (head![1] === 'BINARY')
    return bad('off-binary', 'This is a binary OFF, which is not read. Save it as OFF text, PLY or STL.')
  const counts = (head!.length > 2 ? head!.slice(1) : next())?.map(Number)
  const [vertices, faces] = counts ?? []
  if (!Number.isInteger(vertices) || !Number.isInteger(faces) || vertices! < 0 || faces! < 0)
    return bad('off-header', 'The OFF has no sensible counts of vertices and faces in its second line.')
  // Each vertex takes at least "0 0 0", each face at least "3 0 1 2".
  if (vertices! * 6 + faces! * 8 > bytes.length + 16)
    return bad(
      'off-truncated',
      `The OFF announces ${vertices!.toLocaleString('en')} vertices and ${faces!.toLocaleString('en')} faces, but the file is too short for them.`,
    )
  const positions = new Float32Array(vertices! * 3),
    triangles: number[] = []
  const colours = kind[1] ? new Uint8Array(vertices! * 3) : null
  const cut = (what: string): ReturnType<typeof bad> =>
    bad('off-truncated', `The OFF ends or is damaged at ${what}. Export or download it again.`)
  for (let v = 0; v < vertices!; v++) {
    const row = next()?.map(Number)
    if (!row || row.length < 3 || row.some(Number.isNaN)) return cut(`vertex ${(v + 1).toLocaleString('en')}`)
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
      return cut(`face ${(f + 1).toLocaleString('en')}`)
    for (let k = 1; k <= length; k++)
      if (!Number.isInteger(row[k]) || row[k]! < 0 || row[k]! >= vertices!)
        return bad(
          'off-missing-vertex',
          `Face ${(f + 1).toLocaleString('en')} uses vertex ${row[k]}, which is not there.`,
        )
    for (let k = 3; k <= length; k++) triangles.push(row[1]!, row[k - 1]!, row[k]!)
  }
  const problem = checkSoup(positions, (n) => `vertex ${(n * 3 + 1).toLocaleString('en')} or the two after it`)
  if (problem) return problem
  return good({ positions, triangles: new Uint32Array(triangles), ...(colours ? { colours } : {}) })
}
