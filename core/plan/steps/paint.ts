import { BENCH } from '../../defaults/bench'
import { hexToLab } from '../../paint/optics/colour'
import { coatDries, coatTime, paintFor } from '../../paint/coats/batch'
import { BESIDES } from '../../paint/coats/undercoat'
import { waitingIn } from '../materials/drying'
import { primerFor } from '../materials/primer'
import { sealsBetween, type Seal } from '../facts/seals'
import { varnishFor, VARNISH_DRIES, VARNISH_LANDS } from '../facts/varnish'
import { DM2, type PlanBuilder } from './builder'
import { stepOf } from './surface'
import type { PlanFacts } from './types'
import { fixed } from '../../words/format'
import { message } from '../../words/message'

/** Share of the steps that is left where a hand with paper gets to. */
const LEFT_AFTER_SANDING = 0.15

/** How often it will be primed and looked over: the loop ends when a pass finds nothing, however many were expected. */
function passesOf({ inspection, finish }: PlanFacts): number {
  const expected = finish === 'shelf' ? 1 : finish === 'display' ? 2 : 3
  const looked = inspection?.passes ?? 0
  return inspection?.closed ? looked : Math.max(expected, looked + (inspection && inspection.open.length > 0 ? 1 : 0))
}
const colourOf = ({ schools }: PlanFacts): string => (schools.undercoat === 'zenithal' ? 'black' : schools.undercoat)
/** L* from which primer covers as badly as white does. */
const PALE = 80
const pale = (f: PlanFacts): boolean =>
  f.schools.undercoat === 'white' || (f.schools.undercoat === 'tinted' && hexToLab(f.tint)[0] > PALE)

/** Primer of one pass. */
function primerOf(f: PlanFacts, pass: number): ReturnType<typeof primerFor> {
  const { cusp, tight } = stepOf(f)
  const area = f.parts.reduce((s, p) => s + (p.clear ? 0 : p.area), 0)
  return primerFor(pass === 1 ? cusp : LEFT_AFTER_SANDING * cusp, area, tight * area, pale(f) ? 2 : 1)
}

/** What lies over the sculpt's relief before the first colour, and what sanding takes off its crests to level the layers, mm. */
export function overDetail(f: PlanFacts): { primer: number; sanded: number } {
  if (f.parts.every((p) => p.clear)) return { primer: 0, sanded: stepOf(f).cusp / 1000 }
  let film = 0
  for (let pass = 1; pass <= passesOf(f); pass++) film += primerOf(f, pass).film
  return { primer: film / 1000, sanded: stepOf(f).cusp / 1000 }
}

const NO_PRIMER = {
  glue: message('steps.paint.glueHoldsOnBareResin'),
  light: message('steps.paint.itIsClearAndPrimer'),
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
    colour = colourOf(b.facts),
    tinted = colour === 'tinted' ? b.facts.tint : null
  for (let pass = 1; pass <= passes; pass++) {
    const p = primerOf(b.facts, pass)
    const coats = p.filler + p.plain
    // What is open is mended in the pass under way, or else in the next.
    const known = inspection && pass === Math.max(1, looked) ? inspection.open : []
    b.add({
      key: `prime-${pass}`,
      phase: 'Prime',
      title: message('steps.paint.primePassOf', { colour, pass, passes }),
      why: message('steps.paint.primerShowsFlawsThatBare', { pass, why: p.why, film: Math.round(p.film) }),
      handsOn:
        (tinted && pass === 1 ? BESIDES.tinted! : 0) +
        BENCH.prime.setUp +
        coats * (BENCH.prime.coat + (BENCH.prime.coatDm2 * area) / DM2),
      wait: BENCH.prime.dries * coats + BENCH.prime.last + (p.filler > 0 ? BENCH.prime.fillerDries : 0),
      setting: 'evaporation',
      needs: 'airbrush',
      cautions: ['spray'],
      lines: [
        ...(tinted && pass === 1
          ? [
              message('steps.paint.itHasTheColourMix', {
                tinted,
                passes,
              }),
            ]
          : []),
        ...b.facts.unprimed.map((r) => message('steps.paint.coverFirst', { name: r.name, takes: NO_PRIMER[r.takes] })),
      ],
      materials: [
        ...(p.filler > 0
          ? [
              message('steps.paint.fillerPrimerCoatsCoatMl', {
                coats: p.filler,
                ml: fixed(p.ml.filler, 1),
              }),
            ]
          : []),
        message('steps.paint.primerCoatsCoatMlIn', {
          colour,
          coats: p.plain,
          ml: fixed(p.ml.plain, 1),
        }),
      ],
      uses: [
        ...(p.filler > 0 ? [{ what: 'primer:filler', amount: p.ml.filler }] : []),
        { what: `primer:${colour}`, amount: p.ml.plain },
      ],
      setup: { key: `spray primer, ${colour}`, seconds: BENCH.prime.setUp },
      recoat: coats > 1 ? Math.round(waitingIn(b.facts.room, BENCH.prime.dries, 'evaporation')) : null,
    })
    b.add({
      key: `inspect-${pass}`,
      phase: 'Prime',
      title: message('steps.paint.inspectUnderRakingLightRepair', { pass }),
      why: message('steps.paint.repeatUntilAPassFinds'),
      handsOn:
        b.care * (BENCH.inspect.pass + (BENCH.inspect.dm2 * area) / DM2) + known.reduce((s, f) => s + f.handsOn, 0),
      waiting: Math.max(0, ...known.map((f) => f.wait)),
      lines: known.map((f) => f.title),
      needs: 'bench',
      cautions: ['dust'],
      materials: [message('steps.paint.solventPutty'), message('steps.paint.grit600')],
      uses: known.length > 0 ? [{ what: 'filler:solvent', amount: 0.1 * known.length }] : [],
      tools: [message('steps.paint.rakingLight')],
    })
  }
  if (schools.undercoat === 'zenithal')
    b.add({
      key: 'zenithal',
      phase: 'Prime',
      title: message('steps.paint.sprayWhiteFromAbove'),
      why: message('steps.paint.lightAndShadeAreOn'),
      handsOn: BESIDES.zenithal!,
      wait: BENCH.prime.dries,
      setting: 'evaporation',
      needs: 'airbrush',
      cautions: ['spray'],
      lines: b.facts.unprimed.map((r) => message('steps.paint.staysCovered', { name: r.name })),
      materials: [message('steps.paint.primerWhite')],
      uses: [{ what: 'primer:white', amount: primerFor(0, area, 0, 1).ml.plain / 2 }],
      setup: { key: 'spray primer, white', seconds: BENCH.prime.setUp },
    })
}

