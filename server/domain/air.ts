import { now, rightNow } from '../data/clock'
import { Op } from 'sequelize'
import { sensorState } from '../../contract/devices'
import { roomAhead, type AirHour } from '../../core/plan/scheduling/air'
import { RoomReading } from '../data/benchModels'
import { announce } from '../data/events'
import { DeviceRow } from '../data/models'

/** ms between two readings that are kept, and for which they are */
const EVERY = 5 * 60_000,
  KEPT = 90 * 86_400_000
/** °C and % by which the air must change to matter to a plan */
const MATTERS = { temperature: 1, humidity: 5 }

/** What plans were last told of. */
let told: { temperature: number; humidity: number } | null = null

/** Keeps a reading of the sensor now and then, and says so when it changes what takes how long. */
export async function noteAir(state: unknown): Promise<void> {
  const read = sensorState.safeParse(state)
  if (!read.success) return
  const { temperature, humidity } = read.data
  const last = await RoomReading.findOne({ order: [['at', 'DESC']] })
  const changed = (a: { temperature: number; humidity: number } | null): boolean =>
    !a ||
    Math.abs(a.temperature - temperature) > MATTERS.temperature ||
    Math.abs(a.humidity - humidity) > MATTERS.humidity
  if (last && now() - last.at.getTime() < EVERY && !changed(last)) return
  await RoomReading.create({ at: rightNow(), temperature, humidity })
  await RoomReading.destroy({ where: { at: { [Op.lt]: new Date(now() - KEPT) } } })
  if (!changed(told)) return
  told = { temperature, humidity }
  await announce({ type: 'room' })
}

/** The hours ahead, at the bench and in the open, as the sensor's report has them; none where no sensor answers. */
export async function forecast(): Promise<AirHour[]> {
  const row = await DeviceRow.findOne({ where: { kind: 'sensor', reachable: true } })
  const state = sensorState.safeParse(row?.state)
  if (!state.success) return []
  const { temperature, humidity, open } = state.data
  const now = { room: { temperature, humidity }, open }
  return state.data.forecast.map((h) => ({ ...h, room: roomAhead(now, h.open) }))
}
