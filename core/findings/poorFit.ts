import type { FitReport } from '../fit/gap'
import type { Finding } from './finding'
import { rule } from './rule'

/** mm³, and mm, of overlap below which two skins merely touch: pressed or sanded together without a thought */
const TOUCH = 0.3,
  SKIN = 0.08
/** mm: the clearance of a key, and what brush-on resin fills, is no fault */
const HAIRLINE = 0.12

/** How two parts meet: overlapping, gaping, or well. */
export function poorFit(a: string, b: string, key: string, r: FitReport): Finding<'relieve' | 'union'>[] {
  if (!r.touching && r.overlap < TOUCH) return []
  const how = `Signed gap from ${(r.area / 100).toFixed(1)} cm² of facing surface to the other part's, by closest point; overlap by intersection.`
  if (r.overlap >= TOUCH && (!r.deepest || -r.deepest.gap > SKIN))
    return [
      {
        id: `overlap:${key}`,
        level: 'problem',
        value: r.deepest ? (-r.deepest.gap).toFixed(2) : r.overlap.toFixed(0),
        unit: r.deepest ? 'mm too deep' : 'mm³ overlap',
        sentence: `${a} and ${b} overlap by ${r.overlap < 100 ? r.overlap.toFixed(1) : r.overlap.toFixed(0)} mm³: once printed, they will not fit together.`,
        places: r.deepest ? [r.deepest.point] : [],
        how,
        fixes: [
          {
            act: 'relieve',
            pair: key,
            label: 'Cut clearance',
            effect: `subtracts ${b}, enlarged by the clearance, from ${a}`,
          },
          { act: 'union', pair: key, label: 'Merge', effect: `${b} becomes part of ${a}` },
        ],
      },
    ]
  if (r.p95 <= HAIRLINE || r.seam < 1) return []
  return [
    {
      id: `gap:${key}`,
      level: 'warning',
      value: r.p95.toFixed(2),
      unit: 'mm gap',
      sentence: `Between ${a} and ${b}; ${r.seam.toFixed(0)} mm of the seam are visible and need ${(r.filler / 1000).toFixed(2)} ml of filler.`,
      places: r.widest ? [r.widest.point] : [],
      how,
      fixes: [],
    },
  ]
}

export const partsFit = rule({
  title: 'no parts overlap, no seam has a gap',
  stages: ['combine'],
  inputs: ['pairs'],
  find: ({ pairs }) => pairs.flatMap(({ a, b, key, fit }) => poorFit(a, b, key, fit)),
})
