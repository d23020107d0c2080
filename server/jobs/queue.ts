import PgBoss from 'pg-boss'
import { QueryTypes } from 'sequelize'
import { database, databaseUrl } from '../data/database'

export const DERIVE = 'derive'
let boss: PgBoss | undefined

export async function queue(): Promise<PgBoss> {
  if (boss) return boss
  const b = new PgBoss({ connectionString: databaseUrl, schema: 'queue', max: 4 })
  b.on('error', (error) => console.error('queue:', error.message))
  await b.start()
  await b.createQueue(DERIVE)
  return (boss = b)
}

export async function stopQueue(): Promise<void> {
  await boss?.stop({ graceful: false, wait: true })
  boss = undefined
}

/** Slow ones run up to half an hour; a job whose worker died is sent again by `rescue` long before that. */
export async function sendDerive(key: string): Promise<void> {
  await (
    await queue()
  ).send(DERIVE, { key }, { retryLimit: 2, retryDelay: 2, retryBackoff: true, expireInSeconds: 1800 })
}

/** Whether a job for that derivation still lies in the queue, not taken by anyone. */
export async function isQueued(key: string): Promise<boolean> {
  const rows = await database.query(
    `SELECT 1 FROM queue.job WHERE name = $1 AND data->>'key' = $2 AND state IN ('created', 'retry') LIMIT 1`,
    { bind: [DERIVE, key], type: QueryTypes.SELECT },
  )
  return rows.length > 0
}
