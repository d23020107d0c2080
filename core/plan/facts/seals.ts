import { message } from '../../words/message'
import type { Said } from '../../words/say'

/** A coat as far as sealing goes; in painting order. */
export interface SealedCoat {
  region: string
  /** mm² */
  area: number
  /** its paint is thinned with solvent: oil, enamel */
  solvent?: boolean | undefined
  metallic?: boolean | undefined
  masks?: { names: readonly string[] } | undefined
}
export interface Seal {
  /** number of the coat that it comes before */
  before: number
  regions: readonly string[]
  /** mm² */
  area: number
  why: Said
}

/**
 * Where a coat of gloss comes between stages: over what is there before solvent goes over it, and over metal before a mask
 * lies on it (craft.md, stages 12 and 13). Solvent over solvent needs none, and what is sealed stays sealed until it is
 * painted again.
 */
export function sealsBetween(coats: readonly SealedCoat[]): Seal[] {
  const out: Seal[] = []
  /** what lies open on each region since its last seal */
  const open = new Map<string, { water: boolean; metal: boolean; area: number }>()
  const seal = (before: number, names: readonly string[], why: Said): void => {
    out.push({ before, regions: names, area: names.reduce((s, n) => s + (open.get(n)?.area ?? 0), 0), why })
    for (const n of names) open.delete(n)
  }
  coats.forEach((c, i) => {
    const metals = (c.masks?.names ?? []).filter((n) => open.get(n)?.metal)
    if (metals.length > 0) seal(i, metals, message('steps.seals.aMaskPullsFlakesOff'))
    if (c.solvent && open.get(c.region)?.water) seal(i, [c.region], message('steps.seals.solventWouldLiftTheCoats'))
    const there = open.get(c.region)
    open.set(c.region, {
      water: (there?.water ?? false) || !c.solvent,
      metal: (there?.metal ?? false) || (c.metallic ?? false),
      area: Math.max(there?.area ?? 0, c.area),
    })
  })
  return out
}
