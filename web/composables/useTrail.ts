import { computed } from 'vue'
import type { OperationRecord } from '../../contract/operations'
import { usePiece } from '../stores/piece'

export type StageName = 'brief' | 'intake' | 'size' | 'core' | 'stand' | 'plates' | 'scheme' | 'plan'
export interface Knot { name: StageName; title: string; state: 'done' | 'open' | 'stale' | 'waiting'; measure: string }

/** The piece's stages in working order, each with its state and the one measure that matters there. */
export function useTrail() {
  const store = usePiece()
  const state = (...kinds: OperationRecord['kind'][]): Knot['state'] => {
    const steps = kinds.map((k) => store.step(k)).filter((s) => s !== null)
    if (steps.length === 0) return 'open'
    if (steps.some((s) => s.derivation?.status === 'failed')) return 'stale'
    if (steps.some((s) => s.derivation === null)) return 'stale'
    return steps.every((s) => s.derivation?.status === 'done') ? 'done' : 'waiting'
  }
  const ml = (v: number): string => `${(v / 1000).toFixed(1)} ml`
  return computed<{ length: string; knots: Knot[] }[]>(() => {
    const p = store.piece, part = store.part
    const size = store.report('scale')?.measures.size
    const hollow = store.report('hollow')?.hollow, drill = store.report('drill')?.drill, support = store.report('support')?.support
    return [
      { length: 'Model', knots: [
        { name: 'brief', title: 'Brief', state: p?.brief ? 'done' : 'open', measure: p?.deadline ? `due ${new Date(`${p.deadline}T12:00`).toLocaleDateString(undefined, { day: 'numeric', month: 'short' })}` : '' },
        { name: 'intake', title: 'Intake', state: part ? (store.step('repair') ? state('repair') : 'done') : 'open', measure: part ? `${p!.partList.length} ${p!.partList.length === 1 ? 'part' : 'parts'}${store.report('repair') ? ', repaired' : ''}` : 'drop a sculpt' },
        { name: 'size', title: 'Size', state: state('scale'), measure: size ? `${size[2].toFixed(0)} mm tall` : part ? 'as it came' : '' },
      ] },
      { length: 'Print', knots: [
        { name: 'core', title: 'Core', state: state('hollow', 'drill'), measure: hollow ? `${ml(hollow.volumeBefore - hollow.volumeAfter)} saved${drill ? `, ${drill.holes.length} holes` : ''}` : part ? 'solid' : '' },
        { name: 'stand', title: 'Stand', state: state('orient', 'support'), measure: support ? `${support.tips.length} tips` : store.step('orient') ? 'turned' : '' },
        { name: 'plates', title: 'Plates', state: 'open', measure: support ? `${support.height.toFixed(0)} mm to print` : '' },
      ] },
      { length: 'Bench', knots: [
        { name: 'scheme', title: 'Scheme', state: 'open', measure: '' },
        { name: 'plan', title: 'Bench plan', state: 'open', measure: '' },
      ] },
    ]
  })
}
