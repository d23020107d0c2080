import { flaw, type FlawRecord, type Inspection } from '../../contract/flaws'
import { FlawRow, InspectionRow } from '../data/benchModels'

export const publicFlaw = (r: FlawRow): FlawRecord => flaw.parse({ cause: null, ...r.data, ...r.get() })

/** Flaws and passes of a piece. The loop is closed when the last pass that ended leaves nothing open and found nothing, or accepted it. */
export async function readInspection(pieceId: string): Promise<Inspection> {
  const [rows, passes] = await Promise.all([
    FlawRow.findAll({ where: { pieceId }, order: [['createdAt', 'ASC']] }),
    InspectionRow.findAll({ where: { pieceId }, order: [['pass', 'ASC']] }),
  ])
  const flaws = rows.map(publicFlaw)
  const last = passes.at(-1)
  const open = flaws.filter((f) => f.state === 'open').length
  const found = (pass: number): number => flaws.filter((f) => f.pass === pass).length
  const accepted = last !== undefined && flaws.some((f) => f.state === 'accepted' && f.closedPass === last.pass)
  return {
    flaws,
    passes: passes.map((p) => ({
      pass: p.pass,
      begunAt: p.begunAt.toISOString(),
      endedAt: p.endedAt?.toISOString() ?? null,
      note: p.note,
      found: found(p.pass),
    })),
    closed: last !== undefined && (last.endedAt ?? null) !== null && open === 0 && (found(last.pass) === 0 || accepted),
  }
}
