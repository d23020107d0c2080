import type { Request, Response } from 'express'
import pg from 'pg'
import { database, databaseUrl } from './database'

/** What changed; browsers fetch it if they show it. Small by rule: a notification holds at most 8,000 bytes. */
export type Change =
  | { type: 'derivation'; key: string; status: string; progress: number }
  | { type: 'piece'; id: string }
  | { type: 'stock' } | { type: 'workshop' }

export async function announce(change: Change): Promise<void> {
  await database.query('SELECT pg_notify($1, $2)', { bind: ['undercut', JSON.stringify(change)] })
}

const listeners = new Set<Response>()

/** Passes every notification on to all connected browsers; reconnects when the database comes back. */
export async function listen(): Promise<void> {
  const client = new pg.Client({ connectionString: databaseUrl })
  client.on('notification', (n) => { for (const l of listeners) l.write(`data: ${n.payload}\n\n`) })
  client.on('error', () => { setTimeout(() => void listen().catch(() => undefined), 1000) })
  await client.connect()
  await client.query('LISTEN undercut')
}

export function stream(req: Request, res: Response): void {
  res.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store', connection: 'keep-alive' })
  // A new connection may have missed changes: the browser refetches what it shows on "hello".
  res.write('data: {"type":"hello"}\n\n')
  listeners.add(res)
  const beat = setInterval(() => res.write(': beat\n\n'), 20_000)
  req.on('close', () => { clearInterval(beat); listeners.delete(res) })
}
