import { expect, type Page, server } from './workshop'
import { meshFromBytes } from '../core/formats/meshBytes'
import type { Mesh } from '../core/mesh/mesh'
import { call, file } from './page'
import { say } from '../core/words/say'

interface Op {
  kind: string
  shift?: number[]
  around?: number
}
export interface Detail {
  partList: {
    id: string
    name: string
    meshHash: string
    sculptMesh: string
    steps: { op: Op; derivation: { status: string; report: unknown } | null }[]
  }[]
}
export const detail = (id: string): Promise<Detail> => call('GET', `/pieces/${id}`)
export async function meshOf(hash: string): Promise<Mesh> {
  const bytes = new Uint8Array(await (await fetch(`${server()}/api/blobs/${hash}`)).arrayBuffer())
  const r = meshFromBytes(bytes)
  if (!r.ok) throw new Error(say(r.problem.message))
  return r.value
}
/**
 * The piece once every step of every part is derived. Until then a part's mesh is that of its last finished step, and the
 * page may not have begun to show that something is under way: nothing is measured on such a mesh.
 */
export async function settled(id: string): Promise<Detail> {
  const states = async (): Promise<string[]> =>
    (await detail(id)).partList.flatMap((p) => p.steps.map((s) => s.derivation?.status ?? 'none'))
  await expect
    .poll(async () => (await states()).every((s) => s === 'done' || s === 'failed'), { timeout: 360_000 })
    .toBe(true)
  expect(await states()).not.toContain('failed')
  return detail(id)
}
export const partMesh = async (id: string, part: number): Promise<Mesh> =>
  meshOf((await settled(id)).partList[part]!.meshHash)
export const kinds = async (id: string, part: number): Promise<string> =>
  (await detail(id)).partList[part]!.steps.map((s) => s.op.kind).join()
export async function piece(page: Page, name: string, sculpt: string, bytes: Uint8Array): Promise<string> {
  const { id } = await call<{ id: string }>('POST', '/pieces', { name })
  await page.goto(`/pieces/${id}/import`)
  await page.getByLabel('Sculpt files').setInputFiles([file(sculpt, bytes)])
  await expect.poll(async () => (await detail(id)).partList.length).toBe(1)
  return id
}
