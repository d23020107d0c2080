import type { PlateAtWork } from './facts'
import type { Finding } from './finding'
import { rule } from './rule'

type PlateAct = 'refill' | 'resume' | 'judge'
/** Plates that wait for a hand: stand still, do not answer, were refused, came out badly. */
export function printTrouble(plates: readonly PlateAtWork[]): Finding<PlateAct>[] {
  return plates.flatMap((p): Finding<PlateAct>[] => {
    const of = (id: string, rest: Omit<Finding<PlateAct>, 'id' | 'places'>): Finding<PlateAct>[] => [
      { id: `${id} ${p.id}`, places: [], ...rest },
    ]
    const at = `layer ${p.layer} of ${p.layers}`
    if (p.problem && p.state === 'planned')
      return of('refused', {
        level: 'problem',
        value: '0',
        unit: 'layers printed: refused',
        sentence: `${p.name}: ${p.problem}`,
        how: 'What the printer answered when the job was sent or started.',
        fixes: [],
      })
    if (p.silent !== null && (p.state === 'sending' || p.state === 'printing'))
      return of('lost', {
        level: 'problem',
        value: String(Math.max(1, Math.round(p.silent))),
        unit: 'min without an answer',
        sentence: `${p.name} has not answered since ${at}. Check whether the printer is on. It goes on printing by itself, and is followed again as soon as it answers.`,
        how: 'Asked several times a second; each answer may take four seconds.',
        fixes: [],
      })
    if (p.state === 'printing' && p.why === 'vat-empty')
      return of('vat', {
        level: 'problem',
        value: (p.vat ?? 0).toFixed(0),
        unit: 'ml in the vat',
        sentence: `${p.name} has stopped at ${at}: too little resin covers the film. Refill the vat, then continue; ${p.needed.toFixed(0)} ml are still to be printed.`,
        how: 'The level reported by the printer; the rest is calculated from the areas of the layers left.',
        fixes: [
          {
            act: 'refill',
            plate: p.id,
            label: `Refill with ${fill(p.needed)} ml`,
            effect: 'the printer is told, and continues',
          },
        ],
      })
    if (p.state === 'printing' && p.doing === 'interrupted')
      return of('power', {
        level: 'problem',
        value: p.layer.toLocaleString(),
        unit: 'layers before a power cut',
        sentence: `${p.name} was interrupted at ${at}. It can continue from there. A line will show at that layer. Stir resin that has stood for hours first.`,
        how: 'The printer remembers the layer and the job.',
        fixes: [{ act: 'resume', plate: p.id, label: 'Go on', effect: `from layer ${p.layer + 1}` }],
      })
    if (p.state === 'printing' && p.vat !== null && p.vat < p.needed)
      return of('vat-soon', {
        level: 'warning',
        value: (p.needed - p.vat).toFixed(0),
        unit: 'ml more than the vat has',
        sentence: `${p.needed.toFixed(0)} ml are still to be printed and ${p.vat.toFixed(0)} are in the vat of ${p.name}: it will stop before the end. Refill it in time.`,
        how: 'The level reported by the printer, compared with the areas of the layers left.',
        fixes: [],
      })
    if (p.state === 'ended')
      return of('look', {
        level: 'warning',
        value: '1',
        unit: 'plate without a result',
        sentence: `${p.name}${p.layer < p.layers ? ` ended at ${at}` : ' is printed'}. Remove it, check it, and enter the result of each part. The estimates of the next prints use it.`,
        how: '',
        fixes: [{ act: 'judge', plate: p.id, label: 'Enter result', effect: 'part by part' }],
      })
    if (p.failed > 0 && !p.reprinted)
      return of('failed', {
        level: 'problem',
        value: String(p.failed),
        unit: `${p.failed === 1 ? 'part' : 'parts'} failed`,
        sentence: 'Change the most likely cause, then print only these parts again, or only the piece that broke off.',
        how: 'As judged by hand, or by what the device saw.',
        fixes: [{ act: 'judge', plate: p.id, label: 'See why', effect: 'causes, and what to print again' }],
      })
    return []
  })
}

/** What is filled in at once: the rest and a reserve, in fifties. */
export const fill = (needed: number): number => Math.ceil((needed + 30) / 50) * 50

export const platesGoOn = rule({
  title: 'no plate needs attention',
  stages: ['print'],
  inputs: ['platesAtWork'],
  find: ({ platesAtWork }) => printTrouble(platesAtWork),
})
