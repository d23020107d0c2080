import express, { type Express, type Router } from 'express'
import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import type { Server } from 'node:http'
import { dirname } from 'node:path'
import { problemHandler } from '../http/problem'
import { Refusal } from '../domain/refusal'
import { message } from '../../core/words/message'

/** What every simulated device is told when it is started, in UNDERCUT_SIMULATED_DEVICE. */
export interface DeviceConfig {
  kind: 'printer' | 'station' | 'scale' | 'sensor'
  serial: string
  name: string
  port: number
  /** where it keeps what must survive its being switched off */
  folder: string
  /** how much faster than a real machine */
  speedUp: number
  /** of all that is random in it */
  seed: number
  [more: string]: unknown
}

/** A device's own little server on loopback. It can go dark for a while and come back, as devices do. */
export class Shell {
  private server: Server | null = null
  private readonly app: Express

  constructor(
    private readonly port: number,
    routes: Router,
  ) {
    this.app = express()
    this.app.disable('x-powered-by')
    this.app.use((req, _res, next) => {
      // Devices speak to programs on this machine; a page of some site in a browser is none of them.
      next(
        req.headers.origin
          ? new Refusal(403, 'not-for-pages', message('refusals.shell.devicesDoNotAnswerWeb'))
          : undefined,
      )
    })
    this.app.use(routes)
    this.app.use((_req, _res, next) =>
      next(new Refusal(404, 'no-such-address', message('refusals.shell.theDeviceDoesNotKnow'))),
    )
    this.app.use(problemHandler)
  }

  up(): Promise<void> {
    return new Promise((done, fail) => {
      this.server = this.app.listen(this.port, '127.0.0.1', (error) => (error ? fail(error) : done()))
      this.server.requestTimeout = 0
    })
  }

  async dark(ms: number): Promise<void> {
    this.server?.closeAllConnections()
    await new Promise<void>((done) => (this.server ? this.server.close(() => done()) : done()))
    await new Promise((done) => setTimeout(done, ms))
    await this.up()
  }
}

/** A small file that is either the old or the new one, never half of it. */
export function keep(path: string, value: unknown): void {
  mkdirSync(dirname(path), { recursive: true })
  writeFileSync(`${path}.new`, JSON.stringify(value))
  renameSync(`${path}.new`, path)
}
export function kept<T>(path: string): T | null {
  try {
    return JSON.parse(readFileSync(path, 'utf8')) as T
  } catch {
    return null
  }
}
