import { text } from '../i18n'
import type { FixingRecord } from '../../core/operations/fix'
import type { OperationInput } from '../../contract/operations'
import { between } from '../../core/fit/facing'
import { pinFor } from '../../core/fit/pin'
import type { StageHandlers } from '../shell/fixHandlers'
import { useAssembly } from '../stores/assembly'
import { usePiece } from '../stores/piece'
import { useClearances } from './useClearances'
import { usePlacing } from './usePlacing'

/** What the fixes of the combine stage's findings do. Each is tried before it is kept, and is one step of undo. */
export function useCombineFixes(): StageHandlers<'combine'> {
  const store = usePiece(),
    assembly = useAssembly(),
    clearances = useClearances(),
    placing = usePlacing()

  const base = () => store.piece?.partList.find((p) => p.steps.some((s) => s.op.kind === 'base'))

  async function join(mode: 'relieve' | 'union', key: string): Promise<void> {
    const p = assembly.pairs.find((x) => x.key === key)
    if (!p?.b.mesh) return
    const op: OperationInput = {
      kind: 'join',
      mode,
      others: [{ part: p.b.part.id, mesh: p.b.mesh }],
      clearance: clearances.drawn(clearances.processOf(p.a.part.id, p.b.part.id), 'sliding'),
    }
    if (!(await store.tryOnly(op, p.a.part))) return
    await store.arrange({
      lists: [{ id: p.a.part.id, operations: store.withOperation(p.a.part, op) }],
      remove: mode === 'union' ? [p.b.part.id] : [],
    })
  }

  async function pin(key: string): Promise<void> {
    const load = assembly.loads.find((l) => l.key === key)
    const p = assembly.pairs.find((x) => x.key === key)
    if (!load || !p?.fit) return
    const { wire, depth } = pinFor(load.joint, load.mass, load.centre, 'brass')
    const fixing = (role: FixingRecord['role']): OperationInput => ({
      kind: 'fix',
      fixings: [
        {
          shape: 'pin',
          role,
          point: p.fit!.centre,
          direction: p.fit!.outward,
          width: wire,
          length: depth,
          clearance: clearances.drawn(clearances.processOf(p.a.part.id, p.b.part.id), 'press'),
        },
      ],
    })
    if (!(await store.tryOnly(fixing('plug'), p.a.part)) || !(await store.tryOnly(fixing('socket'), p.b.part))) return
    await store.arrange({
      lists: [
        { id: p.a.part.id, operations: store.withOperation(p.a.part, fixing('plug')) },
        { id: p.b.part.id, operations: store.withOperation(p.b.part, fixing('socket')) },
      ],
    })
  }

  async function turnPlate(): Promise<void> {
    const f = assembly.facing
    const part = store.piece?.partList.find((p) => p.steps.some((s) => s.op.kind === 'nameplate'))
    const op = part?.steps.find((s) => s.op.kind === 'nameplate')?.op
    if (!f || f.plate === null || !part || op?.kind !== 'nameplate') return
    const next = { ...op, around: Math.round(between(op.around + between(f.face, f.plate), 0)) }
    if (await store.tryOnly(next, part))
      await store.arrange({ lists: [{ id: part.id, operations: store.withOperation(part, next) }] })
  }

  async function turnBase(): Promise<void> {
    const f = assembly.facing
    const i = store.piece?.partList.findIndex((p) => p.steps.some((s) => s.op.kind === 'base')) ?? -1
    if (!f || i < 0) return
    store.partIndex = i
    await placing.spin([0, 0, 1], between(f.face, f.front))
  }

  /** The base grows about its own middle; its height and what stands on it stay. */
  async function widen(): Promise<void> {
    const part = base()
    const op = part?.steps.find((s) => s.op.kind === 'base')?.op
    const by = assembly.balance?.remedy?.widen
    if (!part || op?.kind !== 'base' || !by) return
    // A hundredth more than the least, so that the next look finds it done.
    const k = by * 1.01
    const next = { ...op, width: op.width * k, depth: op.depth * k }
    if (await store.tryOnly(next, part))
      await store.arrange({ lists: [{ id: part.id, operations: store.withOperation(part, next) }] })
  }
  return {
    relieve: ({ pair }) => join('relieve', pair),
    union: ({ pair }) => join('union', pair),
    pin: ({ joint }) => pin(joint),
    turnNameplate: turnPlate,
    turnBase,
    widenBase: { run: widen, unless: () => (base() ? null : text('composables.useCombineFixes.thereIsNoBase')) },
  }
}
