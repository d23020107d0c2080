import { spawn, type ChildProcess } from 'node:child_process'
import {
  chmodSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs'
import { createHash } from 'node:crypto'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, afterEach, describe, expect, it } from 'vitest'

/** The real start command on a data folder of its own: stopped, killed, disturbed, and started again. */
const root = join(import.meta.dirname, '..')
const folder = mkdtempSync(join(tmpdir(), 'undercut-start-'))
chmodSync(folder, 0o755)
let data = join(folder, 'data')
const running = new Set<ChildProcess>()
/** 0 takes any that is free, so that two runs on one machine do not meet. */
const port = 0

interface Started {
  process: ChildProcess
  address: string
  ended: Promise<number | null>
}
/** Starts it and waits for the address, or for its end and what it said. */
function start(port: number, simulated = false): Promise<Started | { said: string; code: number | null }> {
  const child = spawn(process.execPath, [join(root, 'bootstrap', 'start.mjs')], {
    env: {
      ...process.env,
      UNDERCUT_DATA: data,
      UNDERCUT_DEMO: '0',
      PORT: String(port),
      ...(simulated ? {} : { UNDERCUT_SIMULATED: '0' }),
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  running.add(child)
  const ended = new Promise<number | null>((done) => child.once('exit', (code) => done(code)))
  void ended.then(() => running.delete(child))
  return new Promise((done) => {
    let said = ''
    const hear = (text: string): void => {
      said += text
      const address = /open at (http:\S+)/.exec(said)?.[1]
      if (address) done({ process: child, address, ended })
    }
    child.stdout.setEncoding('utf8').on('data', hear)
    child.stderr.setEncoding('utf8').on('data', hear)
    void ended.then((code) => done({ said, code }))
  })
}
/** @param simulated with the devices to try things out on, each a process of its own */
async function open(port: number, simulated = false): Promise<Started> {
  const s = await start(port, simulated)
  if (!('address' in s)) throw new Error(`It ended with ${s.code}: ${s.said}`)
  return s
}
async function stop(s: Started): Promise<number | null> {
  s.process.kill('SIGINT')
  return s.ended
}
const names = async (s: Started): Promise<string[]> =>
  ((await (await fetch(`${s.address}/api/pieces`)).json()) as { name: string }[]).map((p) => p.name)
const make = (s: Started, name: string): Promise<Response> =>
  fetch(`${s.address}/api/pieces`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ name }),
  })
/** Whether anything answers at that address. */
const answers = (address: string): Promise<boolean> =>
  fetch(`${address}/api/health`).then(
    () => true,
    () => false,
  )
/** Pid of a database server left in the folder. */
const servers = (): string[] =>
  existsSync(join(data, 'data', 'postmaster.pid'))
    ? [readFileSync(join(data, 'data', 'postmaster.pid'), 'utf8').split('\n')[0]!]
    : []

describe('npm start', () => {
  afterEach(() => {
    for (const child of running) child.kill('SIGKILL')
  })
  afterAll(() => rmSync(folder, { recursive: true, force: true }))

  it('opens, keeps a second start out, stops all of it, and finds its data again', async () => {
    const first = await open(port, true)
    expect((await make(first, 'Kept')).status).toBe(200)
    const second = await start(0)
    expect(second).toMatchObject({ code: 1, said: expect.stringContaining(`running already: ${first.address}`) })
    expect(await stop(first)).toBe(0)
    expect(await answers(first.address)).toBe(false)
    expect(servers()).toEqual([])
    expect(existsSync(join(data, 'run.json'))).toBe(false)
    const again = await open(port)
    expect(await names(again)).toEqual(['Kept'])
    expect(await stop(again)).toBe(0)
  })
  it('recovers from being killed: nothing of it is left over, and the next start finds all there was', async () => {
    const first = await open(port)
    await make(first, 'Before the crash')
    first.process.kill('SIGKILL')
    await first.ended
    // The API goes with whoever started it; the database cluster outlives it, and its pid file lies about.
    for (let i = 0; i < 50 && (await answers(first.address)); i++) await new Promise((r) => setTimeout(r, 200))
    expect(await answers(first.address)).toBe(false)
    expect(existsSync(join(data, 'run.json'))).toBe(true)
    const again = await open(port)
    expect(await names(again)).toContain('Before the crash')
    expect(await stop(again)).toBe(0)
  })
  it('takes another port when the usual one is in use, and a foreign pid in its file for stale', async () => {
    const squatter = createServer()
    await new Promise<void>((done) => squatter.listen(0, '127.0.0.1', done))
    const { port: squatted } = squatter.address() as { port: number },
      taken = `http://127.0.0.1:${squatted}`
    writeFileSync(join(data, 'run.json'), JSON.stringify({ pid: 1, address: taken }))
    const s = await open(squatted)
    expect(s.address).not.toBe(taken)
    expect((await names(s)).length).toBeGreaterThan(0)
    expect(await stop(s)).toBe(0)
    await new Promise((done) => squatter.close(done))
  })
  it('makes a cluster again that was interrupted while being made, and puts aside one it has no key to', async () => {
    // Interrupted: the folder is beside its place, the place itself is empty.
    renameSync(join(data, 'data'), join(data, 'data.new'))
    rmSync(join(data, 'data.new', 'PG_VERSION'))
    const s = await open(port)
    expect(await names(s)).toEqual([])
    await make(s, 'New beginning')
    expect(await stop(s)).toBe(0)
    rmSync(join(data, 'secret'))
    mkdirSync(join(data, 'data.new'), { recursive: true })
    const t = await open(port)
    expect(await names(t)).toEqual([])
    expect(await stop(t)).toBe(0)
    expect(readdirSync(data).filter((n) => n.startsWith('data.orphan'))).toHaveLength(1)
  })
  it.runIf(process.getuid?.() === 0)(
    'keeps its cluster where the database user can go when the home is private',
    async () => {
      data = join(folder, 'private', 'data')
      mkdirSync(data, { recursive: true })
      chmodSync(join(folder, 'private'), 0o700)
      const s = await open(port)
      await make(s, 'Behind a closed door')
      expect(await stop(s)).toBe(0)
      const elsewhere = join('/var/lib/undercut', createHash('sha256').update(data).digest('hex').slice(0, 12))
      expect(existsSync(join(elsewhere, 'data', 'PG_VERSION'))).toBe(true)
      expect(existsSync(join(data, 'data'))).toBe(false)
      const again = await open(port)
      expect(await names(again)).toEqual(['Behind a closed door'])
      expect(await stop(again)).toBe(0)
      rmSync(elsewhere, { recursive: true })
    },
  )
})
