import PgBoss from 'pg-boss'
import { QueryTypes } from 'sequelize'
import { operationOf } from '../../core/operations/registry'
import type { Derivation } from '../data/models'
import { AT_ONCE, urgencyOf } from './urgency'
import { database, databaseUrl } from '../data/database'

/** Jobs of any kind, and those that somebody waits for with his eyes on the sculpt. */
export const DERIVE = 'derive',
  AT_ONCE_QUEUE = 'derive-at-once'
/** The channel on which it is said that a job is there: nobody waits for the next look into the queue. */
export const NEW_JOB = 'undercut_job'
let boss: PgBoss | undefined

export async function queue(): Promise<PgBoss> {
  if (boss) return boss
  const b = new PgBoss({ connectionString: databaseUrl, schema: 'queue', max: 4 })
  b.on('error', (error) => console.error('queue:', error.message))
  await b.start()
  for (const name of [DERIVE, AT_ONCE_QUEUE]) await b.createQueue(name)
  return (boss = b)
}

export async function stopQueue(): Promise<void> {
  await boss?.stop({ graceful: false, wait: true })
  boss = undefined
}

/** Slow ones run up to half an hour; a job whose worker died is sent again by `rescue` long before that. */
export async function sendDerive({ key, kind }: Pick<Derivation, 'key' | 'kind'>): Promise<void> {
  const priority = urgencyOf(kind, operationOf(kind) !== null)
  const name = priority >= AT_ONCE ? AT_ONCE_QUEUE : DERIVE
  const boss = await queue()
  await boss.send(name, { key }, { priority, retryLimit: 2, retryDelay: 2, retryBackoff: true, expireInSeconds: 1800 })
  await database.query('SELECT pg_notify($1, $2)', { bind: [NEW_JOB, name] })
}

/** Whether a job for that derivation still lies in the queue, not taken by anyone. */
export async function isQueued(key: string): Promise<boolean> {
  const rows = await database.query(
    `SELECT 1 FROM queue.job WHERE name = ANY($1) AND data->>'key' = $2 AND state IN ('created', 'retry') LIMIT 1`,
    { bind: [[DERIVE, AT_ONCE_QUEUE], key], type: QueryTypes.SELECT },
  )
  return rows.length > 0
}
