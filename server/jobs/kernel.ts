import { getHeapStatistics } from 'node:v8'
import { parentPort } from 'node:worker_threads'
import { bad, good, type Answer, type Problem } from '../../core/answer'
import type { CheckDefinition, CheckHost, CheckResult } from '../../core/checks/check'
import { checkOf } from '../../core/checks/registry'
import { meshFromBytes, meshToBytes } from '../../core/formats/meshBytes'
import type { ByteSource } from '../../core/formats/zipDirectory'
import type { Mesh } from '../../core/mesh/mesh'
import { applyOperation } from '../../core/operations/apply'
import { operationOf, type Operation } from '../../core/operations/registry'
import { sliceAhead } from './sliceAhead'
import { message } from '../../core/words/message'

/**
 * Runs derivations in a worker thread, one after the other: bytes in, bytes out, no database. Progress and, for layer
 * archives, the files themselves are posted as they come, so that the archive never stands in memory whole.
 */
export interface KernelTask {
  kind: string
  params: Record<string, unknown>
  inputs: Uint8Array[]
  /** bytes of the archive that is read by place; null where the inputs are whole */
  archiveSize: number | null
}
export type KernelMessage =
  | { type: 'progress'; fraction: number }
  | { type: 'file'; name: string; bytes: Uint8Array }
  /** the next bytes of the one file that is made */
  | { type: 'bytes'; bytes: Uint8Array }
  /** some bytes of an archive that is too large to be handed over whole */
  | { type: 'read'; id: number; from: number; length: number }
  /** with the bytes that the thread holds on to */
  | { type: 'done'; result: KernelResult; held: number }
  | { type: 'problem'; problem: Problem; held: number }
export interface KernelResult {
  mesh?: Uint8Array
  meshes?: { name: string; bytes: Uint8Array }[]
  files?: Record<string, Uint8Array>
  /** name of the file that was posted as it was made; of many, the archive is named `zip` */
  streamed?: string
  report: unknown
}

const port = parentPort!
const post = (m: KernelMessage): void => port.postMessage(m)
/** ms between two reports of progress */
const REPORT_EVERY = 200
let lastReport = 0
const progress = (fraction: number): void => {
  const now = Date.now()
  if (now - lastReport > REPORT_EVERY) {
    lastReport = now
    post({ type: 'progress', fraction })
  }
}

/** Files posted but not yet stored; the slicer waits when the database is behind. */
const MAX_PENDING = 48
let pending = 0,
  resume: (() => void) | null = null
const reads = new Map<number, (bytes: Uint8Array) => void>()
port.on('message', (m: KernelTask | 'stored' | { id: number; bytes: Uint8Array }) => {
  if (m === 'stored') {
    pending--
    if (resume && pending < MAX_PENDING / 2) {
      resume()
      resume = null
    }
  } else if ('id' in m) {
    reads.get(m.id)?.(m.bytes)
    reads.delete(m.id)
  } else void answer(m)
})
async function postBytes(m: Extract<KernelMessage, { bytes: Uint8Array }>): Promise<void> {
  // Who made it keeps nothing of it, so that its buffer is moved without a copy, unless it is part of a larger one.
  const { buffer, byteLength } = m.bytes
  port.postMessage(m, buffer.byteLength === byteLength ? [buffer as ArrayBuffer] : [])
  if (++pending >= MAX_PENDING)
    await new Promise<void>((r) => {
      resume = r
    })
}

/** The archive that this derivation is of, read by its place through the worker. */
function archiveSource(size: number): ByteSource {
  let last = 0
  const read = (from: number, length: number): Promise<Uint8Array> =>
    new Promise((done) => {
      reads.set(++last, done)
      post({ type: 'read', id: last, from, length })
    })
  return { size, read }
}

function hostOf({ kind, inputs, archiveSize }: KernelTask): CheckHost {
  return {
    progress,
    putFile: (name, bytes) => postBytes({ type: 'file', name, bytes }),
    putBytes: (bytes) => postBytes({ type: 'bytes', bytes }),
    file: kind === 'import' ? (inputs[0] ?? null) : null,
    archive: archiveSize === null ? null : archiveSource(archiveSize),
    layerThreads: sliceAhead,
  }
}

async function perform(task: KernelTask): Promise<Answer<KernelResult>> {
  const { kind, params, inputs } = task
  const host = hostOf(task)
  const meshes: Mesh[] = []
  if (!host.file && !host.archive)
    for (const bytes of inputs) {
      const opened = meshFromBytes(bytes)
      if (!opened.ok) return opened
      meshes.push(opened.value)
    }
  if (operationOf(kind)) {
    const [mesh, ...others] = meshes as [Mesh, ...Mesh[]]
    const r = await applyOperation(mesh, { kind, ...params } as Operation, progress, others)
    return r.ok ? good({ mesh: meshToBytes(r.value.mesh), report: r.value.report }) : r
  }
  const check = checkOf(kind) as unknown as CheckDefinition | null
  if (!check) return bad('unknown-check', message('problems.kernel.thisCheckIsNotKnown'))
  const r = await check.run({ meshes: meshes as [Mesh, ...Mesh[]], params: { kind, ...params }, host })
  return r.ok ? good(asBytes(r.value)) : r
}

const asBytes = ({ mesh, meshes, files, streamed, report }: CheckResult<unknown>): KernelResult => ({
  report,
  ...(mesh ? { mesh: meshToBytes(mesh) } : {}),
  ...(meshes ? { meshes: meshes.map((m) => ({ name: m.name, bytes: meshToBytes(m.mesh) })) } : {}),
  ...(files ? { files } : {}),
  ...(streamed ? { streamed } : {}),
})

/** What it throws is a fault of the program: it ends the thread, and whoever runs it says so. */
async function answer(task: KernelTask): Promise<void> {
  lastReport = 0
  const a = await perform(task)
  const { used_heap_size, external_memory } = getHeapStatistics()
  const held = used_heap_size + external_memory
  post(a.ok ? { type: 'done', result: a.value, held } : { type: 'problem', problem: a.problem, held })
}
