import type { MixInput } from '../contract/mixes'
import { paint as paintSchema, type PaintInput } from '../contract/stock'
import { labOfPaint, stockPaint } from '../core/paint/recipes/stockPaint'
import { toLab } from '../core/paint/optics/colour'
import { hiding, mix } from '../core/paint/optics/film'
import { paintOptics } from '../core/paint/recipes/recipe'
import { PAINTS } from './paints'

interface Noted {
  name: string
  region: string
  coat: string
  tool: 'brush' | 'airbrush'
  drops: [paint: string, drops: number, lot?: string][]
  batches: number
  kept: number
  mixedOn: string
  note: string
}
const MIXES: Noted[] = [
  {
    name: 'Pilot’s face, base',
    region: 'Skin',
    coat: 'base',
    tool: 'brush',
    drops: [
      ['Weathered skin', 5],
      ['Fair skin', 3],
      ['Oilskin ochre', 1],
    ],
    batches: 2,
    kept: 0.4,
    mixedOn: '2026-10-03',
    note: 'Two thin coats over grey.',
  },
  {
    name: 'Salt-worn cap',
    region: 'Cap',
    coat: 'layer',
    tool: 'airbrush',
    drops: [
      ['Harbour blue', 4],
      ['Tide grey', 2],
      ['Chalk', 1],
    ],
    batches: 1,
    kept: 0,
    mixedOn: '2026-10-10',
    note: '',
  },
  {
    name: 'Rust streaks on the rail',
    region: 'Rail',
    coat: 'glaze',
    tool: 'brush',
    // From the bottle before the one in use.
    drops: [
      ['Rust red', 4, 'RR-37'],
      ['Saddle', 2],
      ['Chestnut', 1],
    ],
    batches: 1,
    kept: 0.1,
    mixedOn: '2026-06-21',
    note: 'Thinned one to four.',
  },
]

/** Pages of the mix book, of paints by the ids that they have got. */
export function demoMixes(ids: ReadonlyMap<string, string>, pieceId: string): MixInput[] {
  const known = new Map(PAINTS.map((p) => [p.name, p]))
  const full = (p: PaintInput): ReturnType<typeof paintSchema.parse> => paintSchema.parse(p)
  return MIXES.map(({ drops, ...rest }) => {
    const list = drops.map(([name, n, lot]) => {
      const p = full(known.get(name)!)
      const bottle = p.lots.find((l) => l.lot === lot)
      return { p, n, lot: bottle?.lot ?? '', lab: bottle?.lab ?? labOfPaint(p) }
    })
    const made = mix(
      list.map(({ p, lab }) => paintOptics({ ...stockPaint('', p), lab })),
      list.map((d) => d.n),
    )
    return {
      ...rest,
      pieceId,
      predicted: toLab(hiding(made)),
      drops: list.map(({ p, n, lot, lab }) => ({
        paintId: ids.get(p.name)!,
        name: p.name,
        lot,
        lab: [lab[0], lab[1], lab[2]],
        drops: n,
      })),
    }
  })
}
