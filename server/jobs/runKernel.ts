import type { Worker } from 'node:worker_threads'
import type { ByteSource } from '../../core/formats/zipDirectory'
import { putBytes } from '../data/blobs'
import { BlobWriter, ZipWriter } from '../data/blobWriter'
import { announce } from '../data/events'
import { Derivation } from '../data/models'
import type { KernelMessage, KernelResult, KernelTask } from './kernel'
import type { KernelThreads } from './kernelThreads'
import { ProgressWriter } from './progress'
import { message, type Message } from '../../core/words/message'
import type { Problem } from '../../core/answer'

export type Outcome =
  { type: 'done'; result: KernelResult; archive: string | null } | { type: 'problem'; problem: Problem }

export interface KernelRun {
  /** Ends it where it is; nothing once it has answered, for its thread may be at work for another by then. */
  cancel(): void
  outcome: Promise<Outcome>
}

/**
 * Runs one derivation in a thread that does nothing else meanwhile, and stores the files that it makes while they are being made.
 *
 * @param source the archive that the derivation reads by place; null where the inputs are whole
 * @param stopping whether the process is ending: a thread that ends without a result was then not cancelled by a user
 */
export function runKernel(
  threads: KernelThreads,
  row: Derivation,
  inputs: Uint8Array[],
  source: ByteSource | null,
  stopping: () => boolean,
): KernelRun {
  const thread = threads.take()
  const progress = new ProgressWriter(async (fraction) => {
    await Derivation.update(
      { progress: fraction, updatedAt: new Date() },
      { where: { key: row.key, status: 'running' } },
    )
    await announce({ type: 'derivation', key: row.key, status: 'running', progress: fraction })
  })
  let answered = false
  const giveBack = (held: number): void => {
    answered = true
    threads.giveBack(thread, held)
  }
  const outcome = outcomeOf(row.key, thread, giveBack, source, progress, stopping)
  const task: KernelTask = { kind: row.kind, params: row.params, inputs, archiveSize: source?.size ?? null }
  thread.postMessage(
    task,
    inputs.map((i) => i.buffer as ArrayBuffer),
  )
  // Progress must not be written over the end.
  return {
    cancel() {
      if (!answered) void thread.terminate()
    },
    outcome: outcome.finally(() => progress.end()),
  }
}

function outcomeOf(
  key: string,
  thread: Worker,
  giveBack: (held: number) => void,
  source: ByteSource | null,
  progress: ProgressWriter,
  stopping: () => boolean,
): Promise<Outcome> {
  return new Promise((resolve, reject) => {
    let archive: BlobWriter | null = null
    const fail = (error: Error): void => {
      archive?.abandon(error)
      reject(error)
    }
    thread.on('message', (m: KernelMessage) => {
      if (m.type === 'progress') progress.note(m.fraction)
      else if (m.type === 'file' || m.type === 'bytes') {
        if (!archive) {
          archive = m.type === 'file' ? new ZipWriter() : new BlobWriter()
          archive.stored.catch(fail)
        }
        if (m.type === 'bytes') archive.push(m.bytes)
        else (archive as ZipWriter).add(m.name, m.bytes)
        // Acknowledge on the next turn, so that chunks get to the database between files.
        setImmediate(() => thread.postMessage('stored'))
      } else if (m.type === 'read')
        source!.read(m.from, m.length).then(
          (bytes) => thread.postMessage({ id: m.id, bytes }),
          (e: Error) => {
            fail(e)
            void thread.terminate()
          },
        )
      else {
        giveBack(m.held)
        if (m.type === 'problem') {
          archive?.abandon(new Error('refused'))
          resolve(m)
        } else if (archive)
          archive.finish().then((a) => resolve({ type: 'done', result: m.result, archive: a.hash }), reject)
        else resolve({ type: 'done', result: m.result, archive: null })
      }
    })
    thread.on('error', (error) => {
      // Out of memory is an answer about this body on this machine, not a fault to retry.
      if ((error as NodeJS.ErrnoException).code === 'ERR_WORKER_OUT_OF_MEMORY') {
        archive?.abandon(error)
        resolve({
          type: 'problem',
          problem: {
            code: 'too-fine',
            message: message('problems.runKernel.tooLittleMemory'),
          },
        })
      } else {
        archive?.abandon(error)
        resolve({ type: 'problem', problem: faultOf(key, error) })
      }
    })
    // It was ended before it had answered.
    thread.on('exit', () => {
      archive?.abandon(new Error('cancelled'))
      if (stopping()) reject(new Error('The worker is stopping.'))
      else
        resolve({
          type: 'problem',
          problem: {
            code: 'cancelled',
            message: message('problems.runKernel.cancelled'),
          },
        })
    })
  })
}

/** A bug in a kernel, logged under the derivation's key: trying again would only meet it again. */
export function faultOf(key: string, error: unknown): { code: string; message: Message } {
  console.error(`[${key}]`, error)
  return {
    code: 'fault',
    message: message('problems.runKernel.fault', { id: key.slice(0, 8) }),
  }
}

/** Stores what a derivation made and gives the fields of its row. */
export async function stored(
  result: KernelResult,
  archive: string | null,
): Promise<{ meshHash: string | null; blobs: Record<string, string>; report: unknown }> {
  const blobs: Record<string, string> = archive ? { [result.streamed ?? 'zip']: archive } : {}
  for (const [name, bytes] of Object.entries(result.files ?? {})) blobs[name] = await putBytes(bytes)
  let report = result.report
  if (result.meshes) {
    const bodies: { name: string; mesh: string }[] = []
    for (const m of result.meshes) bodies.push({ name: m.name, mesh: await putBytes(m.bytes) })
    report = { ...(result.report as object), bodies }
  }
  return { meshHash: result.mesh ? await putBytes(result.mesh) : null, blobs, report }
}
