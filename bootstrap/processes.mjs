// The API process and the worker, watched: a worker that dies is started again.
import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { root } from './install.mjs'

export function launch(name, env, { restart = false, onLine = () => {}, quiet = false } = {}) {
  const state = { child: null, stopping: false, backoff: 300 }
  const up = () => {
    const child = spawn(process.execPath, ['--enable-source-maps', join(root, 'dist', 'node', `${name}.mjs`)], {
      cwd: root,
      env: { ...process.env, ...env },
      // The channel is never spoken on: it tells the child when whoever started it is gone, however that came.
      stdio: ['ignore', 'pipe', 'inherit', 'ipc'],
    })
    state.child = child
    const began = Date.now()
    child.stdout.setEncoding('utf8').on('data', (text) => {
      for (const line of text.split('\n'))
        if (line) {
          onLine(line)
          if (!quiet && !/ready$/.test(line)) console.log(line)
        }
    })
    child.on('exit', () => {
      state.child = null
      if (state.stopping || !restart) return
      state.backoff = Date.now() - began > 10_000 ? 300 : Math.min(10_000, state.backoff * 2)
      setTimeout(() => {
        if (!state.stopping) up()
      }, state.backoff)
    })
  }
  up()
  return {
    get pid() {
      return state.child?.pid
    },
    stop: () =>
      new Promise((done) => {
        state.stopping = true
        const { child } = state
        if (!child) {
          done()
          return
        }
        const force = setTimeout(() => child.kill('SIGKILL'), 8000)
        child.once('exit', () => {
          clearTimeout(force)
          done()
        })
        child.kill('SIGTERM')
      }),
  }
}

export async function until(url, seconds = 60) {
  for (let i = 0; i < seconds * 5; i++) {
    try {
      if ((await fetch(url)).ok) return true
    } catch {
      /* not up yet */
    }
    await new Promise((r) => setTimeout(r, 200))
  }
  return false
}
