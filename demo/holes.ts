import { reportOf } from '../contract/derivations'
import type { PartRecord } from '../contract/pieces'
import { INSPECTION_STEP } from '../core/raster/layerGraph'
import { rinsedAway } from '../core/findings/trappedResin'
import type { DrainHole } from '../core/shape/drill'
import { call, check, derived, settled } from './talk'

async function addHole(part: PartRecord, { point, direction, diameter }: DrainHole): Promise<void> {
  await call('PUT', `/parts/${part.id}/operations`, {
    version: part.version,
    operations: part.steps.map(({ op }) =>
      op.kind === 'drill' ? { ...op, holes: [...op.holes, { point, direction, diameter }] } : op,
    ),
  })
}

/** As the artist would with the finding's own fix: a hole where something never leaves. */
export async function openWhatStays(piece: string, hollow: string, down: readonly number[]): Promise<void> {
  for (let round = 0; round < 3; round++) {
    const part = (await settled(piece, (p) => derived(p.partList[0]!))).partList[0]!
    const drilled = part.steps.find((s) => s.op.kind === 'drill')!.derivation!.meshHash!
    const { routine, stuck, cavity } = await check(drilled, { kind: 'trapped', down: [down[0]!, down[1]!, down[2]!] })
    const pool = stuck.find((p) => p.inside)
    if (!pool || routine.at(-1)!.left <= rinsedAway(cavity)) return
    const { instead } = await check(hollow, { kind: 'holeNear', point: pool.deepest, diameter: 3 })
    if (!instead) return
    await addHole(part, instead)
  }
}

/** As the artist would with the finding's own fix: opens cups that pull hard, one hole after the other. */
export async function ventCups(piece: string, hollow: string): Promise<void> {
  for (let round = 0; round < 3; round++) {
    const part = (await settled(piece, (p) => derived(p.partList[0]!))).partList[0]!
    const { cups } = await check(part.meshHash, { kind: 'layers', step: INSPECTION_STEP })
    const worst = cups[0]
    if (!worst || worst.force < 10) return
    const ops = part.steps.map((s) => s.op)
    const turn = ops.find((o) => o.kind === 'orient')!
    const supported = reportOf(part.steps.find((s) => s.op.kind === 'support')?.derivation, 'support')!
    const { site } = await check(hollow, {
      kind: 'ventSite',
      point: [worst.startX, worst.startY, (worst.firstLayer + 0.5) * INSPECTION_STEP],
      quaternion: turn.quaternion,
      shift: supported.support.shift,
      diameter: 3,
    })
    await addHole(part, site)
  }
}
