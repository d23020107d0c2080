import type { FitReport } from '../fit/gap'
import type { Finding } from './finding'
import { rule } from './rule'
import { fixed } from '../words/format'
import { message } from '../words/message'

/** mm³, and mm, of overlap below which two skins merely touch: pressed or sanded together without a thought */
const TOUCH = 0.3,
  SKIN = 0.08
/** mm: the clearance of a key, and what brush-on resin fills, is no fault */
const HAIRLINE = 0.12

/** How two parts meet: overlapping, gaping, or well. */
export function poorFit(a: string, b: string, key: string, r: FitReport): Finding<'relieve' | 'union'>[] {
  if (!r.touching && r.overlap < TOUCH) return []
  const how = message('findings.poorFit.signedGapFromCmOf', { r: fixed(r.area / 100, 1) })
  if (r.overlap >= TOUCH && (!r.deepest || -r.deepest.gap > SKIN))
    return [
      {
        id: `overlap:${key}`,
        level: 'problem',
        value: r.deepest ? fixed(-r.deepest.gap, 2) : fixed(r.overlap, 0),
        unit: r.deepest ? message('findings.poorFit.mmTooDeep') : message('findings.poorFit.mmOverlap'),
        sentence: message('findings.poorFit.andOverlapByMmOnce', {
          a,
          b,
          overlap: r.overlap < 100 ? r.overlap.toFixed(1) : r.overlap.toFixed(0),
        }),
        places: r.deepest ? [r.deepest.point] : [],
        how,
        fixes: [
          {
            act: 'relieve',
            pair: key,
            label: message('findings.poorFit.cutClearance'),
            effect: message('findings.poorFit.subtractsEnlargedByTheClearance', { b, a }),
          },
          {
            act: 'union',
            pair: key,
            label: message('findings.poorFit.merge'),
            effect: message('findings.poorFit.becomesPartOf', { b, a }),
          },
        ],
      },
    ]
  if (r.p95 <= HAIRLINE || r.seam < 1) return []
  return [
    {
      id: `gap:${key}`,
      level: 'warning',
      value: fixed(r.p95, 2),
      unit: message('findings.poorFit.mmGap'),
      sentence: message('findings.poorFit.betweenAndMmOfThe', {
        a,
        b,
        seam: fixed(r.seam, 0),
        r: fixed(r.filler / 1000, 2),
      }),
      places: r.widest ? [r.widest.point] : [],
      how,
      fixes: [],
    },
  ]
}

export const partsFit = rule({
  title: message('findings.poorFit.noPartsOverlapNoSeam'),
  stages: ['combine'],
  inputs: ['pairs'],
  find: ({ pairs }) => pairs.flatMap(({ a, b, key, fit }) => poorFit(a, b, key, fit)),
})
