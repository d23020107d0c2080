import { parentPort, workerData } from 'node:worker_threads'
import type { Answer } from '../core/answer'
import { bad, good } from '../core/answer'
import { manifest } from '../core/formats/manifest'
import { meshFromBytes, meshToBytes } from '../core/formats/meshBytes'
import { writeObj } from '../core/formats/obj'
import { readSculpt } from '../core/formats/readSculpt'
import { writeStl } from '../core/formats/stl'
import { write3mf } from '../core/formats/threemf'
import { thinness } from '../core/fit/thinness'
import { health } from '../core/mesh/health'
import { measure } from '../core/mesh/measure'
import { bounds, boxDiagonal, concatenate, keepFaces, type Mesh } from '../core/mesh/mesh'
import { refine } from '../core/mesh/refine'
import { simplify } from '../core/mesh/simplify'
import { surfaceMaps } from '../core/paint/surfaceMaps'
import { scoreOrientations } from '../core/print/orientation'
import { inspectLayers, slice } from '../core/print/slice'
import { drainSites } from '../core/shape/drainSites'
import { applyOperation, OPERATION_VERSION, type Operation } from '../core/shape/operations'
import type { Check } from '../contract/derivations'

/**
 * Runs one derivation in a worker thread: bytes in, bytes out, no database. Progress and, for layer archives,
 * the files themselves are posted as they come, so that the archive never stands in memory whole.
 */
export interface KernelTask { kind: string; params: Record<string, unknown>; inputs: Uint8Array[] }
export type KernelMessage =
  | { type: 'progress'; fraction: number }
  | { type: 'file'; name: string; bytes: Uint8Array }
  | { type: 'done'; result: KernelResult }
  | { type: 'problem'; problem: { code: string; message: string } }
export interface KernelResult { mesh?: Uint8Array; meshes?: { name: string; bytes: Uint8Array }[]; files?: Record<string, Uint8Array>; report: unknown }

const port = parentPort!
const post = (m: KernelMessage): void => port.postMessage(m)
let lastReport = 0
const report = (fraction: number): void => {
  const now = Date.now()
  if (now - lastReport > 200) { lastReport = now; post({ type: 'progress', fraction }) }
}

/** Files posted but not yet stored; the slicer waits when the database is behind. */
const MOST_PENDING = 48
let pending = 0, resume: (() => void) | null = null
port.on('message', () => { pending--; if (resume && pending < MOST_PENDING / 2) { resume(); resume = null } })
async function postFile(name: string, bytes: Uint8Array): Promise<void> {
  // The encoder keeps nothing of a finished layer, so its buffer is handed over without a copy.
  port.postMessage({ type: 'file', name, bytes } satisfies KernelMessage, [bytes.buffer as ArrayBuffer])
  if (++pending >= MOST_PENDING) await new Promise<void>((r) => { resume = r })
}

async function perform({ kind, params, inputs }: KernelTask): Promise<Answer<KernelResult>> {
  if (kind === 'import') {
    const bodies = readSculpt(params.fileName as string, inputs[0]!)
    if (!bodies.ok) return bodies
    return good({ meshes: bodies.value.map((b) => ({ name: b.name, bytes: meshToBytes(b.mesh) })), report: {} })
  }
  const opened = meshFromBytes(inputs[0]!)
  if (!opened.ok) return opened
  const mesh = opened.value
  if (kind in OPERATION_VERSION) {
    const r = await applyOperation(mesh, { kind, ...params } as Operation, report)
    return r.ok ? good({ mesh: meshToBytes(r.value.mesh), report: r.value.report }) : r
  }
  return performCheck({ kind, ...params } as Check, mesh)
}

async function performCheck(check: Check, mesh: Mesh): Promise<Answer<KernelResult>> {
  switch (check.kind) {
    case 'health': return good({ report: { ...health(mesh), measures: measure(mesh) } })
    case 'display': return good(await display(mesh, check.faces, check.bodyFaces))
    case 'drainSites': return good({ report: { sites: drainSites(mesh, check, report) } })
    case 'orientations': {
      const lean = await simplify(mesh, 30_000, 0.4)
      return good({ report: { scores: scoreOrientations(lean, check, report).slice(0, 60) } })
    }
    case 'thinness': return good({ report: thinness(mesh, check.limit, report) })
    case 'layers': return good({ report: inspectLayers(mesh, check.step, report) })
    case 'slice': {
      const r = await slice(mesh, check.printer, check.resin, postFile, report)
      if (!r.ok) return r
      const text = new TextEncoder().encode(JSON.stringify(manifest(check.printer, check.resin, r.value), null, 1))
      await postFile('manifest.json', text)
      return good({ report: r.value })
    }
    case 'export': {
      const bytes = check.format === 'stl' ? writeStl(mesh) : check.format === 'obj' ? writeObj(mesh, check.name) : write3mf(mesh)
      return good({ files: { [check.format]: bytes }, report: { bytes: bytes.length } })
    }
    case 'surfaceMaps': {
      const maps = surfaceMaps(mesh, check, report)
      return good({ files: { maps: new Uint8Array(maps.data.buffer) }, report: { vertices: maps.vertices } })
    }
  }
  return bad('unknown-check', 'This check is not known to this version of Undercut.')
}

/** Not too many faces to draw, and none too large to brush or to map per vertex. */
async function fitForScreen(mesh: Mesh, faces: number): Promise<Mesh> {
  return refine(await simplify(mesh, faces, 1), boxDiagonal(bounds(mesh)) / 80, faces)
}

/** A lighter copy for the screen. Supports are simplified apart from the body, so that they can be told apart. */
async function display(mesh: Mesh, faces: number, bodyFaces: number | undefined): Promise<KernelResult> {
  const total = mesh.triangles.length / 3
  if (bodyFaces === undefined || bodyFaces >= total) {
    const lean = await fitForScreen(mesh, faces)
    return { mesh: meshToBytes(lean), report: { faces: lean.triangles.length / 3, bodyFaces: lean.triangles.length / 3 } }
  }
  const body = keepFaces(mesh, Uint8Array.from({ length: total }, (_, f) => (f < bodyFaces ? 1 : 0)))
  const rest = keepFaces(mesh, Uint8Array.from({ length: total }, (_, f) => (f < bodyFaces ? 0 : 1)))
  const lean = await fitForScreen(body, faces)
  return { mesh: meshToBytes(concatenate([lean, rest])), report: { faces: (lean.triangles.length + rest.triangles.length) / 3, bodyFaces: lean.triangles.length / 3 } }
}

const answer = await perform(workerData as KernelTask)
if (answer.ok) post({ type: 'done', result: answer.value })
else post({ type: 'problem', problem: answer.problem })
port.close()
