import { now } from '../data/clock'
import { Op } from 'sequelize'
import type { Room } from '../../core/plan/materials/drying'
import { RoomReading } from '../data/benchModels'
import { readWorkshop } from './workshop'

/** ms of readings that are averaged, and after which the sensor is taken for silent */
const HOUR = 3_600_000

export interface RoomNow extends Room {
  /** by a sensor; else as it was typed */
  measured: boolean
  /** ms of the last reading */
  at: number | null
}

/** The air at the bench: the last hour of the sensor, or what was typed. */
export async function readRoom(): Promise<RoomNow> {
  const [shop, rows] = await Promise.all([
    readWorkshop(),
    RoomReading.findAll({ where: { at: { [Op.gt]: new Date(now() - HOUR) } }, order: [['at', 'ASC']] }),
  ])
  const last = rows.at(-1)
  if (!last) return { temperature: shop.temperature, humidity: shop.humidity, measured: false, at: null }
  const mean = (f: (r: RoomReading) => number): number =>
    Math.round((10 * rows.reduce((s, r) => s + f(r), 0)) / rows.length) / 10
  return {
    temperature: mean((r) => r.temperature),
    humidity: mean((r) => r.humidity),
    measured: true,
    at: last.at.getTime(),
  }
}
