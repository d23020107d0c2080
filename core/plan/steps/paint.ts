import { coatDries, coatTime, paintFor } from '../../paint/batch'
import { waitingIn } from '../drying'
import { primerFor } from '../primer'
import { varnishPasses } from '../varnish'
import { capital, DM2, MIN, type PlanBuilder } from './builder'
import { stepOf } from './surface'
import type { PlanFacts } from './types'

/** Share of the steps that is left where a hand with paper gets to. */
const LEFT_AFTER_SANDING = 0.15

/** mm of wet varnish, and the share of it that lands on the piece. */
const VARNISH_FILM = 0.05,
  VARNISH_LANDS = 0.4

/** How often it will be primed and looked over: the loop ends when a pass finds nothing, however many were expected. */
function passesOf({ inspection, finish }: PlanFacts): number {
  const expected = finish === 'shelf' ? 1 : finish === 'display' ? 2 : 3
  const looked = inspection?.passes ?? 0
  return inspection?.closed ? looked : Math.max(expected, looked + (inspection && inspection.open.length > 0 ? 1 : 0))
}
const colourOf = ({ schools }: PlanFacts): string => (schools.undercoat === 'zenithal' ? 'black' : schools.undercoat)

/** Primer of one pass. */
function primerOf(f: PlanFacts, pass: number): ReturnType<typeof primerFor> {
  const { cusp, tight } = stepOf(f)
  const area = f.parts.reduce((s, p) => s + (p.clear ? 0 : p.area), 0)
  return primerFor(pass === 1 ? cusp : LEFT_AFTER_SANDING * cusp, area, tight * area, colourOf(f) === 'white' ? 2 : 1)
}

/** What lies over the sculpt's relief before the first colour, and what sanding takes off its crests to level the layers, mm. */
export function overDetail(f: PlanFacts): { primer: number; sanded: number } {
  if (f.parts.every((p) => p.clear)) return { primer: 0, sanded: stepOf(f).cusp / 1000 }
  let film = 0
  for (let pass = 1; pass <= passesOf(f); pass++) film += primerOf(f, pass).film
  return { primer: film / 1000, sanded: stepOf(f).cusp / 1000 }
}

/** Primer and inspection, pass by pass, and the light from above where that is the undercoat. */
export function primeSteps(b: PlanBuilder): void {
  const { parts, schools } = b.facts
  const area = parts.reduce((s, p) => s + (p.clear ? 0 : p.area), 0)
  // Clear parts get no primer.
  if (parts.every((p) => p.clear)) return
  const { inspection } = b.facts
  const looked = inspection?.passes ?? 0,
    passes = passesOf(b.facts),
    colour = colourOf(b.facts)
  for (let pass = 1; pass <= passes; pass++) {
    const p = primerOf(b.facts, pass)
    const coats = p.filler + p.plain
    // What is open is mended in the pass under way, or else in the next.
    const known = inspection && pass === Math.max(1, looked) ? inspection.open : []
    b.add({
      key: `prime-${pass}`,
      phase: 'Prime',
      title: `Prime ${colour}, pass ${pass} of ${passes}`,
      why: `${pass === 1 ? 'Primer shows what bare resin hid.' : 'The pass before was sanded where flaws were mended.'} ${p.why} ${Math.round(p.film)} µm in all.`,
      handsOn: 3 * MIN + coats * (1.5 * MIN + (MIN * area) / DM2),
      wait: 20 * MIN * coats + 10 * MIN + (p.filler > 0 ? 120 * MIN : 0),
      setting: 'evaporation',
      needs: 'airbrush',
      cautions: ['spray'],
      materials: [
        ...(p.filler > 0
          ? [`filler primer, ${p.filler} ${p.filler > 1 ? 'coats' : 'coat'}: ${p.ml.filler.toFixed(1)} ml in the can`]
          : []),
        `primer, ${colour}, ${p.plain} ${p.plain > 1 ? 'coats' : 'coat'}: ${p.ml.plain.toFixed(1)} ml in the can`,
      ],
      uses: [
        ...(p.filler > 0 ? [{ what: 'primer:filler', amount: p.ml.filler }] : []),
        { what: `primer:${colour}`, amount: p.ml.plain },
      ],
      setup: { key: `spray primer, ${colour}`, seconds: 3 * MIN },
      recoat: coats > 1 ? Math.round(waitingIn(b.facts.room, 20 * MIN, 'evaporation')) : null,
    })
    b.add({
      key: `inspect-${pass}`,
      phase: 'Prime',
      title: `Inspect under raking light, mend, pass ${pass}`,
      why: 'A pass that finds nothing ends the loop.',
      handsOn: b.care * (4 * MIN + (3 * MIN * area) / DM2) + known.reduce((s, f) => s + f.handsOn, 0),
      waiting: Math.max(0, ...known.map((f) => f.wait)),
      lines: known.map((f) => f.title),
      needs: 'bench',
      cautions: ['dust'],
      materials: ['solvent putty', 'grit 600'],
      uses: known.length > 0 ? [{ what: 'filler:solvent', amount: 0.1 * known.length }] : [],
      tools: ['raking light'],
    })
  }
  if (schools.undercoat === 'zenithal')
    b.add({
      key: 'zenithal',
      phase: 'Prime',
      title: 'Spray white from above',
      why: 'Light and shade stand on the sculpt before the first colour.',
      handsOn: 6 * MIN,
      wait: 20 * MIN,
      setting: 'evaporation',
      needs: 'airbrush',
      cautions: ['spray'],
      materials: ['primer, white'],
      uses: [{ what: 'primer:white', amount: primerFor(0, area, 0, 1).ml.plain / 2 }],
      setup: { key: 'spray primer, white', seconds: 3 * MIN },
    })
}

