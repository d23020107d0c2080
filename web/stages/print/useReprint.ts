import { text, fixed } from '../../i18n'
import { reportOf } from '../../../contract/derivations'
import { ref } from 'vue'
import { operation, type OperationInput } from '../../../contract/operations'
import type { FixingRecord } from '../../../core/operations/fix'
import type { PartRecord } from '../../../contract/pieces'
import type { Mark, PlateRecord } from '../../../contract/runs'
import { brokenPiece, MARGINS, type PieceCut } from '../../../core/print/failure/brokenPiece'
import { rankOf } from '../../../core/operations/registry'
import { useDerivations } from '../../stores/derivations'
import { usePiece } from '../../stores/piece'
import { usePlating } from '../../stores/plating'
import { useRuns } from '../../stores/runs'
import { messageOf } from '../../messageOf'

/** Wire that holds a piece to its stump: no thicker than this share of the widest circle in the cut, nor than 2 mm. */
const PIN_SHARE = 0.45,
  PIN_MOST = 2
const WALL = 1.2

/** Prints again only what failed: whole parts, or the piece that broke off, with a hole for a wire. */
export function useReprint() {
  const piece = usePiece(),
    plating = usePlating(),
    runs = useRuns(),
    derivations = useDerivations()
  const busy = ref(''),
    fault = ref(''),
    done = ref(''),
    /** part that the piece has become */
    made = ref<string | null>(null)

  /** The next run holds the parts that failed on a plate, and nothing else. */
  async function failedOnly(plate: PlateRecord): Promise<void> {
    const copies: Record<string, number> = Object.fromEntries((piece.piece?.partList ?? []).map((p) => [p.id, 0]))
    for (const o of plate.outcomes) if (o.result === 'failed') copies[o.partId] = (copies[o.partId] ?? 0) + 1
    // Places that a hand chose belong to the plates of before.
    await plating.change({ copies, spares: {}, locks: {} })
    runs.reprintOf = plate.runId
    runs.judging = false
  }

  async function pieceOnly(mark: Mark, part: PartRecord, plate: PlateRecord): Promise<void> {
    busy.value = 'Cutting …'
    fault.value = done.value = ''
    made.value = null
    try {
      const op = (kind: string) => part.steps.find((s) => s.op.kind === kind)
      const orient = op('orient'),
        stood = reportOf(orient?.derivation, 'orient'),
        held = reportOf(op('support')?.derivation, 'support')
      if (orient?.op.kind !== 'orient' || !stood) throw new Error(text('print.useReprint.thePartNoLonger'))
      const mesh = piece.meshAfter('cut', part)
      if (!mesh) throw new Error(text('print.useReprint.anEarlierStepIs'))
      const shift = held?.support.shift ?? [0, 0, 0]
      const height = plate.layers * plate.layerHeight
      const lost = { point: mark.point, reach: mark.reach ?? ([mark.point[2], height] as [number, number]) }
      const way = { quaternion: orient.op.quaternion, offset: stood.offset, shift }
      const { cut, half, meshHash } = await parted(
        mesh,
        MARGINS.map((margin) => brokenPiece(lost, way, height, margin)),
      )
      const pin = await pinHole(mesh, cut)
      const pinned: OperationInput[] = pin && (await works(meshHash, pin)) ? [{ kind: 'fix', fixings: [pin] }] : []
      const kept = part.steps
        .map((s) => s.op as OperationInput)
        .filter((o) => o.kind !== 'orient' && o.kind !== 'support')
      const operations = [...kept, half, ...pinned].sort((a, b) => rankOf(a.kind) - rankOf(b.kind))
      const name = text('print.useReprint.pieceThatBrokeOff', { name: part.name }).slice(0, 120)
      const created = await piece.arrange({ create: [{ name, from: part.id, operations: operations as never }] })
      if (!created) return
      made.value = created[0] ?? null
      done.value =
        pinned.length > 0
          ? text('print.useReprint.isNowAPart', { name, width: fixed(pin!.width, 1) })
          : text('print.useReprint.isNowAPart2', { name })
    } catch (e) {
      fault.value = messageOf(e)
    } finally {
      busy.value = ''
    }
  }

  /** The first of the cuts, unless a later one takes so much less that the first must have taken what is sound as well. */
  async function parted(
    mesh: string,
    cuts: readonly PieceCut[],
  ): Promise<{ cut: PieceCut; half: OperationInput; meshHash: string }> {
    const tried: { cut: PieceCut; half: OperationInput; meshHash: string; volume: number }[] = []
    let refused: unknown = null
    for (const cut of cuts) {
      const half: OperationInput = { kind: 'cut', ...cut }
      try {
        const d = await derivations.tried(mesh, operation.parse(half))
        tried.push({ cut, half, meshHash: d.meshHash!, volume: d.report!.measures.volume })
      } catch (e) {
        refused = e
      }
    }
    const least = tried.at(-1),
      first = tried[0]
    if (!least || !first) throw refused
    return first.volume > 1.6 * least.volume ? least : first
  }

  /** A hole at the widest circle of the cut, into the piece. */
  async function pinHole(mesh: string, cut: PieceCut): Promise<FixingRecord | null> {
    const found = await derivations
      .reported(mesh, { kind: 'keySites', point: cut.point, normal: cut.normal, wall: WALL, clearance: 0.05, draft: 3 })
      .catch(() => null)
    const sites = found?.sites ?? []
    const near = (s: (typeof sites)[number]): number => Math.hypot(...s.point.map((v, k) => v - cut.piece[k]!))
    const site = [...sites].sort((a, b) => near(a) - near(b))[0]
    if (!site) return null
    const width = Math.round(10 * Math.min(PIN_MOST, site.width * PIN_SHARE)) / 10
    if (width < 0.6) return null
    return {
      ...site,
      shape: 'pin',
      role: cut.keep === 'below' ? 'plug' : 'socket',
      width,
      length: 4 * width,
      draft: 0,
      clearance: 0.05,
    }
  }
  const works = (mesh: string, pin: FixingRecord): Promise<boolean> =>
    derivations
      .tried(mesh, { kind: 'fix', fixings: [pin] })
      .then(() => true)
      .catch(() => false)
  return { failedOnly, pieceOnly, busy, fault, done, made }
}
