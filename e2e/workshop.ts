import { spawn, type ChildProcess } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { test as base } from '@playwright/test'

export { expect, type Locator, type Page } from '@playwright/test'

/** What every workshop of the browser tests has in stock. */
const STOCK: [string, object][] = [
  [
    'printer',
    { name: 'Test printer', pixelsX: 1600, pixelsY: 1200, pitchX: 0.06, pitchY: 0.06, height: 120, layerHeight: 0.1 },
  ],
  ['resin', { name: 'Test resin' }],
  ...(
    [
      ['White', '#f3f1ea', 0.85],
      ['Red', '#b0282a', 0.6],
      ['Ochre', '#c08a2d', 0.7],
      ['Blue', '#274a78', 0.74],
    ] as const
  ).map(([name, hex, opacity]): [string, object] => ['paint', { name, hex, opacity, kind: 'acrylic' }]),
  ['paint', { name: 'Dark wash', hex: '#2c1c12', opacity: 0.2, kind: 'wash' }],
]

let running: string | null = null
/** Address of the server that this file's tests run on. */
export function server(): string {
  if (!running) throw new Error('The server is started before the first test, not while files are read.')
  return running
}

/** Runs the real start command on an empty workshop, and waits until it is open. */
export function start(folder: string): Promise<{ address: string; process: ChildProcess }> {
  const child = spawn(process.execPath, [join(import.meta.dirname, '..', 'bootstrap', 'start.mjs')], {
    env: {
      ...process.env,
      PORT: '0',
      UNDERCUT_DEMO: '0',
      UNDERCUT_SIMULATED: join(import.meta.dirname, 'fleet.json'),
      UNDERCUT_DATA: folder,
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  return new Promise((done, fail) => {
    let said = ''
    const listen = (text: string): void => {
      said += text
      const address = /open at (http:\S+)/.exec(said)?.[1]
      if (address) done({ address, process: child })
    }
    child.stdout.setEncoding('utf8').on('data', listen)
    child.stderr.setEncoding('utf8').on('data', (text: string) => {
      listen(text)
      process.stderr.write(text)
    })
    child.on('exit', (code) => fail(new Error(`The start command ended with ${code}: ${said}`)))
  })
}

/** A server for each worker of the test runner, so that files run side by side and none waits for another's jobs. */
export const test = base.extend<object, { workshop: string }>({
  workshop: [
    async ({}, use) => {
      const work = process.env.UNDERCUT_WORK ?? tmpdir()
      mkdirSync(work, { recursive: true })
      const folder = mkdtempSync(join(work, 'workshop-'))
      const { address, process: child } = await start(folder)
      running = address
      for (const [kind, data] of STOCK)
        await fetch(`${address}/api/stock/${kind}`, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify(data),
        })
      await use(address)
      running = null
      const ended = new Promise((r) => child.once('exit', r))
      child.kill('SIGINT')
      await ended
      rmSync(folder, { recursive: true, force: true })
    },
    { scope: 'worker', auto: true, timeout: 720_000 },
  ],
  baseURL: async ({ workshop }, use) => use(workshop),
})
