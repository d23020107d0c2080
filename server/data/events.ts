import { randomUUID } from 'node:crypto'
import type { Request, Response } from 'express'
import pg from 'pg'
import { database, databaseUrl } from './database'

/** What changed; browsers fetch it if they show it. Small by rule: a notification holds at most 8,000 bytes. */
export type Change =
  | { type: 'derivation'; key: string; status: string; progress: number }
  | { type: 'piece'; id: string }
  | { type: 'stock' }
  | { type: 'workshop' }
  | { type: 'sculpts' }
  | { type: 'devices' }
  /** prints of a piece */
  | { type: 'run'; id: string }
  /** clocks, wishes and the order of the schedule */
  | { type: 'timers' }
  | { type: 'calendar' }
  /** the air changed enough to matter */
  | { type: 'room' }

type Heard = Change | { type: 'hello' }
const heard = new Set<(change: Heard) => void>()
/** Told of every change: of this process's own before it is announced, of others' as they come. */
export const onChange = (l: (change: Heard) => void): void => void heard.add(l)

/** Who announces: its own changes come back to it, and were heard already. */
const SELF = randomUUID()

export async function announce(change: Change): Promise<void> {
  for (const l of heard) l(change)
  await database.query('SELECT pg_notify($1, $2)', { bind: ['undercut', JSON.stringify({ ...change, from: SELF })] })
}

const listeners = new Set<Response>()

const tell = (payload: string): void => {
  const change = JSON.parse(payload) as Heard & { from?: string }
  if (change.from !== SELF) for (const l of heard) l(change)
  for (const l of listeners) l.write(`data: ${payload}\n\n`)
}
// A connection may have missed changes: the browser refetches what it shows on "hello".
const HELLO = '{"type":"hello"}'
const AGAIN_MS = 1000

/** Passes every notification on to all connected browsers, and takes the thread up again whenever it breaks. */
export async function listen(): Promise<void> {
  const client = new pg.Client({ connectionString: databaseUrl })
  let lost = false
  const again = (): void => {
    if (lost) return
    lost = true
    client.removeAllListeners('notification')
    const retry = (): void => {
      listen().then(
        () => tell(HELLO),
        () => setTimeout(retry, AGAIN_MS),
      )
    }
    setTimeout(retry, AGAIN_MS)
  }
  client.on('notification', (n) => tell(n.payload ?? HELLO))
  await client.connect()
  await client.query('LISTEN undercut')
  client.on('error', again)
  client.on('end', again)
}

export function stream(req: Request, res: Response): void {
  res.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store', connection: 'keep-alive' })
  res.write(`data: ${HELLO}\n\n`)
  listeners.add(res)
  const beat = setInterval(() => res.write(': beat\n\n'), 20_000)
  req.on('close', () => {
    clearInterval(beat)
    listeners.delete(res)
  })
}
