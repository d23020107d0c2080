import { makeApp } from './http/app'
import { database } from './data/database'
import { listen } from './data/events'
import { migrate } from './data/migrate'
import { queue, stopQueue } from './jobs/queue'

async function main(): Promise<void> {
  await database.authenticate()
  await migrate()
  await queue()
  await listen()
  const server = makeApp().listen(Number(process.env.PORT ?? 4870), process.env.HOST ?? '127.0.0.1', () =>
    console.log('api ready'),
  )
  // Uploads may take long, and a client that computes between two requests finds its connection still there.
  server.requestTimeout = 0
  server.keepAliveTimeout = 120_000
  const stop = async (): Promise<void> => {
    server.closeAllConnections()
    server.close()
    await stopQueue().catch(() => undefined)
    await database.close().catch(() => undefined)
    process.exit(0)
  }
  process.on('SIGTERM', () => void stop())
  process.on('SIGINT', () => void stop())
  process.on('disconnect', () => void stop())
}

main().catch((error: unknown) => {
  console.error('The server cannot start:', error)
  process.exit(1)
})
