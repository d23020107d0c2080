import { chipOf } from '../coats/drawMix'
import { dropsOf, type CoatPaints } from '../coats/coatPaints'
import { toLab, type Triple } from '../optics/colour'
import { hiding, mix, type Optics } from '../optics/film'
import { BINDER, paintOptics, type StockPaint } from '../recipes/recipe'
import { mutings, skinZones, type Muted, type SkinZone } from '../recipes/tones'

/** Whole drops of a paint, by its id. */
export interface Drops {
  id: string
  drops: number
}
/** By which paint something is to be changed; null where none is needed or none does. */
type ByPaint = { id: string | null }

/**
 * The paints at hand with their optics. Those are worked out from what was measured of a paint, which takes a while, and
 * only again when that has changed.
 */
export class Palette {
  /** as they come from the bottle, by id */
  readonly optics = new Map<string, Optics>()
  private readonly paints = new Map<string, StockPaint>()
  /** what each was worked out from */
  private readonly from = new Map<string, string>()

  /** Takes paints in, or as they are now. Paints that are no longer in stock stay known, for coats may still be of them. */
  keep(stock: readonly StockPaint[]): void {
    for (const p of stock) {
      this.paints.set(p.id, p)
      const from = JSON.stringify([p.lab, p.overBlack, p.opacity])
      if (this.from.get(p.id) === from) continue
      this.from.set(p.id, from)
      this.optics.set(p.id, paintOptics(p))
    }
  }

  /** A mix as it comes from the bottles; null where none of its paints is known. */
  mixed(list: readonly Drops[]): Optics | null {
    const there = list.filter((d) => d.drops > 0 && this.optics.has(d.id))
    return there.length === 0
      ? null
      : mix(
          there.map((d) => this.optics.get(d.id)!),
          there.map((d) => d.drops),
        )
  }
  /** The paint or mix of a coat, undiluted; null where no paint is chosen. */
  ofCoat(c: CoatPaints): Optics | null {
    return this.mixed(dropsOf(c).map(({ paintId, drops }) => ({ id: paintId, drops })))
  }
  paintsOf(c: CoatPaints): (StockPaint | undefined)[] {
    return dropsOf(c).map((d) => this.paints.get(d.paintId))
  }
  /** CIELAB of a mix where it hides; null where none of its paints is known. */
  labOf(list: readonly Drops[]): Triple | null {
    const o = this.mixed(list)
    return o && toLab(hiding(o))
  }
  /** Each paint as one brushed coat over black and over white. */
  chips(stock: readonly StockPaint[]): ({ id: string } & ReturnType<typeof chipOf>)[] {
    return stock.map((p) => ({ id: p.id, ...chipOf(this.optics.get(p.id)!) }))
  }

  /** Paints of the stock with the binder that drops have: what they can be mixed with. */
  private mixingWith(list: readonly Drops[], stock: readonly StockPaint[]): StockPaint[] {
    const binders = new Set(list.map((d) => BINDER[this.paints.get(d.id)?.kind ?? 'varnish']))
    return stock.filter((p) => BINDER[p.kind] !== undefined && binders.has(BINDER[p.kind]))
  }
  private changed<T extends { paint: number | null }>(
    list: readonly Drops[],
    stock: readonly StockPaint[],
    by: (base: Optics, paints: readonly Optics[]) => T[],
  ): (T & ByPaint)[] {
    const base = this.mixed(list),
      usable = this.mixingWith(list, stock)
    if (!base) return []
    return by(
      base,
      usable.map((p) => this.optics.get(p.id)!),
    ).map((x) => ({ ...x, id: x.paint === null ? null : usable[x.paint]!.id }))
  }
  /** Ways to take a mix' chroma down to a share of it. @param keep 0..1 */
  muted(list: readonly Drops[], stock: readonly StockPaint[], keep: number): (Muted & ByPaint)[] {
    return this.changed(list, stock, (base, paints) => mutings(base, paints, keep))
  }
  /** The zones of a face from one skin tone. */
  skin(list: readonly Drops[], stock: readonly StockPaint[]): (SkinZone & ByPaint)[] {
    return this.changed(list, stock, skinZones)
  }
}