/** The scheme's coats, in painting order. */
export function paintSteps(b: PlanBuilder): void {
  b.facts.coats.forEach((c, i) => {
    const tool = c.byAirbrush ? 'airbrush' : 'brush'
    const ml = paintFor(c.area, c.coats, tool)
    /** s that one coat takes to dry */
    const dries = c.technique === 'wash' ? 60 * MIN : coatDries(tool)
    const each = coatTime(c.area * b.care, tool)
    if (c.masks)
      b.add({
        key: `mask-${c.nth ?? i}-${c.region}`,
        phase: 'Paint',
        title: `Mask ${listed(c.masks.names)} along ${Math.round(c.masks.mm)} mm`,
        why: `${c.region} is sprayed beside ${c.masks.names.length === 1 ? 'it' : 'them'}. What is covered must be dry through, or tape lifts it.`,
        handsOn: c.masks.seconds,
        needs: 'bench',
        materials: ['masking tape, putty or liquid mask'],
      })
    b.add({
      key: `coat-${c.nth ?? i}-${c.region}-${c.technique}`,
      phase: 'Paint',
      title: `${c.region}: ${c.technique}, ${c.paint}${c.coats > 1 ? `, ${c.coats} coats` : ''}`,
      why:
        c.coats > 1
          ? `${c.coats} thin coats hide what lies below; one thick one drowns detail.`
          : 'One pass by the scheme.',
      handsOn: c.coats * each,
      wait: dries * c.coats,
      setting: 'evaporation',
      needs: c.byAirbrush ? 'airbrush' : 'bench',
      cautions: c.byAirbrush ? ['mist'] : [],
      materials: [`${c.paint}: ${ml.toFixed(2)} ml`],
      recoat: c.coats > 1 ? Math.round(waitingIn(b.facts.room, dries, 'evaporation')) : null,
      uses: c.mix.map((m) => ({ what: `paint:${m.id}`, amount: m.share * ml })),
      setup: {
        key: `${c.byAirbrush ? 'airbrush' : 'brush'} ${c.paint}`,
        // Laid out, mixed and cleaned up once.
        seconds: c.byAirbrush ? 3 * MIN : MIN,
      },
    })
  })
}

