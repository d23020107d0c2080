import pg from 'pg'
import { Op } from 'sequelize'
import { readBytes, sweepOrphans } from './data/blobs'
import { database, databaseUrl } from './data/database'
import { readable, settle, settleLeftovers } from './jobs/derivations'
import { Watcher } from './devices/watcher'
import { announce } from './data/events'
import { blobSource } from './jobs/layerRead'
import { DISK_FULL, isDiskFull } from './data/diskFull'
import { Derivation } from './data/models'
import { KernelThreads } from './jobs/kernelThreads'
import { faultOf, runKernel, stored, type KernelRun, type Outcome } from './jobs/runKernel'
import { AT_ONCE_QUEUE, DERIVE, isQueued, NEW_JOB, queue, sendDerive, stopQueue } from './jobs/queue'

/**
 * The worker process: takes derivations from the queue and runs each in a thread. While it runs one, it holds an
 * advisory lock on a connection of its own; when the process dies, PostgreSQL lets go of the lock, and any worker
 * that finds a "running" derivation without a lock sends it again. So a killed worker loses only the running step.
 */
const RESCUE_EVERY = 3000
const locks = new pg.Client({ connectionString: databaseUrl })
const threads = new KernelThreads()
const running = new Map<string, KernelRun>()
/** taken up, but its inputs are still being read; a cancel that comes now must not be lost */
const starting = new Set<string>(),
  cancelled = new Set<string>()
let stopping = false

const lockNumber = (key: string): string => BigInt.asIntN(64, BigInt(`0x${key.slice(0, 16)}`)).toString()
async function lock(key: string): Promise<boolean> {
  const r = await locks.query<{ ok: boolean }>('SELECT pg_try_advisory_lock($1) AS ok', [lockNumber(key)])
  return r.rows[0]!.ok
}
const unlock = async (key: string): Promise<void> => {
  await locks.query('SELECT pg_advisory_unlock($1)', [lockNumber(key)])
}

async function derive(key: string): Promise<void> {
  // Before anything is awaited: the lock is this session's own, so it does not keep two calls of one process apart.
  if (running.has(key) || starting.has(key)) return
  starting.add(key)
  try {
    const row = await Derivation.findByPk(key)
    if (!row || row.status === 'done' || row.status === 'failed' || !(await lock(key))) return
    try {
      await perform(row)
    } finally {
      await unlock(key)
    }
  } finally {
    running.delete(key)
    starting.delete(key)
    cancelled.delete(key)
  }
}

async function perform(row: Derivation): Promise<void> {
  await row.update({ status: 'running', progress: 0, updatedAt: new Date() })
  await announce({ type: 'derivation', key: row.key, status: 'running', progress: 0 })
  // An archive may be larger than memory: its bytes are asked for as they are needed.
  const source = row.kind === 'archive' ? await blobSource(row.inputs[0]!) : null
  const inputs = source ? [] : await Promise.all(row.inputs.map(readBytes))
  let outcome: Outcome
  try {
    const run = runKernel(threads, row, inputs, source, () => stopping)
    running.set(row.key, run)
    starting.delete(row.key)
    if (cancelled.delete(row.key)) run.cancel()
    outcome = await run.outcome
    if (outcome.type === 'done') {
      const made = await stored(outcome.result, outcome.archive)
      // Numbers that JSON does not know would be found by whoever reads the report, and computed again for ever.
      if (!readable(row.kind, JSON.parse(JSON.stringify(made.report))))
        outcome = { type: 'problem', problem: faultOf(row.key, new Error(`no report of ${row.kind} by its schema`)) }
      else
        row.set({ status: 'done', progress: 1, problem: null, updatedAt: new Date(), ...made } as Partial<Derivation>)
      if (outcome.type === 'done') await row.save()
    }
  } catch (e) {
    // A full disk is not mended by trying again: it is said, and what was stored of the result is gone already.
    if (!isDiskFull(e)) throw e
    outcome = { type: 'problem', problem: { code: 'disk-full', message: DISK_FULL } }
  }
  if (outcome.type === 'problem')
    await row.update({ status: 'failed', problem: outcome.problem, updatedAt: new Date() })
  await settle(row)
}

