import { message } from '../../words/message'
import type { Said } from '../../words/say'

export interface Room {
  /** °C */
  temperature: number
  /** % relative */
  humidity: number
}
export const STANDARD_ROOM: Room = { temperature: 20, humidity: 50 }

export type Setting = 'reaction' | 'evaporation' | 'none'

/**
 * Waiting time in this room from the time at 20 °C and 50 %: reactions take twice as long for each 10 °C colder;
 * evaporation follows the drying power of the air, which goes with 100 % − humidity and with temperature by half
 * as much (craft.md, Materials).
 */
export function waitingIn(room: Room, seconds: number, setting: Setting): number {
  if (setting === 'none') return seconds
  const doublings = (STANDARD_ROOM.temperature - room.temperature) / 10
  if (setting === 'reaction') return seconds * 2 ** doublings
  return (seconds * 2 ** (doublings / 2) * 50) / Math.max(5, 100 - room.humidity)
}

/** Sprays ruin in cold or damp: why not now, or null. */
export function sprayRefused(room: Room): Said | null {
  if (room.temperature < 10) return message('steps.drying.cIsUnder10C', { temperature: room.temperature })
  if (room.humidity > 80) return message('steps.drying.humidityIsOver80The', { humidity: room.humidity })
  return null
}
