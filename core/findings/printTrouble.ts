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
        sentence: `Nothing is heard of ${p.name} since ${at}. Look whether the printer is on; what it prints goes on without us, and is taken up again as soon as it answers.`,
        how: 'Asked several times a second; each answer may take four seconds.',
        fixes: [],
      })
    if (p.state === 'printing' && p.why === 'vat-empty')
      return of('vat', {
        level: 'problem',
        value: (p.vat ?? 0).toFixed(0),
        unit: 'ml in the vat',
        sentence: `${p.name} stands still at ${at}: too little resin covers the film. Fill the vat, then let it go on; ${p.needed.toFixed(0)} ml are still to come.`,
        how: 'The printer’s own level; what is to come by the areas of the layers left.',
        fixes: [
          {
            act: 'refill',
            plate: p.id,
            label: `Filled up with ${fill(p.needed)} ml`,
            effect: 'the printer is told, and goes on',
          },
        ],
      })
    if (p.state === 'printing' && p.doing === 'interrupted')
      return of('power', {
        level: 'problem',
        value: p.layer.toLocaleString(),
        unit: 'layers before a power cut',
        sentence: `${p.name} was cut off at ${at}. It can go on from there; a line will show where it stood, and resin that stood for hours wants stirring first.`,
        how: 'The printer keeps how far it was, and the job.',
        fixes: [{ act: 'resume', plate: p.id, label: 'Go on', effect: `from layer ${p.layer + 1}` }],
      })
    if (p.state === 'printing' && p.vat !== null && p.vat < p.needed)
      return of('vat-soon', {
        level: 'warning',
        value: (p.needed - p.vat).toFixed(0),
        unit: 'ml more than the vat has',
        sentence: `${p.needed.toFixed(0)} ml are still to be printed and ${p.vat.toFixed(0)} are in the vat of ${p.name}: it will stand still before the end. Top it up in time.`,
        how: 'The printer’s own level against the areas of the layers left.',
        fixes: [],
      })
    if (p.state === 'ended')
      return of('look', {
        level: 'warning',
        value: '1',
        unit: 'plate to look over',
        sentence: `${p.name}${p.layer < p.layers ? ` ended at ${at}` : ' is printed'}. Take it off, look it over, and say how each part came out: the next prints learn from it.`,
        how: '',
        fixes: [{ act: 'judge', plate: p.id, label: 'Look it over', effect: 'part by part' }],
      })
    if (p.failed > 0 && !p.reprinted)
      return of('failed', {
        level: 'problem',
        value: String(p.failed),
        unit: `${p.failed === 1 ? 'part' : 'parts'} failed`,
        sentence:
          'Change the one thing that most likely did it, then print just these again, or only the piece that broke off.',
        how: 'As judged by hand, or by what the device saw.',
        fixes: [{ act: 'judge', plate: p.id, label: 'See why', effect: 'causes, and what to print again' }],
      })
    return []
  })
}

/** What is filled in at once: the rest and a reserve, in fifties. */
export const fill = (needed: number): number => Math.ceil((needed + 30) / 50) * 50

export const platesGoOn = rule({
  title: 'no plate waits for a hand',
  stages: ['print'],
  inputs: ['platesAtWork'],
  find: ({ platesAtWork }) => printTrouble(platesAtWork),
})