/** Sends derivations again whose worker has died: marked running, but nobody holds their lock. Settles what it left. */
async function rescue(): Promise<void> {
  for (const row of await Derivation.findAll({ where: { status: 'running' } })) {
    if (running.has(row.key) || starting.has(row.key) || !(await lock(row.key))) continue
    try {
      // It may have ended between the look and the lock.
      if ((await row.reload()).status !== 'running') continue
      await row.update({ status: 'waiting', progress: 0, updatedAt: new Date() })
      await announce({ type: 'derivation', key: row.key, status: 'waiting', progress: 0 })
    } finally {
      await unlock(row.key)
    }
    await sendDerive(row)
  }
  // Taken from the queue by a worker that died before it had said so: waiting, but in nobody's hands.
  const patience = new Date(Date.now() - RESCUE_EVERY * 2)
  for (const row of await Derivation.findAll({ where: { status: 'waiting', updatedAt: { [Op.lt]: patience } } })) {
    if (starting.has(row.key) || (await isQueued(row.key)) || !(await lock(row.key))) continue
    await unlock(row.key)
    await row.update({ updatedAt: new Date() })
    await sendDerive(row)
  }
  await settleLeftovers()
}

async function main(): Promise<void> {
  await database.authenticate()
  await locks.connect()
  // Without the lock's connection another worker may take the step over: end, and be started again.
  locks.on('error', (error) => {
    console.error('worker: lost the database:', error.message)
    process.exit(1)
  })
  const workers: { queue: string; id: string }[] = []
  const boss = await queue()
  locks.on('notification', (n) => {
    if (n.channel === NEW_JOB) {
      for (const w of workers) if (w.queue === n.payload) boss.notifyWorker(w.id)
      return
    }
    const key = n.payload ?? '',
      run = running.get(key)
    if (run) run.cancel()
    else if (starting.has(key)) cancelled.add(key)
  })
  for (const channel of ['undercut_cancel', NEW_JOB]) await locks.query(`LISTEN ${channel}`)
  const take = async (jobs: { data: { key: string } }[]): Promise<void> => {
    for (const job of jobs) await derive(job.data.key)
  }
  // Two at a time: one long slice must not keep a quick check waiting. And one for what somebody looks at.
  for (const name of [AT_ONCE_QUEUE, DERIVE, DERIVE])
    workers.push({
      queue: name,
      id: await boss.work<{ key: string }>(name, { pollingIntervalSeconds: 0.5, batchSize: 1 }, take),
    })
  await rescue()
  const timer = setInterval(() => {
    void rescue().catch((e: unknown) => console.error('rescue:', e))
  }, RESCUE_EVERY)
  const sweep = setInterval(() => {
    void sweepOrphans().catch(() => undefined)
  }, 3_600_000)
  const devices = new Watcher((process.env.UNDERCUT_DEVICES ?? '').split(' ').filter(Boolean))
  void devices.run().catch((e: unknown) => console.error('devices:', e))
  const stop = async (): Promise<void> => {
    if (stopping) return
    stopping = true
    await devices.stop()
    clearInterval(timer)
    clearInterval(sweep)
    for (const run of running.values()) run.cancel()
    await threads.end()
    await stopQueue().catch(() => undefined)
    await locks.end().catch(() => undefined)
    await database.close().catch(() => undefined)
    process.exit(0)
  }
  process.on('SIGTERM', () => void stop())
  process.on('disconnect', () => void stop())
  process.on('SIGINT', () => void stop())
  console.log('worker ready')
}

main().catch((error: unknown) => {
  console.error('The worker cannot start:', error)
  process.exit(1)
})
