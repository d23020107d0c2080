import express, { Router } from 'express'
import { z } from 'zod'
import type { ScaleState } from '../../contract/devices'
import { evenNumbers, normalNumbers } from '../../core/math/random'
import { Shell, type DeviceConfig } from './shell'

const settings = z.object({
  /** g: what it shows is a multiple of this */
  division: z.number().gt(0).default(0.05),
  /** g: standard deviation of one reading */
  noise: z.number().min(0).default(0.04),
})

/** A scale that is not there: shows what was laid on it, less its tare, with noise, in its divisions. */
export async function simulatedScale(config: DeviceConfig): Promise<void> {
  const { division, noise } = settings.parse(config)
  const random = normalNumbers(evenNumbers(config.seed))
  let load = 0,
    tare = 0,
    laid = 0
  const routes = Router()
  routes.get('/device', (_req, res) => {
    res.json({ kind: 'scale', serial: config.serial, name: config.name, standIn: true, division })
  })
  const read = (): number => Math.round((load - tare + noise * random()) / division) * division
  routes.get('/state', (_req, res) => {
    res.json({ grams: read(), stable: Date.now() - laid > 300, loaded: load > 0 } satisfies ScaleState)
  })
  routes.post('/load', express.json(), (req, res) => {
    load = z.object({ grams: z.number().min(0).max(50_000) }).parse(req.body).grams
    laid = Date.now()
    res.status(204).end()
  })
  routes.post('/tare', (_req, res) => {
    tare = load
    res.status(204).end()
  })
  await new Shell(config.port, routes).up()
}
