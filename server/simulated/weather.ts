import type { AirHour, OpenAir } from '../../contract/devices'
import { saturation } from '../../core/plan/scheduling/air'
import { evenNumbers } from '../../core/math/random'

const HOUR = 3_600_000,
  DAY = 24 * HOUR,
  YEAR = 365.2425 * DAY
/** Hours ahead that are forecast. */
const AHEAD = 120

export interface Climate {
  /** °C: mean of the year, swing over the year and over a day */
  mean: number
  year: number
  day: number
}
export const COAST: Climate = { mean: 12.5, year: 5, day: 3.5 }

/** A few waves of seeded length and phase: smooth, without memory, the same whenever it is asked. */
function waves(random: () => number, shortest: number, longest: number): (ms: number) => number {
  const list = Array.from({ length: 5 }, () => ({
    length: shortest * (longest / shortest) ** random(),
    phase: 2 * Math.PI * random(),
  }))
  return (ms) =>
    list.reduce((s, w) => s + Math.sin((2 * Math.PI * ms) / w.length + w.phase), 0) / Math.sqrt(list.length)
}

/**
 * Weather that is not there: seasons, days, and fronts that pass over in two to six days, made from a seed and the clock alone.
 * The forecast is the weather to come with an error that grows with how far ahead it is.
 */
export class Weather {
  private readonly warm: (ms: number) => number
  private readonly damp: (ms: number) => number
  private readonly wrong: (ms: number) => number

  constructor(
    seed: number,
    private readonly climate: Climate = COAST,
  ) {
    const random = evenNumbers(seed)
    this.warm = waves(random, 2 * DAY, 6 * DAY)
    this.damp = waves(random, 1.5 * DAY, 5 * DAY)
    this.wrong = waves(random, 0.5 * DAY, 2 * DAY)
  }

  /** The open air at a moment. */
  at(ms: number): OpenAir {
    const { mean, year, day } = this.climate
    // Coldest late in January, and before dawn.
    const season = -Math.cos((2 * Math.PI * (ms - 25 * DAY)) / YEAR),
      hour = -Math.cos((2 * Math.PI * (ms - 4 * HOUR)) / DAY)
    const daily = mean + year * season + 2.5 * this.warm(ms)
    const temperature = daily + day * hour
    // The air holds about as much water as it does at the day's coldest, fronts aside.
    const dew = daily - day - 0.5 + 1.6 * this.damp(ms)
    const humidity = Math.min(100, (100 * saturation(dew)) / saturation(temperature))
    return { temperature: tenth(temperature), humidity: Math.round(humidity) }
  }

  forecast(now: number): AirHour[] {
    const first = Math.floor(now / HOUR) * HOUR
    return Array.from({ length: AHEAD }, (_, k) => {
      const at = first + k * HOUR
      const air = this.at(at),
        error = (k / AHEAD) * this.wrong(at)
      return {
        at,
        open: {
          temperature: tenth(air.temperature + 2 * error),
          humidity: Math.max(10, Math.min(100, Math.round(air.humidity - 8 * error))),
        },
      }
    })
  }
}
const tenth = (v: number): number => Math.round(10 * v) / 10
