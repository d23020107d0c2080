import { BANDS } from '../optics/colour'
import type { Optics } from '../optics/film'
import { FEW } from '../optics/fewBands'
import { evenFilm, filmTable, laidOn, LEVELS, NO_FILM, spotTable } from '../optics/filmTable'
import { inSpots } from './technique'
import { passing } from '../optics/through'
import type { Coating, Ground, Sheen } from './coating'

const B = FEW.length
/** microfacet roughness of a dry film by its finish; flakes of metal scatter a little */
const ROUGH: Record<Sheen, number> = { matt: 0.88, satin: 0.5, gloss: 0.16, metal: 0.36 }

/** One go over the vertices: films whose thickness differs from place to place, with the even ones below them laid in. */
export interface Pass {
  table: Float32Array
  /** share of light let through, one number for each of the table's maps */
  through: () => Float32Array
  levels: Uint8Array | null
  /** its levels are the undercoat's spray light */
  sprayed: boolean
  sheens: Shine[]
  /** nothing even lies below: where its levels are 0 it does nothing */
  idle: boolean
}
interface Shine {
  /** by level how much of what lies below no longer shows; null: all of it, everywhere */
  cover: Float32Array | null
  rough: number
  metal: number
  even: boolean
}

/** A stack as the fewest goes that lay it. */
export function passesOf(ground: Ground, coats: readonly Coating[]): Pass[] {
  const out: Pass[] = []
  if (ground.sprayed)
    out.push({
      ...film(filmTable(ground.sprayed.optics, ground.sprayed.film)),
      levels: null,
      sprayed: true,
      sheens: [],
      idle: true,
    })
  // Even films wait to be laid into the next one that is not.
  let even: Float32Array = NO_FILM,
    sheens: Shine[] = []
  for (const c of coats) {
    const rough = ROUGH[c.sheen],
      metal = c.sheen === 'metal' ? 1 : 0
    if (c.technique === 'varnish') {
      // What shone like metal shines on, only duller.
      sheens.push({ cover: null, rough, metal: -1, even: true })
      continue
    }
    if (!c.optics || c.film <= 0) continue
    const spots = inSpots(c.technique)
    sheens.push({ cover: coverOf(c.optics, c.film, spots), rough, metal, even: c.levels === null })
    if (c.levels === null) {
      even = laidOn(evenFilm(c.optics, c.film), even)
      continue
    }
    const idle = sheens.length === 1
    const laid = spots ? inSpotsOver(c.optics, c.film, even) : film(laidOn(filmTable(c.optics, c.film), even))
    out.push({ ...laid, levels: c.levels, sprayed: false, sheens, idle })
    even = NO_FILM
    sheens = []
  }
  if (even !== NO_FILM || sheens.length > 0)
    out.push({ ...film(even), levels: null, sprayed: false, sheens, idle: false })
  return out
}

export function shineOver(s: Shine, levels: Uint8Array, shine: Float32Array, count: number): void {
  for (let i = 0; i < count; i++) {
    const k = s.cover ? s.cover[s.even ? LEVELS - 1 : levels[i]!]! : 1
    shine[2 * i]! += k * (s.rough - shine[2 * i]!)
    if (s.metal >= 0) shine[2 * i + 1]! += k * (s.metal - shine[2 * i + 1]!)
  }
}

const film = (table: Float32Array): Pick<Pass, 'table' | 'through'> => ({ table, through: () => passing(table) })
/** Light goes through the bare skin between spots as through what lies below. */
function inSpotsOver(o: Optics, film: number, even: Float32Array): Pick<Pass, 'table' | 'through'> {
  return {
    table: laidOn(spotTable(o, film), even),
    through: () => {
      const between = passing(even),
        under = passing(laidOn(evenFilm(o, film), even))
      return Float32Array.from({ length: B * LEVELS }, (_, i) => {
        const b = Math.floor(i / LEVELS)
        return between[b]! + ((under[b]! - between[b]!) * (i % LEVELS)) / (LEVELS - 1)
      })
    },
  }
}

/** Whether a pass lays the same film as another did, and shines as it. */
export const samePass = (a: Pass, b: Pass): boolean =>
  a.levels === b.levels &&
  a.sprayed === b.sprayed &&
  sameNumbers(a.table, b.table) &&
  a.sheens.length === b.sheens.length &&
  a.sheens.every((s, i) => sameShine(s, b.sheens[i]!))
const sameShine = (a: Shine, b: Shine): boolean =>
  a.rough === b.rough &&
  a.metal === b.metal &&
  a.even === b.even &&
  (a.cover === null || b.cover === null ? a.cover === b.cover : sameNumbers(a.cover, b.cover))
const sameNumbers = (a: Float32Array, b: Float32Array): boolean =>
  a.length === b.length && a.every((v, i) => v === b[i])

/** How much of what lies below a film no longer shows, by level: its mean extinction over the bands, there and back. */
function coverOf(o: Optics, film: number, spots: boolean): Float32Array {
  let mean = 0
  for (let b = 0; b < BANDS; b++) mean += (o.K[b]! + o.S[b]!) / BANDS
  const hides = (share: number): number => 1 - Math.exp(-2 * mean * film * share)
  return Float32Array.from({ length: LEVELS }, (_, l) => {
    const share = l / (LEVELS - 1)
    return spots ? share * hides(1) : hides(share)
  })
}
