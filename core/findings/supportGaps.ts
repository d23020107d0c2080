import type { SupportReport } from '../print/support/support'
import { plural, type Finding } from './finding'
import { rule } from './rule'

/** Tips beyond their strength, contacts that no stem reached, islands that may not be supported, edits without a place. */
export function supportGaps(report: SupportReport): Finding<'support' | 'reorient'>[] {
  const out: Finding<'support' | 'reorient'>[] = []
  const over = report.tips.filter((t) => t.utilisation > 1)
  if (over.length > 0)
    out.push({
      id: 'overload',
      level: 'warning',
      value: `${Math.round(Math.max(...over.map((t) => t.utilisation)) * 100)} %`,
      unit: 'of tip strength',
      sentence: `${plural(over.length, 'tip is', 'tips are')} pulled harder than a green tip holds.`,
      places: over.map((t) => [...t.point] as [number, number, number]),
      how: 'Peel pressure on the share of each layer nearest to the tip, against its neck’s green strength.',
      fixes: [{ act: 'support', closer: true, label: 'Closer tips', effect: 'spacing 20 % tighter' }],
    })
  if (report.barred.length > 0)
    out.push({
      id: 'barred',
      level: 'problem',
      value: String(report.barred.length),
      unit: report.barred.length === 1 ? 'island without a tip' : 'islands without a tip',
      sentence:
        'They start where no support may be: the brushed areas, or supports on joint faces alone, are not enough for this part.',
      places: report.barred.map((p) => [...p] as [number, number, number]),
      how: 'Islands of the layers whose lowest place is where supports are excluded, or off the joint faces.',
      fixes: [{ act: 'reorient', label: 'Turn it', effect: 'another orientation may start elsewhere' }],
    })
  if (report.unreached.length > 0)
    out.push({
      id: 'unreached',
      level: report.unreached.some((u) => u.island) ? 'warning' : 'note',
      value: String(report.unreached.length),
      unit: report.unreached.length === 1 ? 'place not reached' : 'places not reached',
      sentence: 'No stem reaches that place without touching the body.',
      places: report.unreached.map((u) => [...u.point] as [number, number, number]),
      how: 'Stems were tried along the surface normal, to 16 sides and down onto the body.',
      fixes: [{ act: 'reorient', label: 'Turn it', effect: 'another orientation may reach them' }],
    })
  if (report.lostEdits > 0)
    out.push({
      id: 'lost-edits',
      level: 'warning',
      value: String(report.lostEdits),
      unit: 'edits lost',
      sentence:
        'Changes made by hand are where there is no support or surface any more. They are kept and return if the body does.',
      places: [],
      how: 'An edit belongs to the supports within 1.6 mm of its place.',
      fixes: [],
    })
  return out
}

export const supportsHold = rule({
  title: 'no tip is overloaded, every contact is reached',
  stages: ['orient'],
  inputs: ['supports'],
  find: ({ supports }) => supportGaps(supports),
})
