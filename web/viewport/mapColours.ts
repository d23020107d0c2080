/** A perceptually even scale: anchors in OKLab (Ottosson 2020), straight lines between them. */
type Lab = readonly [number, number, number]

/** Lightness falls evenly, so the scale reads in grey and with any colour vision. */
const AMOUNT: readonly Lab[] = [
  [0.93, 0.0, 0.02],
  [0.8, -0.03, 0.09],
  [0.62, 0.07, 0.1],
  [0.44, 0.12, 0.02],
  [0.3, 0.06, -0.08],
]
/** Two-sided: too deep in rust, too wide in blue, pale where it is right. */
const SIDES: readonly Lab[] = [
  [0.4, 0.13, 0.08],
  [0.68, 0.1, 0.08],
  [0.94, 0.0, 0.015],
  [0.7, -0.04, -0.08],
  [0.4, -0.02, -0.13],
]

/** One-sided: rust where there is too little, pale from where there is enough. */
const LACK: readonly Lab[] = [...SIDES.slice(0, 2), [0.83, 0.05, 0.06], SIDES[2]!]
const ANCHORS = { amount: AMOUNT, sides: SIDES, lack: LACK } as const

export interface Scale {
  kind: keyof typeof ANCHORS
  /** values at the ends */
  from: number
  to: number
  /** what the legend's figures are multiplied by: the map was taken at another size than is tried */
  shownBy?: number
}

/** Linear 0..1 colour at t of the scale, 0..1. */
export function scaleColour(kind: Scale['kind'], t: number, out: Float32Array, o: number): void {
  const anchors = ANCHORS[kind]
  const x = Math.min(1, Math.max(0, t)) * (anchors.length - 1)
  const i = Math.min(anchors.length - 2, Math.floor(x))
  const [l, a, b] = [0, 1, 2].map((k) => anchors[i]![k]! + (x - i) * (anchors[i + 1]![k]! - anchors[i]![k]!)) as [
    number,
    number,
    number,
  ]
  const m = (l + 0.3963377774 * a + 0.2158037573 * b) ** 3,
    n = (l - 0.1055613458 * a - 0.0638541728 * b) ** 3,
    p = (l - 0.0894841775 * a - 1.291485548 * b) ** 3
  out[o] = Math.max(0, 4.0767416621 * m - 3.3077115913 * n + 0.2309699292 * p)
  out[o + 1] = Math.max(0, -1.2684380046 * m + 2.6097574011 * n - 0.3413193965 * p)
  out[o + 2] = Math.max(0, -0.0041960863 * m - 0.7034186147 * n + 1.707614701 * p)
}

/** Bare clay where a map has nothing to say, linear. */
const CLAY = [0.45, 0.41, 0.36] as const

/** Linear colours per vertex; NaN stays clay. */
export function mapColours(values: Float32Array, scale: Scale): Float32Array {
  const out = new Float32Array(values.length * 3)
  for (let v = 0; v < values.length; v++) {
    if (values[v]! !== values[v]!) out.set(CLAY, v * 3)
    else scaleColour(scale.kind, (values[v]! - scale.from) / (scale.to - scale.from), out, v * 3)
  }
  return out
}

/** The scale as a CSS gradient, for its legend. */
export function scaleGradient(kind: Scale['kind']): string {
  const rgb = new Float32Array(3)
  const stops = Array.from({ length: 9 }, (_, i) => {
    scaleColour(kind, i / 8, rgb, 0)
    const byte = (v: number): number =>
      Math.round(255 * (v <= 0.0031308 ? v * 12.92 : 1.055 * Math.min(1, v) ** (1 / 2.4) - 0.055))
    return `rgb(${byte(rgb[0]!)} ${byte(rgb[1]!)} ${byte(rgb[2]!)}) ${i * 12.5}%`
  })
  return `linear-gradient(to right, ${stops.join(', ')})`
}