const listed = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`

/** Varnish, pass by pass; before there is a scheme one step stands for all of it. */
export function finishSteps(b: PlanBuilder): void {
  const { schools, varnish, parts, finishes } = b.facts
  if (finishes.length > 0) return byRegion(b)
  const area = parts.reduce((s, p) => s + p.area, 0)
  const matt = schools.finalCoat === 'oneMatt'
  b.add({
    key: 'varnish',
    phase: 'Finish',
    title: matt ? 'Matt coat over all, then gloss accents' : `Varnish ${varnish}, each region its own finish`,
    why: matt
      ? 'Handling rubs paint off. Metallics are masked first: matt kills them.'
      : 'Handling rubs paint off; each material keeps its sheen.',
    handsOn: (matt ? 8 : 14) * MIN + (2 * MIN * area) / DM2,
    wait: VARNISH_CURES,
    setting: 'evaporation',
    needs: 'airbrush',
    cautions: ['spray'],
    materials: [`varnish, ${varnish}`],
    uses: [{ what: `varnish:${varnish}`, amount: varnishFor(area, VARNISH_LANDS) }],
    setup: { key: `spray varnish, ${varnish}`, seconds: 5 * MIN },
    risks: [{ what: 'metallics or gloss dulled', chance: matt ? 0.1 : 0.03, costs: 30 * MIN }],
  })
}
/** s until it may be handled; until the next pass may follow */
const VARNISH_CURES = 24 * 3600,
  VARNISH_DRIES = 30 * MIN
/** ml for mm² */
const varnishFor = (area: number, lands: number): number => (area * VARNISH_FILM) / 1000 / lands

function byRegion(b: PlanBuilder): void {
  const { schools, varnish, finishes } = b.facts
  const { seal, passes, bare } = varnishPasses(finishes, schools.finalCoat, varnish)
  if (seal.length > 0)
    b.add({
      key: 'seal-powder',
      phase: 'Finish',
      title: `Seal the powder on ${listed(seal)}`,
      why: 'A finger wipes powder off. A mist from farther away than usual binds it without washing it along.',
      handsOn: 6 * MIN,
      wait: VARNISH_DRIES,
      setting: 'evaporation',
      needs: 'airbrush',
      cautions: ['spray'],
      materials: ['varnish, matt, as a mist'],
      uses: [{ what: 'varnish:matt', amount: varnishFor(areaNamed(finishes, seal), VARNISH_LANDS) / 2 }],
      setup: { key: 'spray varnish, matt', seconds: 5 * MIN },
    })
  passes.forEach((p, i) => {
    const sprayed = p.tool === 'airbrush'
    const last = i === passes.length - 1
    b.add({
      key: p.key,
      phase: 'Finish',
      title: `Varnish ${p.sheen}: ${listed(p.regions)}${sprayed ? '' : ', by brush'}`,
      why: p.why,
      lines: [
        ...(p.masks.length > 0 ? [`Mask ${listed(p.masks)}, ${Math.round(p.mm)} mm of edge.`] : []),
        ...(last && bare.length > 0 ? [`${capital(listed(bare))} stays bare: do not touch it with bare fingers.`] : []),
      ],
      handsOn: 3 * MIN + p.masking + (b.care * (sprayed ? 2 : 8) * MIN * p.area) / DM2,
      wait: last ? VARNISH_CURES : VARNISH_DRIES,
      setting: 'evaporation',
      needs: sprayed ? 'airbrush' : 'bench',
      cautions: sprayed ? ['spray'] : ['fumes'],
      materials: [`varnish, ${p.sheen}: ${varnishFor(p.area, sprayed ? VARNISH_LANDS : 0.9).toFixed(1)} ml`],
      uses: [{ what: `varnish:${p.sheen}`, amount: varnishFor(p.area, sprayed ? VARNISH_LANDS : 0.9) }],
      setup: { key: `${sprayed ? 'spray' : 'brush'} varnish, ${p.sheen}`, seconds: (sprayed ? 5 : 1) * MIN },
      risks: p.masks.length > 0 ? [{ what: 'varnish creeps under a mask', chance: 0.04, costs: 20 * MIN }] : [],
    })
  })
}
const areaNamed = (list: PlanFacts['finishes'], names: readonly string[]): number =>
  list.reduce((s, r) => s + (names.includes(r.name) ? r.area : 0), 0)
