import { scheme, type Scheme } from '../../contract/scheme'
import { SchemeRow } from '../data/models'
import { message } from '../../core/words/message'
import { say } from '../../core/words/say'

const EMPTY: Scheme = scheme.parse({
  version: 0,
  regions: [{ id: 0, name: say(message('names.wholePiece')) }],
  coats: [],
})

export async function readScheme(pieceId: string): Promise<Scheme> {
  const row = await SchemeRow.findByPk(pieceId)
  return row ? scheme.parse({ ...row.data, version: row.version }) : EMPTY
}
