import express, { Router } from 'express'
import { z } from 'zod'
import { openAir, type SensorState } from '../../contract/devices'
import { roomAhead } from '../../core/plan/scheduling/air'
import { evenNumbers, normalNumbers } from '../../core/math/random'
import { Shell, type DeviceConfig } from './shell'
import { Weather } from './weather'

const settings = z.object({
  /** °C that the room is kept at */
  kept: z.number().min(0).max(35).default(19),
})

/** A sensor at the bench that is not there, with the weather report it passes on. What it reads can be said, to try things out. */
export async function simulatedSensor(config: DeviceConfig): Promise<void> {
  const { kept } = settings.parse(config)
  const weather = new Weather(config.seed)
  const random = normalNumbers(evenNumbers(config.seed + 1))
  let said: z.infer<typeof openAir> | null = null
  const routes = Router()
  routes.get('/device', (_req, res) => {
    res.json({ kind: 'sensor', serial: config.serial, name: config.name, standIn: true })
  })
  routes.get('/state', (_req, res) => {
    const open = weather.at(Date.now())
    // A kept room on a mild day, with a little water from who works in it.
    const mild = { temperature: 15, humidity: 60 }
    const room = said ?? roomAhead({ room: { temperature: kept, humidity: 50 }, open: mild }, open)
    res.json({
      temperature: Math.round(10 * (room.temperature + (said ? 0 : 0.1 * random()))) / 10,
      humidity: Math.round(room.humidity + (said ? 0 : 0.6 * random())),
      open,
      forecast: weather.forecast(Date.now()),
    } satisfies SensorState)
  })
  routes.post('/air', express.json(), (req, res) => {
    said = openAir.nullable().parse((req.body as { air?: unknown }).air ?? null)
    res.status(204).end()
  })
  await new Shell(config.port, routes).up()
}
