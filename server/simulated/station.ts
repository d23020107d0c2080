import express, { Router } from 'express'
import { join } from 'node:path'
import { z } from 'zod'
import type { StationState } from '../../contract/devices'
import { Refusal } from '../domain/refusal'
import { keep, kept, Shell, type DeviceConfig } from './shell'
import { message } from '../../core/words/message'

const program = z.object({
  program: z.enum(['wash', 'dry', 'cure']),
  seconds: z
    .number()
    .gt(0)
    .max(7 * 86_400),
})
interface Kept {
  program: StationState['program']
  seconds: number
  /** machine time that is done, s, and since when it goes on; null while it stands */
  done: number
  since: number | null
}

/** A washing and curing station that is not there: one program at a time, by its clock. */
export async function simulatedStation(config: DeviceConfig): Promise<void> {
  const noted = join(config.folder, 'state.json')
  const now: Kept = kept<Kept>(noted) ?? { program: null, seconds: 0, done: 0, since: null }
  const note = (change: Partial<Kept>): void => {
    Object.assign(now, change)
    keep(noted, now)
  }
  const done = (): number =>
    Math.min(now.seconds, now.done + (now.since === null ? 0 : ((Date.now() - now.since) / 1000) * config.speedUp))
  const state = (): StationState['state'] =>
    now.program === null ? 'idle' : done() >= now.seconds ? 'finished' : now.since === null ? 'paused' : 'running'
  const routes = Router()
  routes.get('/device', (_req, res) => {
    const { serial, name } = config
    res.json({ kind: 'station', serial, name, standIn: true, programs: ['wash', 'dry', 'cure'] })
  })
  routes.get('/state', (_req, res) => {
    res.json({
      state: state(),
      program: now.program,
      seconds: now.seconds,
      left: now.seconds - done(),
      // Lamps warm the chamber; washing and drying go at the room's temperature.
      temperature: now.program === 'cure' ? 22 + 18 * (1 - Math.exp(-done() / 120)) : 22,
    } satisfies StationState)
  })
  routes.post('/start', express.json(), (req, res) => {
    const wish = program.parse(req.body)
    if (state() === 'running' || state() === 'paused')
      throw new Refusal(
        409,
        'busy',
        message('refusals.station.isAtWorkWaitOr', { name: config.name, program: now.program }),
      )
    note({ ...wish, done: 0, since: Date.now() })
    res.status(204).end()
  })
  routes.post('/pause', (_req, res) => {
    if (state() === 'running') note({ done: done(), since: null })
    res.status(204).end()
  })
  routes.post('/resume', (_req, res) => {
    if (state() === 'paused') note({ since: Date.now() })
    res.status(204).end()
  })
  routes.post('/stop', (_req, res) => {
    note({ program: null, seconds: 0, done: 0, since: null })
    res.status(204).end()
  })
  await new Shell(config.port, routes).up()
}
