import { bad, good, type Answer } from '../answer'
import type { NamedMesh } from './obj'
import { readObj } from './obj'
import { readStl } from './stl'

/** Sculpt files that can be read, by ending. */
export const SCULPT_ENDINGS = ['stl', 'obj'] as const

/**
 * Reads a sculpt file by its name's ending. Every problem's sentence names the file, so that several dropped
 * together can be told apart.
 */
export function readSculpt(name: string, bytes: Uint8Array): Answer<NamedMesh[]> {
  const ending = /\.([a-z0-9]+)$/i.exec(name)?.[1]?.toLowerCase() ?? ''
  const read = (): Answer<NamedMesh[]> => {
    if (ending === 'obj') return readObj(bytes)
    if (ending === 'stl') {
      const r = readStl(bytes)
      return r.ok ? good([{ name: name.replace(/\.[^.]*$/, ''), mesh: r.value }]) : r
    }
    if (ending === 'zip') return bad('format-archive', 'Archives are not opened here yet: unpack it and drop the STL or OBJ files inside.')
    return bad('format-unknown', `Sculpts are read from STL and OBJ files; "${ending ? `.${ending}` : 'no ending'}" is neither.`)
  }
  const answer = read()
  return answer.ok ? answer : bad(answer.problem.code, `${name}: ${answer.problem.message}`)
}
