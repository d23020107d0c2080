import { spawn, type ChildProcess } from 'node:child_process'
import { join } from 'node:path'

let filling: ChildProcess | null = null

/**
 * Starts the process that fills an empty workshop with the demo, through the API as a user would; a second call while it
 * runs starts none. What it had made when the server stopped is there; the start command goes on with it.
 */
export function fillWithDemo(): Promise<void> {
  if (filling) return Promise.resolve()
  const child = spawn(process.execPath, [join(import.meta.dirname, 'seed.mjs')], {
    env: { ...process.env, UNDERCUT_DEMO: '1', UNDERCUT_API: `http://127.0.0.1:${process.env.PORT ?? 4870}` },
    stdio: ['ignore', 'inherit', 'inherit'],
  })
  filling = child
  process.once('exit', () => child.kill())
  return new Promise((done, fail) => {
    child.once('spawn', done)
    child.once('error', fail)
    child.once('exit', () => (filling = null))
  })
}
