import { scheme, type Scheme } from '../../contract/scheme'
import { SchemeRow } from '../data/models'

const EMPTY: Scheme = scheme.parse({ version: 0, regions: [{ id: 0, name: 'Whole piece' }], coats: [] })

export async function readScheme(pieceId: string): Promise<Scheme> {
  const row = await SchemeRow.findByPk(pieceId)
  return row ? scheme.parse({ ...row.data, version: row.version }) : EMPTY
}
