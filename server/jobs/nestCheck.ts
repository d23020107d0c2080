import type { Check } from '../../contract/derivations'
import type { Report } from '../../core/answer'
import type { Mesh } from '../../core/mesh/mesh'
import { nestDefaults } from '../../core/print/nest/types'
import { nestReport, type NestReport } from '../../core/print/nest/nestReport'
import { nestPrinter } from '../../core/print/nest/printerTime'
import { silhouette } from '../../core/print/nest/silhouette'

/** Nests the parts of a check, whose meshes stand in the same order. */
export function nested(check: Extract<Check, { kind: 'nest' }>, meshes: readonly Mesh[], report: Report): NestReport {
  const items = check.parts.map((p, i) => {
    const mesh = meshes[i]
    if (!mesh || mesh.positions.length === 0) throw new RangeError(`Part ${p.id} has no body.`)
    return {
      id: p.id,
      silhouette: silhouette(mesh),
      copies: p.copies,
      turn: p.turn,
      resin: '',
      locks: p.locks,
    }
  })
  return nestReport(
    items,
    check.printers.map((p) => nestPrinter(p.id, p, check.resin)),
    { ...nestDefaults, margin: check.margin, aim: check.aim },
    report,
  )
}
