import type { Check, DerivationRecord } from '../contract/derivations'
import type { CheckInput, CheckReport } from '../core/checks/registry'
import type { OperationInput } from '../contract/operations'
import type { PartRecord, PieceDetail } from '../contract/pieces'

/** Speaks to the server as the browser does. */
export const api = process.env.UNDERCUT_API ?? 'http://127.0.0.1:4870'

export async function call<T>(method: string, path: string, body?: unknown, raw?: Uint8Array): Promise<T> {
  const ask = (): Promise<Response> =>
    fetch(`${api}/api${path}`, {
      method,
      headers: { 'content-type': raw ? 'application/octet-stream' : 'application/json' },
      body: raw ? Buffer.from(raw) : body === undefined ? undefined : JSON.stringify(body),
    })
  // Sculpting takes long enough for a kept connection to be closed meanwhile; a fresh one is made then.
  const r = await ask().catch(ask)
  if (!r.ok) throw new Error(`${method} ${path}: ${r.status} ${await r.text()}`)
  return (r.status === 204 ? undefined : await r.json()) as T
}
const pause = (ms: number): Promise<void> => new Promise((r) => setTimeout(r, ms))

export async function settled(piece: string, ready: (p: PieceDetail) => boolean): Promise<PieceDetail> {
  for (let i = 0; i < 1200; i++) {
    const p = await call<PieceDetail>('GET', `/pieces/${piece}`)
    if (ready(p)) return p
    const failed = p.partList.flatMap((x) => x.steps).find((s) => s.derivation?.status === 'failed')
    if (failed) throw new Error(`${p.name}, ${failed.op.kind}: ${failed.derivation!.problem?.message}`)
    await pause(500)
  }
  throw new Error('The demo did not finish.')
}
export const derived = (p: PartRecord): boolean => p.steps.every((s) => s.derivation?.status === 'done')

export async function operate(piece: string, more: OperationInput[]): Promise<PieceDetail> {
  const before = (await call<PieceDetail>('GET', `/pieces/${piece}`)).partList[0]!
  await call('PUT', `/parts/${before.id}/operations`, {
    version: before.version,
    operations: [...before.steps.map((s) => s.op), ...more],
  })
  return settled(piece, (p) => derived(p.partList[0]!))
}

/** What a check of a mesh reports, once it is done. */
export const check = async <K extends Check['kind']>(
  mesh: string,
  asked: Extract<CheckInput, { kind: K }>,
): Promise<CheckReport<K>> => (await checked(mesh, asked)).report as CheckReport<K>
export async function checked(mesh: string, asked: CheckInput): Promise<DerivationRecord> {
  for (;;) {
    const d = await call<DerivationRecord>('POST', '/checks', { mesh, check: asked })
    if (d.status === 'done') return d
    if (d.status === 'failed') throw new Error(d.problem?.message)
    await pause(400)
  }
}
