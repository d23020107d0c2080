import { plateSize, type Printer } from '../print/slice/printer'
import type { Finding } from './finding'
import type { Fix } from './fix'
import { rule } from './rule'

type Size = readonly [number, number, number]
/** Of what would just fit, so much is left to spare. */
const SPARE = 0.02

const room = (p: Printer): Size => [...plateSize(p), p.height]
const ascending = (s: Size): number[] => [...s].sort((a, b) => a - b)
const shrunk = (factor: number): Fix<'scale'> => ({
  act: 'scale',
  factor: factor * (1 - SPARE),
  label: `Shrink to ${(factor * (1 - SPARE) * 100).toFixed(0)} %`,
  effect: `fits with ${100 * SPARE} % to spare`,
})
function tooLarge<F extends Finding['fixes']>(over: number, size: Size, printer: Printer, how: string, fixes: F) {
  const [w, d, h] = room(printer)
  return {
    id: 'does-not-fit',
    level: 'problem' as const,
    value: over < 10 ? over.toFixed(1) : over.toFixed(0),
    unit: 'mm too large',
    places: [],
    sentence: `${size.map((s) => s.toFixed(0)).join(' × ')} mm does not fit ${printer.name} (${w.toFixed(0)} × ${d.toFixed(0)} × ${h} mm) ${how}.`,
    how: 'Bounding box against the build volume.',
    fixes,
  }
}

/** Whether the body fits the printer in some orientation. */
export function doesNotFit(size: Size, printer: Printer): Finding<'scale'>[] {
  const sides = ascending(size),
    space = ascending(room(printer))
  const over = Math.max(...sides.map((s, i) => s - space[i]!))
  if (over <= 0) return []
  return [
    tooLarge(over, size, printer, 'in any orientation', [shrunk(Math.min(...sides.map((s, i) => space[i]! / s)))]),
  ]
}

/** Whether it fits as it stands, supports included. */
export function doesNotStand(size: Size, printer: Printer): Finding<'scale' | 'quarterTurn' | 'reorient'>[] {
  const space = room(printer)
  const over = Math.max(...size.map((s, k) => s - space[k]!))
  if (over <= 0) return []
  const quarter = size[0] <= space[1] && size[1] <= space[0] && size[2] <= space[2]
  return [
    tooLarge(over, size, printer, 'in its orientation', [
      ...(quarter
        ? [{ act: 'quarterTurn' as const, label: 'Quarter turn', effect: 'it fits when turned on the plate' }]
        : []),
      shrunk(Math.min(...size.map((s, k) => space[k]! / s))),
      { act: 'reorient' as const, label: 'Turn it', effect: 'finds the best orientation that fits' },
    ]),
  ]
}

export const fitsSomehow = rule({
  title: 'it fits the printer',
  stages: ['scale'],
  inputs: ['size', 'printer'],
  find: ({ size, printer }) => doesNotFit(size, printer),
})
export const fitsStanding = rule({
  title: 'it fits the printer in its orientation',
  stages: ['orient', 'plates'],
  inputs: ['orientedSize', 'printer'],
  find: ({ orientedSize, printer }) => doesNotStand(orientedSize, printer),
})
