import { BENCH } from '../../defaults/bench'
import { FILM_ML_PER_MM2 } from '../../print/slice/printer'
import type { Caution } from '../materials/cautions'
import { waitingIn, type Room } from '../materials/drying'
import type { Schools } from '../../defaults/plan'
import { fixed } from '../../words/format'
import { message } from '../../words/message'
import type { Said } from '../../words/say'

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
  title: Said
  why: Said
  /** s of hands-on work, and s to wait or to let a machine run */
  handsOn: number
  wait: number
  /** what a washing and curing station can do of it */
  program: Program | null
  materials: Said[]
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
  const named = (list: readonly WashedPart[]): string[] => [...new Set(list.map((p) => p.name))]
  const steps: CleanStep[] = []
  const strips = (): void => {
    if (tips === 0) return
    const cured = strip === 'afterCure'
    steps.push({
      key: 'strip',
      title: message('steps.cleanUp.removeTheSupports'),
      why: message('steps.cleanUp.tipsCuredTheyBreakHard', { tips, cured }),
      handsOn: BENCH.strip.setUp + tips * (cured ? BENCH.strip.curedTip : BENCH.strip.tip),
      wait: 0,
      program: null,
      materials: cured
        ? [message('steps.cleanUp.flushCutters')]
        : [message('steps.cleanUp.flushCutters'), message('steps.cleanUp.warmWaterAbout45C')],
      cautions: ['resin', 'blade'],
    })
  }
  steps.push({
    key: 'drain',
    title: hollow.length > 0 ? message('steps.cleanUp.letItDrainOverThe') : message('steps.cleanUp.letItDrainOverThe2'),
    why:
      hollow.length > 0
        ? message('steps.cleanUp.resinThatDrainsFromNow', { named: named(hollow) })
        : message('steps.cleanUp.resinThatDrainsNowDoes'),
    handsOn: BENCH.drain.handsOn,
    wait: (hollow.length > 0 ? BENCH.drain.hollow : BENCH.drain.solid) * 2 ** ((20 - room.temperature) / 10),
    program: null,
    materials: [message('steps.cleanUp.vatOrTray')],
    cautions: ['resin'],
  })
  if (strip === 'beforeWash') strips()
  const bath = Math.min(6, 2 + area / (400 * CM2)) * MIN
  steps.push({
    key: 'wash',
    title: message('steps.cleanUp.washInTheFirstDirty'),
    why: message('steps.cleanUp.cmCarryMlOfResin', {
      area: fixed(area / CM2, 0),
      first: fixed(carryOver(parts, strip).first, 1),
      n: Math.ceil(bath / MIN) + 4,
    }),
    handsOn: BENCH.wash.bath,
    wait: bath,
    program: 'wash',
    materials: [message('steps.cleanUp.firstBath')],
    cautions: ['resin', 'solvent'],
  })
  if (holes > 0)
    steps.push({
      key: 'flush',
      title: message('steps.cleanUp.flushEveryCavityThroughIts'),
      why: message('steps.cleanUp.holeHolesFlushInAt', { named: named(hollow), holes }),
      handsOn: holes * BENCH.wash.flush,
      wait: 0,
      program: null,
      materials: [message('steps.cleanUp.syringe'), message('steps.cleanUp.cleanLiquid')],
      cautions: ['resin', 'solvent'],
    })
  steps.push({
    key: 'rinse',
    title: message('steps.cleanUp.washInTheSecondClean'),
    why: message('steps.cleanUp.removesWhatTheDirtyBath'),
    handsOn: BENCH.wash.rinse,
    wait: 0.6 * bath,
    program: 'wash',
    materials: [message('steps.cleanUp.secondBath')],
    cautions: ['resin', 'solvent'],
  })
  if (strip === 'afterWash') strips()
  steps.push({
    key: 'dry',
    title: hollow.length > 0 ? message('steps.cleanUp.dryItInsideAsWell') : message('steps.cleanUp.dryItCompletely'),
    why: message('steps.cleanUp.liquidLeftUnderTheLamp', {
      temperature: fixed(room.temperature, 0),
      humidity: fixed(room.humidity, 0),
    }),
    handsOn: MIN,
    wait: waitingIn(room, hollow.length > 0 ? BENCH.wash.dryHollow : BENCH.wash.drySolid, 'evaporation'),
    program: 'dry',
    materials: [message('steps.cleanUp.lintFreeCloth')],
    cautions: ['solvent'],
  })
  const clear = parts.filter((p) => p.clear)
  const full = Math.min(10, Math.max(2, 2 + tallest / 40))
  const minutes = clear.length > 0 ? Math.min(2, full) : full
  steps.push({
    key: 'cure',
    title: message('steps.cleanUp.cureItTurningItOnce'),
    why:
      clear.length > 0
        ? message('steps.cleanUp.minIsAreClearAnd', {
            minutes: fixed(minutes, 0),
            named: named(clear),
            length: clear.length,
            tallest: fixed(tallest, 0),
            full: fixed(full, 0),
          })
        : message('steps.cleanUp.minForMm', { minutes: fixed(minutes, 0), tallest: fixed(tallest, 0) }),
    handsOn: BENCH.cure.setUp,
    wait: minutes * MIN,
    program: 'cure',
    materials: [message('steps.cleanUp.curingLamp')],
    cautions: ['uv', 'resin'],
  })
  if (hollow.length > 0) {
    const lit = hollow.filter((p) => p.holes.some((d) => d >= LIT))
    steps.push({
      key: 'inside',
      title: message('steps.cleanUp.cureTheInsideOfHollow'),
      why:
        lit.length === hollow.length
          ? message('steps.cleanUp.putASmallLampIn', { named: named(hollow) })
          : message('steps.cleanUp.noHoleOfMmFor', { named: named(hollow.filter((p) => !lit.includes(p))), lit: LIT }),
      handsOn: BENCH.cure.inside * hollow.length,
      wait: lit.length === hollow.length ? BENCH.cure.lampInside : BENCH.cure.throughHoles,
      program: null,
      materials: [message('steps.cleanUp.smallCuringLampOrLight')],
      cautions: ['uv'],
    })
  }
  if (strip === 'afterCure') strips()
  steps.push({
    key: 'feel',
    title: message('steps.cleanUp.checkForTackySpots'),
    why: message('steps.cleanUp.whereAGlovedFingerSticks'),
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
