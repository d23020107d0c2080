/** What a finished print taught: how hard its worst tip was worked by the figures of then, and whether all of them held. */
export interface PrintOutcome {
  /** 1 at the capacity that was calculated with */
  utilisation: number
  /** Pa, that was calculated with */
  peelPressure: number
  greenStrength: number
  held: boolean
}
export interface Calibration {
  /** the workshop's peel pressure over the one calculated with now, at the same tip strength: only their ratio shows */
  factor: number
  /** one standard deviation either way, as factors */
  low: number
  high: number
  /** outcomes that it rests on, and how many of them let go */
  prints: number
  failures: number
}

/** How much prints that are worked alike differ, in ln of the load: film, temperature, exposure. */
const SPREAD = 0.22
/** How far a workshop's true figure may be from the default before it has printed anything, in ln. */
const PRIOR = 0.6
const GRID = 400,
  REACH = 2.2

/**
 * The peel pressure that explains best which prints held and which let go: each tip lets go when its load, times an unknown
 * factor, passes its strength, blurred by a log-normal spread; the factor's posterior under a log-normal prior round 1 is
 * summed on a grid (Bayesian threshold estimation).
 *
 * @param now the figures that utilisations are wanted by
 */
export function calibrateSupports(
  outcomes: readonly PrintOutcome[],
  now: { peelPressure: number; greenStrength: number },
): Calibration {
  const ratio = now.peelPressure / now.greenStrength
  const loads = outcomes
    .filter((o) => o.utilisation > 0)
    .map((o) => ({ ln: Math.log((o.utilisation * ratio) / (o.peelPressure / o.greenStrength)), held: o.held }))
  let sum = 0,
    mean = 0,
    square = 0
  for (let i = 0; i <= GRID; i++) {
    const x = REACH * ((2 * i) / GRID - 1)
    let log = -(x * x) / (2 * PRIOR * PRIOR)
    for (const { ln, held } of loads) {
      const fails = normalCdf((ln + x) / SPREAD)
      log += Math.log(Math.max(1e-12, held ? 1 - fails : fails))
    }
    const w = Math.exp(log)
    sum += w
    mean += w * x
    square += w * x * x
  }
  mean /= sum
  const deviation = Math.sqrt(Math.max(0, square / sum - mean * mean))
  return {
    factor: Math.exp(mean),
    low: Math.exp(mean - deviation),
    high: Math.exp(mean + deviation),
    prints: loads.length,
    failures: loads.filter((l) => !l.held).length,
  }
}

/** Abramowitz and Stegun 1964, 26.2.17: error under 7.5e-8. */
function normalCdf(x: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(x))
  const tail =
    (Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI)) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))))
  return x >= 0 ? 1 - tail : tail
}
