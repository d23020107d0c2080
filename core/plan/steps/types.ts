import type { PairFit, Tried } from '../facts/dryFit'
import type { EffectWish } from '../materials/effects'
import type { RegionFinish } from '../facts/varnish'
import type { Caution } from '../materials/cautions'
import type { BenchMaterial } from '../materials/materials'
import type { Room } from '../materials/drying'
import type { OrderCosts, Technique } from '../../defaults/paint'
import type { FinishLevel, Schools } from '../../defaults/plan'
import type { Surface } from '../materials/abrasives'
import type { AccessReport } from '../../fit/access'
import type { SeamClass } from '../../fit/gap'
import type { PinAdvice } from '../../fit/pin'
import type { Cusps } from '../../print/orient/cusps'
import type { Said } from '../../words/say'

export type Phase = 'Print' | 'Clean' | 'Fit' | 'Prime' | 'Paint' | 'Finish'
/** What a step needs to itself: the bench, the airbrush, the curing lamp, or a printer by its name. */
export type Resource = string

/** What may go wrong in a step as it is done here: how likely, and the hands-on time that it then costs. */
export interface Risk {
  what: Said
  chance: number
  /** s */
  costs: number
}

/** So much of a supply, as core/plan/materials/supplies names it. */
export interface Use {
  what: string
  /** ml, mm or sheets: the supply's own unit */
  amount: number
}

export interface PlanStep {
  /** stable between plans of the same piece, so that what is ticked stays ticked */
  key: string
  phase: Phase
  title: Said
  why: Said
  /** s of hands-on work */
  handsOn: number
  /** s until the next step may begin */
  waiting: number
  /** s in which it must be over once begun, as what is mixed sets; null where nothing presses */
  window: number | null
  needs: Resource
  cautions: Caution[]
  /** keys of steps that must be over, waiting included */
  after: string[]
  /** what to have at hand, with quantities */
  materials: Said[]
  /** what of them is used up */
  uses: Use[]
  /** s of its work that are spared right after another step with the same set-up, of whatever piece */
  setup: { key: string; seconds: number } | null
  /** s between its coats; null of what is done in one */
  recoat: number | null
  /** what it needs stays taken while it waits */
  holds: boolean
  /** sprayed: not in cold or damp */
  sprays: boolean
  tools: Said[]
  /** its parts, one line each, where it is several things of a kind */
  lines: Said[]
  risks: Risk[]
}

export interface PlanPart {
  id: string
  name: string
  hollow: boolean
  /** drilled holes: mm, and whether nobody sees them on the finished piece */
  holes: readonly { diameter: number; hidden: boolean }[]
  /** ml of casting resin that its cavities take, where they are to be cast full */
  cast?: number
  /** what supports left: how many tips of which diameter, mm, and how many of them on focal skin */
  scars: readonly { tip: number; count: number; focal: number }[]
  /** mm² */
  area: number
  /** mm */
  height: number
  clear: boolean
  /** as it is made: only resin is washed and cured, and what was cast in metal has no layers */
  process: 'resin' | 'filament' | 'metal'
  /** steps of its layers as it was printed; null: not measured yet */
  cusps: Cusps | null
  /** what tools reach of it by itself; null: not measured yet */
  access: AccessReport | null
}

/** Two parts that meet. */
export interface PlanJoint {
  key: string
  /** ids and names */
  a: { id: string; name: string }
  b: { id: string; name: string }
  fit: PairFit & { area: number; seam: number; seamGaps: readonly SeamClass[] }
  /** what hangs on this joint alone; null where the parts are held elsewhere too */
  load: { mass: number; pin: PinAdvice } | null
  /** a pin or a key was modelled at it */
  fixed: boolean
  /** where it is: its middle, which way it looks out of the first part, mm of a circle as large; null where it was not measured */
  middle: { point: [number, number, number]; outward: [number, number, number]; radius: number } | null
  /** what the seam's skin is, by the regions painted round it; null: nothing is painted there */
  surface: Surface | null
  /** of different stuff */
  mixed: boolean
  /** what a hand found when they were put together dry; null: not tried yet */
  tried: Tried | null
  /** what each loses of its skin to the tools by the other; null: not measured yet */
  access: [AccessReport, AccessReport] | null
}

/** What the plan is made from: measured or chosen, never guessed here. */
export interface PlanFacts {
  parts: readonly PlanPart[]
  joints: readonly PlanJoint[]
  /**
   * what is still to be printed: of a plate that is sliced, or else by the height it will have; s of machine time. Without a
   * printer its time is not known
   */
  prints: readonly {
    key: string
    printer: string | null
    /** the first in stock, as nobody chose one */
    assumed?: boolean
    plate: number | null
    seconds: number
  }[]
  /** printers that print something of it now */
  running: readonly string[]
  layerHeight: number
  finish: FinishLevel
  schools: Schools
  /** what masks and cleaning take */
  orderCosts: OrderCosts
  room: Room
  /** what may be filled and glued with, as this workshop's products have it, and ids of those that are not used on this piece */
  fillers: readonly BenchMaterial[]
  adhesives: readonly BenchMaterial[]
  without: readonly string[]
  /** whether it is due so soon that an adhesive has to be quick */
  hurried: boolean
  /** how often it was looked over by now, and what is left of what was found; null before it was begun */
  inspection: {
    passes: number
    /** the last found nothing, or what is left was accepted */
    closed: boolean
    open: readonly { title: Said; handsOn: number; wait: number }[]
  } | null
  /** kinds of surface, by the scheme's regions; of mm² */
  surfaces: readonly { surface: Surface; names: readonly string[]; area: number }[]
  /** coats in painting order; `nth` in the scheme's own, which names the step whatever the order is */
  coats: readonly {
    nth?: number
    region: string
    technique: Technique
    paint: Said
    /** ids of its paints, and what share of the mix each is */
    mix: readonly { id: string; share: number }[]
    coats: number
    /** mm² */
    area: number
    byAirbrush: boolean
    /** thinned with solvent; metal */
    solvent?: boolean
    metallic?: boolean
    /** what has to be covered for it, and does not stand covered already: along mm of edge, in s */
    masks?: { names: readonly string[]; mm: number; seconds: number } | undefined
  }[]
  /** regions that get no primer */
  unprimed: readonly { name: string; takes: 'glue' | 'light' }[]
  /** #rrggbb of the primer, where that is tinted */
  tint: string
  /** by the scheme's regions; none before there is a scheme */
  finishes: readonly RegionFinish[]
  /** ground, snow, water and the like */
  effects: readonly EffectWish[]
  /** of what names no sheen of its own */
  varnish: 'matt' | 'satin' | 'gloss'
}
