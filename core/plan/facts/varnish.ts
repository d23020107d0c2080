import { ORDER_COSTS, type OrderCosts } from '../../defaults/paint'
import type { Schools } from '../../defaults/plan'
import { message } from '../../words/message'
import type { Said } from '../../words/say'

/** mm of wet varnish; the share of it that lands on the piece when it is sprayed */
const VARNISH_FILM = 0.05
export const VARNISH_LANDS = 0.4
/** s until the next pass, a mask or paint may follow */
export const VARNISH_DRIES = 30 * 60
/** ml for mm² */
export const varnishFor = (area: number, lands: number): number => (area * VARNISH_FILM) / 1000 / lands

export type Sheen = 'matt' | 'satin' | 'gloss'
/** How a region of the scheme is to shine. */
export interface RegionFinish {
  name: string
  /** mm² */
  area: number
  /** of the varnish that the scheme lays on it; null where it names none */
  wanted: Sheen | null
  metallic: boolean
  /** light goes through it */
  clear?: boolean
  /** its last coat is powder, which a finger wipes off */
  powder: boolean
  /** edges to other regions, mm */
  edges: readonly { to: string; mm: number }[]
}

export interface VarnishPass {
  key: string
  sheen: Sheen
  tool: 'airbrush' | 'brush'
  regions: readonly string[]
  /** covered meanwhile */
  masks: readonly string[]
  /** mm of edge that is masked */
  mm: number
  /** mm² */
  area: number
  /** s of masking */
  masking: number
  why: Said
}

/** mm²: less gloss than this is laid with a brush */
const BRUSHED = 3000

/**
 * In which passes a piece is varnished: what is sprayed first, gloss last of all; matt never over metal, whose sheen it
 * would kill. Powders are sealed before anything touches them.
 *
 * @param rest what regions get that name no varnish
 * @param costs s a mm of tape, and a region covered
 */
export function varnishPasses(
  regions: readonly RegionFinish[],
  school: Schools['finalCoat'],
  rest: Sheen,
  costs: Pick<OrderCosts, 'tape' | 'cover'> = ORDER_COSTS,
): { seal: readonly string[]; passes: VarnishPass[]; bare: readonly string[] } {
  const seal = regions.filter((r) => r.powder).map((r) => r.name)
  const bare = school === 'bareMetal' ? regions.filter((r) => r.metallic && r.wanted === null) : []
  const list = regions.filter((r) => !bare.includes(r))
  /** Metal is not dulled: it shines on under gloss, whatever the rest gets; so does glass, unless it is to be frosted. */
  const sheenOf = (r: RegionFinish): Sheen => {
    if (r.metallic || (r.clear && r.wanted === null)) return 'gloss'
    if (school === 'oneMatt') return r.wanted === 'gloss' ? 'gloss' : 'matt'
    return r.wanted ?? rest
  }
  const passes: VarnishPass[] = []
  const put = (sheen: Sheen, own: readonly RegionFinish[], others: readonly RegionFinish[], why: Said): void => {
    if (own.length === 0) return
    const area = own.reduce((s, r) => s + r.area, 0)
    const brushed = sheen === 'gloss' && area < BRUSHED
    const names = new Set(own.map((r) => r.name))
    const masked = brushed ? [] : others.filter((o) => o.edges.some((e) => names.has(e.to)))
    const mm = masked.reduce((s, o) => s + o.edges.reduce((t, e) => t + (names.has(e.to) ? e.mm : 0), 0), 0)
    passes.push({
      key: `varnish-${sheen}`,
      sheen,
      tool: brushed ? 'brush' : 'airbrush',
      regions: own.map((r) => r.name),
      masks: masked.map((o) => o.name),
      mm,
      area,
      masking: mm * costs.tape + masked.length * costs.cover,
      why,
    })
  }
  const of = (sheen: Sheen): RegionFinish[] => list.filter((r) => sheenOf(r) === sheen)
  /** What matt and satin would dull. */
  const shines = (r: RegionFinish): boolean => r.metallic || (r.clear === true && sheenOf(r) === 'gloss')
  if (school === 'oneMatt') {
    // Gloss goes over matt without a mask; metal must never get any.
    put('matt', of('matt'), regions.filter(shines), message('steps.varnish.oneMattCoatTiesThe'))
  } else
    for (const sheen of ['matt', 'satin'] as const)
      put(
        sheen,
        of(sheen),
        regions.filter((r) => shines(r) || (sheen === 'matt' && sheenOf(r) === 'satin')),
        message('steps.varnish.handlingRubsPaintOffEach'),
      )
  put(
    'gloss',
    of('gloss'),
    list.filter((r) => sheenOf(r) !== 'gloss').concat(bare),
    message('steps.varnish.wetAndPolishedSurfacesCome'),
  )
  return { seal, passes, bare: bare.map((r) => r.name) }
}
