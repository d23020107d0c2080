import { sprayRefused, type Room } from '../materials/drying'

/** One hour that is forecast. */
export interface AirHour {
  /** ms since the epoch at which it begins */
  at: number
  room: Room
  open: Room
}

/** hPa of water vapour at which air of so many °C is full (Magnus; coefficients of Sonntag 1990, −45 to 60 °C). */
export const saturation = (temperature: number): number =>
  6.112 * Math.exp((17.62 * temperature) / (243.12 + temperature))

/** How much of a change outside a heated room follows within hours. */
const FOLLOWS = 0.2

/**
 * The room in an hour to come. What water is in the air outside comes in with it, and what the room has more of by now, from people
 * and from what dries in it, stays; relative humidity follows from the temperature by then.
 *
 * @param now the room and the open as they are
 */
export function roomAhead(now: { room: Room; open: Room }, open: Room): Room {
  const vapour = (a: Room): number => (a.humidity / 100) * saturation(a.temperature)
  const temperature = now.room.temperature + FOLLOWS * (open.temperature - now.open.temperature)
  const held = vapour(open) + Math.max(0, vapour(now.room) - vapour(now.open))
  const humidity = Math.min(100, (100 * held) / saturation(temperature))
  return { temperature: Math.round(10 * temperature) / 10, humidity: Math.round(humidity) }
}

const HOUR = 3_600_000

/** Stretches of the forecast, ms, in which nothing may be sprayed, rising and apart. */
export function shutToSpray(hours: readonly AirHour[], where: 'room' | 'open'): [number, number][] {
  const out: [number, number][] = []
  for (const h of hours) {
    if (!sprayRefused(h[where])) continue
    const last = out.at(-1)
    if (last?.[1] === h.at) last[1] = h.at + HOUR
    else out.push([h.at, h.at + HOUR])
  }
  return out
}

/** The next stretch, ms, in which spraying is likely to be possible, of an hour at least, or null where the forecast has none. */
export function nextSpray(
  hours: readonly AirHour[],
  where: 'room' | 'open',
  now: number,
): { from: number; to: number } | null {
  let from: number | null = null
  for (const h of hours) {
    const fit = h.at + HOUR > now && !sprayRefused(h[where])
    if (fit) from ??= Math.max(now, h.at)
    else if (from !== null && h.at - from >= HOUR) return { from, to: h.at }
    else from = null
  }
  const end = (hours.at(-1)?.at ?? 0) + HOUR
  return from !== null && end - from >= HOUR ? { from, to: end } : null
}
