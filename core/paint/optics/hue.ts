import type { Triple } from './colour'

/** Hue angle in CIELAB, degrees 0 to 360. */
export const hueOf = (lab: Triple): number => ((Math.atan2(lab[2], lab[1]) * 180) / Math.PI + 360) % 360
export const chromaOf = (lab: Triple): number => Math.hypot(lab[1], lab[2])
export const fromLch = (l: number, c: number, h: number): [number, number, number] => [
  l,
  c * Math.cos((h * Math.PI) / 180),
  c * Math.sin((h * Math.PI) / 180),
]
/** The way round from one hue to another, −180 to 180. */
export const hueTurn = (from: number, to: number): number => ((to - from + 540) % 360) - 180

const NAMES: [until: number, name: string][] = [
  [25, 'red'],
  [60, 'orange'],
  [105, 'yellow'],
  [165, 'green'],
  [230, 'turquoise'],
  [290, 'blue'],
  [345, 'violet'],
  [360, 'red'],
]
export const hueName = (hue: number): string => NAMES.find(([until]) => hue < until)?.[1] ?? 'red'