function addSeal(b: PlanBuilder, { regions, area, why }: Seal, key: string): void {
  b.add({
    key,
    phase: 'Paint',
    title: message('steps.paint.sealWithGloss', { regions }),
    why,
    handsOn: BENCH.seal.setUp + coatTime(area * b.care, 'airbrush'),
    wait: VARNISH_DRIES,
    setting: 'evaporation',
    needs: 'airbrush',
    cautions: ['spray'],
    materials: [message('steps.paint.varnishGloss')],
    uses: [{ what: 'varnish:gloss', amount: varnishFor(area, VARNISH_LANDS) }],
    setup: { key: 'spray varnish, gloss', seconds: BENCH.varnish.spraySetUp },
  })
}

/** The scheme's coats, in painting order, with what has to be sealed between them. */
export function paintSteps(b: PlanBuilder): void {
  const seals = sealsBetween(b.facts.coats)
  b.facts.coats.forEach((c, i) => {
    seals.forEach((s, k) => {
      if (s.before === i) addSeal(b, s, `seal-${c.nth ?? i}-${k}`)
    })
    const tool = c.byAirbrush ? 'airbrush' : 'brush'
    const ml = paintFor(c.area, c.coats, tool)
    /** s that one coat takes to dry */
    const dries = c.technique === 'wash' ? BENCH.coat.washDries : coatDries(tool)
    const each = coatTime(c.area * b.care, tool)
    if (c.masks)
      b.add({
        key: `mask-${c.nth ?? i}-${c.region}`,
        phase: 'Paint',
        title: message('steps.paint.maskAlongMm', { names: c.masks.names, mm: Math.round(c.masks.mm) }),
        why: message('steps.paint.isSprayedBesideItThem', { region: c.region, length: c.masks.names.length }),
        handsOn: c.masks.seconds,
        needs: 'bench',
        materials: [message('steps.paint.maskingTapePuttyOrLiquid')],
      })
    b.add({
      key: `coat-${c.nth ?? i}-${c.region}-${c.technique}`,
      phase: 'Paint',
      title: message('steps.paint.coats', {
        region: c.region,
        technique: message(`vocabulary.technique.${c.technique}`),
        paint: c.paint,
        c: c.coats > 1,
        coats: c.coats,
      }),
      why:
        c.coats > 1
          ? message('steps.paint.thinCoatsCoverWhatIs', { coats: c.coats })
          : message('steps.paint.onePassByTheScheme'),
      handsOn: c.coats * each,
      wait: dries * c.coats,
      setting: 'evaporation',
      needs: c.byAirbrush ? 'airbrush' : 'bench',
      cautions: c.byAirbrush ? ['mist'] : [],
      materials: [message('steps.paint.ml', { paint: c.paint, ml: fixed(ml, 2) })],
      recoat: c.coats > 1 ? Math.round(waitingIn(b.facts.room, dries, 'evaporation')) : null,
      uses: c.mix.map((m) => ({ what: `paint:${m.id}`, amount: m.share * ml })),
      setup: {
        // By what is in it, not by its words: another mix has to be cleaned for.
        key: [c.byAirbrush ? 'airbrush' : 'brush', ...c.mix.map((m) => `${m.id} ${m.share.toFixed(3)}`)].join(', '),
        seconds: c.byAirbrush ? BENCH.coat.airbrush : BENCH.coat.brush,
      },
    })
  })
}
