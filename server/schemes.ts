import { region, scheme, type Scheme } from '../contract/scheme'
import { SchemeRow } from './models'

const EMPTY: Scheme = {
  version: 0,
  regions: [region.parse({ id: 0, name: 'Whole piece' })],
  coats: [],
  maps: [],
  order: [],
  variants: [],
  effects: [],
  eyes: null,
}

export async function readScheme(pieceId: string): Promise<Scheme> {
  const row = await SchemeRow.findByPk(pieceId)
  return row ? scheme.parse({ ...row.data, version: row.version }) : EMPTY
}
