import { bad, good, type Answer } from '../answer'
import { weldIdentical } from '../mesh/weld'
import type { Mesh } from '../mesh/mesh'
import { openZip } from './archive'
import type { Body } from './body'
import { readGlb } from './readGlb'
import { readObj } from './obj'
import { readOff } from './off'
import { readPly } from './ply'
import { read3mf } from './read3mf'
import { readStl } from './stl'
import { message } from '../words/message'
import type { Said } from '../words/say'

const single =
  (read: (bytes: Uint8Array) => Answer<Mesh>) =>
  (bytes: Uint8Array, name: string): Answer<Body[]> => {
    const r = read(bytes)
    return r.ok ? good([{ name: stem(name), mesh: r.value }]) : r
  }
const READERS: Record<string, (bytes: Uint8Array, name: string) => Answer<Body[]>> = {
  stl: single(readStl),
  off: single(readOff),
  ply: single(readPly),
  obj: readObj,
  '3mf': read3mf,
  glb: welded(readGlb),
  gltf: welded(readGlb),
}
const ending = (name: string): string => /\.([a-z0-9]+)$/i.exec(name)?.[1]?.toLowerCase() ?? ''
const stem = (name: string): string => name.replace(/^.*[\\/]/, '').replace(/\.[^.]*$/, '')

/** glTF splits vertices wherever a texture or a crease does; the skin itself is one. */
function welded(read: (bytes: Uint8Array) => Answer<Body[]>): (bytes: Uint8Array) => Answer<Body[]> {
  return (bytes) => {
    const r = read(bytes)
    return r.ok ? good(r.value.map((b) => ({ ...b, mesh: weldIdentical(b.mesh) }))) : r
  }
}

/**
 * Reads a sculpt file by its name's ending. Every problem's sentence names the file, so that several dropped
 * together can be told apart.
 *
 * @param passedOver gets a sentence for each file of an archive that could not be read while others could
 */
export function readSculpt(name: string, bytes: Uint8Array, passedOver: Said[] = []): Answer<Body[]> {
  const kind = ending(name)
  const answer = kind === 'zip' ? readArchive(bytes, passedOver) : readOne(kind, name, bytes)
  return answer.ok
    ? answer
    : bad(answer.problem.code, message('problems.readSculpt.ofFile', { name, message: answer.problem.message }))
}

function readOne(kind: string, name: string, bytes: Uint8Array): Answer<Body[]> {
  const read = READERS[kind]
  if (read) return read(bytes, name)
  return bad('format-unknown', message('problems.readSculpt.sculptsAreReadFromStl', { kind: kind !== '', kind2: kind }))
}

function readArchive(bytes: Uint8Array, passedOver: Said[]): Answer<Body[]> {
  // What other systems leave in archives for themselves begins with a dot or lies beside the files.
  const opened = openZip(bytes, (n) => ending(n) in READERS && !/(^|\/)(\.[^./]|__MACOSX\/)/.test(n))
  if (!opened.ok) return opened
  if (opened.value.size === 0) return bad('archive-no-sculpt', message('problems.readSculpt.thereIsNoStlObj'))
  const bodies: Body[] = []
  const problems: Said[] = []
  for (const [name, content] of opened.value) {
    const short = name.replace(/^.*[\\/]/, '')
    const r = readOne(ending(name), name, content)
    if (!r.ok) problems.push(message('problems.readSculpt.ofFile', { name: short, message: r.problem.message }))
    // Many exporters call every body the same inside; the file's own name tells them apart.
    else
      for (const b of r.value)
        bodies.push({ ...b, name: r.value.length === 1 ? stem(name) : `${stem(name)} ${b.name}` })
  }
  if (bodies.length === 0)
    return bad(
      'archive-no-sculpt',
      message('problems.readSculpt.nothingInTheArchiveCould', { problems: oneAfterTheOther(problems) }),
    )
  passedOver.push(...problems)
  return good(bodies)
}

/** Sentences in a row. */
const oneAfterTheOther = (all: readonly Said[]): Said =>
  all.reduce((before, next) => message('problems.readSculpt.andNext', { before, next }))
