import { plateSize, type Printer } from '../print/slice/printer'
import type { Finding } from './finding'
import type { Fix } from './fix'
import { rule } from './rule'
import { fixed } from '../words/format'
import { message } from '../words/message'
import type { Said } from '../words/say'

type Size = readonly [number, number, number]
/** Of what would just fit, so much is left to spare. */
const SPARE = 0.02

const room = (p: Printer): Size => [...plateSize(p), p.height]
const ascending = (s: Size): number[] => [...s].sort((a, b) => a - b)
const shrunk = (factor: number): Fix<'scale'> => ({
  act: 'scale',
  factor: factor * (1 - SPARE),
  label: message('findings.doesNotFit.shrinkTo', { factor: fixed(factor * (1 - SPARE) * 100, 0) }),
  effect: message('findings.doesNotFit.fitsWithToSpare', { spare: 100 * SPARE }),
})
function tooLarge<F extends Finding['fixes']>(over: number, size: Size, printer: Printer, how: Said, fixes: F) {
  const [w, d, h] = room(printer)
  return {
    id: 'does-not-fit',
    level: 'problem' as const,
    value: over < 10 ? fixed(over, 1) : fixed(over, 0),
    unit: message('findings.doesNotFit.mmTooLarge'),
    places: [],
    sentence: message('findings.doesNotFit.mmDoesNotFitMm', {
      size: size.map((s) => fixed(s, 0)),
      name: printer.name,
      room: [fixed(w, 0), fixed(d, 0), h],
      how,
    }),
    how: message('findings.doesNotFit.boundingBoxAgainstTheBuild'),
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
    tooLarge(over, size, printer, message('findings.doesNotFit.inAnyOrientation'), [
      shrunk(Math.min(...sides.map((s, i) => space[i]! / s))),
    ]),
  ]
}

/** Whether it fits as it stands, supports included. */
export function doesNotStand(size: Size, printer: Printer): Finding<'scale' | 'quarterTurn' | 'reorient'>[] {
  const space = room(printer)
  const over = Math.max(...size.map((s, k) => s - space[k]!))
  if (over <= 0) return []
  const quarter = size[0] <= space[1] && size[1] <= space[0] && size[2] <= space[2]
  return [
    tooLarge(over, size, printer, message('findings.doesNotFit.inItsOrientation'), [
      ...(quarter
        ? [
            {
              act: 'quarterTurn' as const,
              label: message('findings.doesNotFit.quarterTurn'),
              effect: message('findings.doesNotFit.itFitsWhenTurnedOn'),
            },
          ]
        : []),
      shrunk(Math.min(...size.map((s, k) => space[k]! / s))),
      {
        act: 'reorient' as const,
        label: message('findings.doesNotFit.turnIt'),
        effect: message('findings.doesNotFit.findsTheBestOrientationThat'),
      },
    ]),
  ]
}

export const fitsSomehow = rule({
  title: message('findings.doesNotFit.itFitsThePrinter'),
  stages: ['scale'],
  inputs: ['size', 'printer'],
  find: ({ size, printer }) => doesNotFit(size, printer),
})
export const fitsStanding = rule({
  title: message('findings.doesNotFit.itFitsThePrinterIn'),
  stages: ['orient', 'plates'],
  inputs: ['orientedSize', 'printer'],
  find: ({ orientedSize, printer }) => doesNotStand(orientedSize, printer),
})
