type Measure = 'length' | 'area' | 'mass' | 'volume' | 'time' | 'angle' | 'temperature' | 'sheets' | 'pieces'

/**
 * Every unit that can be typed or shown: what it measures, and how many of the first unit of that measure it is. Inch,
 * foot, ounce, pound and US fluid ounce are exact by definition (international yard and pound, 1959).
 */
const UNITS: Readonly<Record<string, readonly [Measure, number]>> = {
  mm: ['length', 1],
  cm: ['length', 10],
  m: ['length', 1000],
  µm: ['length', 0.001],
  in: ['length', 25.4],
  '"': ['length', 25.4],
  '″': ['length', 25.4],
  ft: ['length', 304.8],
  'mm²': ['area', 1],
  'cm²': ['area', 100],
  'in²': ['area', 645.16],
  g: ['mass', 1],
  kg: ['mass', 1000],
  oz: ['mass', 28.349523125],
  lb: ['mass', 453.59237],
  ml: ['volume', 1],
  cl: ['volume', 10],
  l: ['volume', 1000],
  'fl oz': ['volume', 29.5735295625],
  s: ['time', 1],
  min: ['time', 60],
  h: ['time', 3600],
  '°': ['angle', 1],
  deg: ['angle', 1],
  '°C': ['temperature', 1],
  '°F': ['temperature', 5 / 9],
  sheets: ['sheets', 1],
  sheet: ['sheets', 1],
  pieces: ['pieces', 1],
  piece: ['pieces', 1],
}
/** Where the scale begins, in the first unit of the measure. */
const ZERO: Readonly<Record<string, number>> = { '°F': -160 / 9 }

/** The longer first: "min" before "m". */
export const UNIT_NAMES: readonly string[] = Object.keys(UNITS).sort((a, b) => b.length - a.length)

/** Micro is a sign of its own, a Greek letter, or a u. */
const plain = (name: string): string =>
  name
    .toLowerCase()
    .replace(/\s+/g, '')
    .replace(/^[uμ]m$/, 'µm')
const byPlain = new Map(UNIT_NAMES.map((name) => [plain(name), name]))
/** A unit as it is written here, from what was typed: "FL  OZ" is "fl oz"; undefined of what is none. */
export const unitNamed = (typed: string): string | undefined => byPlain.get(plain(typed))

/** What a unit measures; undefined of what is none. */
export const measureOf = (unit: string): Measure | undefined => UNITS[unit]?.[0]

/**
 * Turns a value in one unit into another of the same measure; undefined where the two measure different things.
 *
 * @param from names as they are written in the table
 */
export function converted(value: number, from: string, to: string): number | undefined {
  if (from === to) return value
  const [a, b] = [UNITS[from], UNITS[to]]
  if (!a || !b || a[0] !== b[0]) return undefined
  return (value * a[1] + (ZERO[from] ?? 0) - (ZERO[to] ?? 0)) / b[1]
}
