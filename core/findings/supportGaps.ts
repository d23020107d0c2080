import type { Island } from '../raster/layerGraph'
import type { SupportReport } from '../print/support/support'
import { plural, type Finding } from './finding'

/** Islands smaller than this, mm², stick to what is beside them within a layer or two. */
export const FLECK = 0.5

/** Islands that begin in mid air, tips beyond their strength, contacts that no stem reached. */
export function supportGaps(islands: readonly Island[], step: number, report: SupportReport | null): Finding[] {
  const out: Finding[] = []
  const real = islands.filter((i) => i.area >= FLECK)
  if (real.length > 0)
    out.push({
      id: 'islands',
      level: 'settle',
      value: String(real.length),
      unit: real.length === 1 ? 'island' : 'islands',
      sentence: `${plural(real.length, 'region starts', 'regions start')} in mid air; the largest covers ${Math.max(...real.map((i) => i.area)).toFixed(1)} mm². It would drop into the vat.`,
      places: real.map((i) => [i.x, i.y, (i.layer + 0.5) * step]),
      how: `Regions of each layer without overlap with the one below, at ${step} mm.`,
      fixes: [
        {
          act: 'support',
          label: report ? 'Support again, closer' : 'Generate supports',
          effect: 'puts a tip under every island',
        },
      ],
    })
  if (!report) return out
  const over = report.tips.filter((t) => t.utilisation > 1)
  if (over.length > 0)
    out.push({
      id: 'overload',
      level: 'know',
      value: `${Math.round(Math.max(...over.map((t) => t.utilisation)) * 100)} %`,
      unit: 'of tip strength',
      sentence: `${plural(over.length, 'tip is', 'tips are')} pulled harder than a green tip holds.`,
      places: over.map((t) => [...t.point] as [number, number, number]),
      how: 'Peel pressure on the share of each layer nearest to the tip, against its neck’s green strength.',
      fixes: [{ act: 'denser', label: 'Closer tips', effect: 'spacing 20 % tighter' }],
    })
  if (report.barred.length > 0)
    out.push({
      id: 'barred',
      level: 'settle',
      value: String(report.barred.length),
      unit: report.barred.length === 1 ? 'island without a tip' : 'islands without a tip',
      sentence:
        'They begin where nothing may stand: the paint, or supports on joint faces alone, does not hold for this part.',
      places: report.barred.map((p) => [...p] as [number, number, number]),
      how: 'Islands of the layers whose lowest place lies where supports are painted out, or off the joint faces.',
      fixes: [{ act: 'reorient', label: 'Turn it', effect: 'another way up may begin elsewhere' }],
    })
  if (report.unreached.length > 0)
    out.push({
      id: 'unreached',
      level: report.unreached.some((u) => u.island) ? 'know' : 'note',
      value: String(report.unreached.length),
      unit: 'places not reached',
      sentence: 'No stem finds a way there without touching the body.',
      places: report.unreached.map((u) => [...u.point] as [number, number, number]),
      how: 'Stems were tried along the skin’s normal, to 16 sides and down onto the body.',
      fixes: [{ act: 'reorient', label: 'Turn it', effect: 'another way up may open them' }],
    })
  if (report.lostEdits > 0)
    out.push({
      id: 'lost-edits',
      level: 'know',
      value: String(report.lostEdits),
      unit: 'edits lost',
      sentence:
        'Changes made by hand lie where there is no support or skin any more. They are kept and come back if the body does.',
      places: [],
      how: 'An edit belongs to the supports within 1.6 mm of its place.',
      fixes: [],
    })
  return out
}
