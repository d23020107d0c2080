import { BENCH } from '../../defaults/bench'
import { FILM_ML_PER_MM2 } from '../../print/slice/printer'
import type { Caution } from '../materials/cautions'
import { waitingIn, type Room } from '../materials/drying'
import type { Schools } from '../../defaults/plan'

/** A part as it comes off the plate. */
export interface WashedPart {
  name: string
  /** mm² of all its skin, cavities included, and of its supports */
  area: number
  supportArea: number
  /** mm */
  height: number
  hollow: boolean
  /** mm, of each drilled hole */
  holes: readonly number[]
  clear: boolean
  tips: number
}
export interface CleanFacts {
  parts: readonly WashedPart[]
  strip: Schools['strip']
  room: Room
}
export type Program = 'wash' | 'dry' | 'cure'
export interface CleanStep {
  /** stable, so that what is ticked stays ticked */
  key: 'drain' | 'strip' | 'wash' | 'rinse' | 'flush' | 'dry' | 'cure' | 'inside' | 'feel'
  title: string
  why: string
  /** s of hands-on work, and s to wait or to let a machine run */
  handsOn: number
  wait: number
  /** what a washing and curing station can do of it */
  program: Program | null
  materials: string[]
  cautions: Caution[]
}

const MIN = 60
const CM2 = 100
/** Holes that a small lamp or a light guide passes, mm. */
const LIT = 8
/** ml that hang in a cavity's corners however long it drains, per hollow part */
const LEFT_INSIDE = 1.5
/** Share of the film that the first bath takes; the second takes the rest. */
const FIRST_BATH = 0.9

/** mm² that go into the baths: supports too, unless they are off by then. */
const washedArea = (parts: readonly WashedPart[], strip: CleanFacts['strip']): number =>
  parts.reduce((s, p) => s + p.area + (strip === 'beforeWash' ? 0 : p.supportArea), 0)

/** ml of resin that a run carries into its baths: the film on all that is washed, and what hangs in the cavities. */
export function carryOver(parts: readonly WashedPart[], strip: CleanFacts['strip']): { first: number; second: number } {
  const film = washedArea(parts, strip) * FILM_ML_PER_MM2 + LEFT_INSIDE * parts.filter((p) => p.hollow).length
  return { first: FIRST_BATH * film, second: (1 - FIRST_BATH) * film }
}

