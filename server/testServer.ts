/* eslint-disable @typescript-eslint/no-explicit-any -- tests read replies loosely; their schemas are the server's */
import { spawn, type ChildProcess } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { randomBytes } from 'node:crypto'
import { fileURLToPath } from 'node:url'
import pg from 'pg'

const node = (name: string): string => fileURLToPath(new URL(`../dist/node/${name}.mjs`, import.meta.url))

const freePort = (): Promise<number> =>
  new Promise((done) => {
    const s = createServer()
    s.listen(0, '127.0.0.1', () => {
      const { port } = s.address() as { port: number }
      s.close(() => done(port))
    })
  })

/** Asks until there is an answer. */
export async function until<T>(ask: () => Promise<T | null | undefined | false>, seconds = 120): Promise<T> {
  for (let i = 0; i < seconds * 5; i++) {
    const v = await ask()
    if (v) return v
    await new Promise((r) => setTimeout(r, 200))
  }
  throw new Error('It did not come about in time.')
}

/** The built API and worker processes on a port and an empty database of their own. */
export class TestServer {
  private readonly processes = new Set<ChildProcess>()
  private api!: ChildProcess
  private worker!: ChildProcess
  readonly db: pg.Client

  private constructor(
    readonly port: number,
    private readonly admin: pg.Client,
    private readonly name: string,
    private readonly url: string,
  ) {
    this.db = new pg.Client({ connectionString: url })
  }

  /** @throws Error without a cluster in which databases may be made; `npm test` names one in DATABASE_URL */
  static async start(): Promise<TestServer> {
    const server = process.env.DATABASE_URL
    if (!server)
      throw new Error('There is no database for the server tests. Run them through npm test, or set DATABASE_URL.')
    const admin = new pg.Client({ connectionString: server })
    await admin.connect()
    const name = `t${randomBytes(6).toString('hex')}`
    await admin.query(`CREATE DATABASE ${name}`)
    const url = new URL(server)
    url.pathname = `/${name}`
    const made = new TestServer(await freePort(), admin, name, url.href)
    await made.db.connect()
    await made.startApi()
    await made.startWorker()
    return made
  }

  /** Starts a simulated device; gives its address and its process. */
  async device(config: Record<string, unknown>, port?: number): Promise<{ address: string; child: ChildProcess }> {
    const at = port ?? (await freePort())
    const told = JSON.stringify({ speedUp: 1e5, seed: 1, ...config, port: at })
    const child = await this.up('simulated', 'device ready', { UNDERCUT_SIMULATED_DEVICE: told })
    return { address: `http://127.0.0.1:${at}`, child }
  }

  /** Starts a process and waits until it says that it is ready. */
  async up(name: string, ready: string, env: Record<string, string> = {}): Promise<ChildProcess> {
    const child = spawn(process.execPath, [node(name)], {
      env: { ...process.env, DATABASE_URL: this.url, PORT: String(this.port), ...env },
      stdio: ['ignore', 'pipe', 'inherit'],
    })
    this.processes.add(child)
    await new Promise<void>((done, fail) => {
      child.stdout.setEncoding('utf8').on('data', (t: string) => {
        if (t.includes(ready)) done()
      })
      child.once('exit', (code) => fail(new Error(`${name} ended with ${code}`)))
    })
    return child
  }
  async startApi(env: Record<string, string> = {}): Promise<void> {
    this.api = await this.up('server', 'api ready', env)
  }
  /** The API once more, by another clock. @param at ISO moment at which it starts; null: the machine's */
  async restartAt(at: string | null): Promise<void> {
    await this.killApi()
    await this.startApi(at === null ? {} : { UNDERCUT_CLOCK: at })
  }
  async startWorker(): Promise<void> {
    this.worker = await this.up('worker', 'worker ready')
  }
  /** Most memory that the API and the worker have held so far, bytes. */
  peakMemory(): number[] {
    return [this.api, this.worker].map(({ pid }) => {
      const peak = /VmHWM:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))
      return Number(peak?.[1] ?? NaN) * 1024
    })
  }
  /** As a power cut would. */
  async killApi(): Promise<void> {
    await this.kill(this.api)
  }
  async killWorker(): Promise<void> {
    await this.kill(this.worker)
  }
  async kill(child: ChildProcess): Promise<void> {
    this.processes.delete(child)
    if (child.exitCode !== null || child.signalCode !== null) return
    const gone = new Promise((done) => child.once('exit', done))
    child.kill('SIGKILL')
    await gone
  }
  async stop(): Promise<void> {
    for (const child of [...this.processes]) await this.kill(child)
    await this.db.end()
    await this.admin.query(`DROP DATABASE ${this.name} WITH (FORCE)`)
    await this.admin.end()
  }

  async call(method: string, path: string, body?: unknown): Promise<{ status: number; body: any }> {
    const raw = body instanceof Uint8Array
    const r = await fetch(`http://127.0.0.1:${this.port}/api${path}`, {
      method,
      headers: { 'content-type': raw ? 'application/octet-stream' : 'application/json' },
      body: raw ? Buffer.from(body) : body === undefined ? undefined : JSON.stringify(body),
    })
    const text = await r.text()
    return { status: r.status, body: text ? JSON.parse(text) : undefined }
  }
  /** What the server answers, when it is as wanted. @throws Error with what it said instead */
  async ask(method: string, path: string, body?: unknown, wanted = 200): Promise<any> {
    const r = await this.call(method, path, body)
    if (r.status !== wanted) throw new Error(`${method} ${path}: ${r.status}, not ${wanted}: ${JSON.stringify(r.body)}`)
    return r.body
  }
  /** Bytes behind an address, as they come. */
  async bytes(path: string): Promise<Uint8Array> {
    return new Uint8Array(await (await fetch(`http://127.0.0.1:${this.port}/api${path}`)).arrayBuffer())
  }
  async newPiece(name: string): Promise<string> {
    return (await this.call('POST', '/pieces', { name })).body.id as string
  }
  async piece(id: string): Promise<any> {
    return (await this.call('GET', `/pieces/${id}`)).body
  }
  drop(piece: string, name: string, bytes: Uint8Array): ReturnType<TestServer['call']> {
    return this.call('POST', `/pieces/${piece}/files?name=${name}`, bytes)
  }
  /** A new piece with one part read from these bytes. */
  async pieceOf(name: string, stl: Uint8Array): Promise<string> {
    const id = await this.newPiece(name)
    await this.drop(id, 'body.stl', stl)
    await until(async () => (await this.piece(id)).partList.length === 1)
    return id
  }
  async operate(id: string, operations: object[]): Promise<{ status: number; body: any }> {
    const [part] = (await this.piece(id)).partList
    return this.call('PUT', `/parts/${part.id}/operations`, { version: part.version, operations })
  }
  /** The part once each of its steps has ended. */
  derived(id: string): Promise<any> {
    return until(async () => {
      const [part] = (await this.piece(id)).partList
      return part.steps.every((s: any) => ['done', 'failed'].includes(s.derivation?.status)) && part
    })
  }
  async status(key: string): Promise<string> {
    return (await this.call('GET', `/derivations/${key}`)).body.status as string
  }
}