/** Clean up of what one plate holds, in order, by size, clear or opaque, hollow or solid, and when supports come off. */
export function cleanUp({ parts, strip, room }: CleanFacts): CleanStep[] {
  const area = washedArea(parts, strip),
    tips = parts.reduce((s, p) => s + p.tips, 0),
    tallest = Math.max(0, ...parts.map((p) => p.height))
  const hollow = parts.filter((p) => p.hollow),
    holes = hollow.reduce((s, p) => s + p.holes.length, 0)
  const named = (list: readonly WashedPart[]): string => [...new Set(list.map((p) => p.name))].join(', ')
  const steps: CleanStep[] = []
  const strips = (): void => {
    if (tips === 0) return
    const cured = strip === 'afterCure'
    steps.push({
      key: 'strip',
      title: 'Remove the supports',
      why: `${tips} tips. ${cured ? 'Cured, they break hard and leave deeper scars.' : 'Still soft, they come away clean; warm water helps.'}`,
      handsOn: BENCH.strip.setUp + tips * (cured ? BENCH.strip.curedTip : BENCH.strip.tip),
      wait: 0,
      program: null,
      materials: cured ? ['flush cutters'] : ['flush cutters', 'warm water, about 45 °C'],
      cautions: ['resin', 'blade'],
    })
  }
  steps.push({
    key: 'drain',
    title: hollow.length > 0 ? 'Let it drain over the vat, holes down' : 'Let it drain over the vat',
    why:
      hollow.length > 0
        ? `Resin that drains from ${named(hollow)} now does not dirty the bath.`
        : 'Resin that drains now does not dirty the bath.',
    handsOn: BENCH.drain.handsOn,
    wait: (hollow.length > 0 ? BENCH.drain.hollow : BENCH.drain.solid) * 2 ** ((20 - room.temperature) / 10),
    program: null,
    materials: ['vat or tray'],
    cautions: ['resin'],
  })
  if (strip === 'beforeWash') strips()
  const bath = Math.min(6, 2 + area / (400 * CM2)) * MIN
  steps.push({
    key: 'wash',
    title: 'Wash in the first, dirty bath',
    why: `${(area / CM2).toFixed(0)} cm² carry ${carryOver(parts, strip).first.toFixed(1)} ml of resin into it. Longer than ${Math.ceil(bath / MIN) + 4} min softens thin walls.`,
    handsOn: BENCH.wash.bath,
    wait: bath,
    program: 'wash',
    materials: ['first bath'],
    cautions: ['resin', 'solvent'],
  })
  if (holes > 0)
    steps.push({
      key: 'flush',
      title: 'Flush every cavity through its holes',
      why: `${named(hollow)}: ${holes} ${holes === 1 ? 'hole' : 'holes'}. Flush in at one hole and out at the other, until the liquid is clear.`,
      handsOn: holes * BENCH.wash.flush,
      wait: 0,
      program: null,
      materials: ['syringe', 'clean liquid'],
      cautions: ['resin', 'solvent'],
    })
  steps.push({
    key: 'rinse',
    title: 'Wash in the second, clean bath',
    why: 'Removes what the dirty bath leaves. A remaining film stays tacky under primer.',
    handsOn: BENCH.wash.rinse,
    wait: 0.6 * bath,
    program: 'wash',
    materials: ['second bath'],
    cautions: ['resin', 'solvent'],
  })
  if (strip === 'afterWash') strips()
  steps.push({
    key: 'dry',
    title: hollow.length > 0 ? 'Dry it, inside as well' : 'Dry it completely',
    why: `Liquid left under the lamp leaves white marks. ${room.temperature.toFixed(0)} °C and ${room.humidity.toFixed(0)} % here.`,
    handsOn: MIN,
    wait: waitingIn(room, hollow.length > 0 ? BENCH.wash.dryHollow : BENCH.wash.drySolid, 'evaporation'),
    program: 'dry',
    materials: ['lint-free cloth'],
    cautions: ['solvent'],
  })
  const clear = parts.filter((p) => p.clear)
  const full = Math.min(10, Math.max(2, 2 + tallest / 40))
  const minutes = clear.length > 0 ? Math.min(2, full) : full
  steps.push({
    key: 'cure',
    title: 'Cure it, turning it once',
    why:
      clear.length > 0
        ? `${minutes.toFixed(0)} min: ${named(clear)} ${clear.length === 1 ? 'is' : 'are'} clear and would turn yellow. Opaque parts of ${tallest.toFixed(0)} mm need ${full.toFixed(0)} min: cure them separately.`
        : `${minutes.toFixed(0)} min for ${tallest.toFixed(0)} mm.`,
    handsOn: BENCH.cure.setUp,
    wait: minutes * MIN,
    program: 'cure',
    materials: ['curing lamp'],
    cautions: ['uv', 'resin'],
  })
  if (hollow.length > 0) {
    const lit = hollow.filter((p) => p.holes.some((d) => d >= LIT))
    steps.push({
      key: 'inside',
      title: 'Cure the inside of hollow parts',
      why:
        lit.length === hollow.length
          ? `${named(hollow)}: put a small lamp in through the widest hole.`
          : `${named(hollow.filter((p) => !lit.includes(p)))}: no hole of ${LIT} mm for a lamp. Light it through the holes from all sides, for longer.`,
      handsOn: BENCH.cure.inside * hollow.length,
      wait: lit.length === hollow.length ? BENCH.cure.lampInside : BENCH.cure.throughHoles,
      program: null,
      materials: ['small curing lamp or light guide'],
      cautions: ['uv'],
    })
  }
  if (strip === 'afterCure') strips()
  steps.push({
    key: 'feel',
    title: 'Check for tacky spots',
    why: 'Where a gloved finger sticks, wash the spot with clean liquid, dry it and cure it again.',
    handsOn: MIN,
    wait: 0,
    program: null,
    materials: [],
    cautions: ['resin'],
  })
  return steps
}

export interface Bath {
  litres: number
  /** ml of resin in it */
  resin: number
  /** % of resin by volume at which it no longer cleans */
  limit: number
}
/** How full of resin a bath is, in % by volume, and how many more runs like this it takes. */
export function saturation(bath: Bath, more: number): { now: number; after: number; runs: number } {
  const share = (ml: number): number => (100 * ml) / Math.max(1, 1000 * bath.litres)
  const room = (bath.limit / 100) * 1000 * bath.litres - bath.resin
  return {
    now: share(bath.resin),
    after: share(bath.resin + more),
    runs: more > 0 ? Math.max(0, Math.floor(room / more)) : Infinity,
  }
}
