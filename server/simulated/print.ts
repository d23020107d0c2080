import type { LayerManifest } from '../../contract/manifest'
import { readEntry, type ByteSource, type ZipEntry } from '../../core/formats/zipDirectory'
import { readPngLayer } from '../../core/formats/readPngLayer'
import { evenNumbers, normalNumbers } from '../../core/math/random'
import { Hanging, worldDefaults, type Hung, type World } from '../../core/print/hanging/hanging'
import { slack } from '../../core/print/slice/followed'
import { MAX_LAYER } from '../../core/print/slice/readLayers'
import { layerSeconds } from './job'

/** What a machine, its film and the day make of a job: never quite what was calculated with. */
export interface Nature {
  world: World
  /** s of exposure at which green strength is what `world` says */
  exposure: number
  /** real motion over that of the manifest */
  slow: number
  /** layers at which the mains fail, and from which the lamp is weak; null for not this time */
  power: number | null
  lamp: number | null
}

/** How often the mains fail and lamps weaken, per print. */
const POWER = 0.03,
  LAMP = 0.02
/** How much strength a weak lamp leaves. */
const WEAK = 0.35
/** Slope of strength over ln(exposure), as the working curve of cure depth over ln(dose) has it (Jacobs 1992). */
const CURVE = 0.8

/** @param seed of the machine; @param run counts its prints, each with luck of its own */
export function natureOf(seed: number, run: number, exposure: number, layers: number): Nature {
  const machine = evenNumbers(seed),
    normal = normalNumbers(machine),
    luck = evenNumbers(seed * 7919 + run)
  const spread = (sd: number): number => Math.exp(sd * normal())
  const layer = (chance: number): number | null => (luck() < chance ? 1 + Math.floor(luck() * (layers - 1)) : null)
  return {
    world: {
      peelPressure: worldDefaults.peelPressure * spread(0.08),
      greenStrength: worldDefaults.greenStrength * spread(0.08),
      suction: worldDefaults.suction,
    },
    exposure,
    slow: 1 + 0.12 * machine(),
    power: layer(POWER),
    lamp: layer(LAMP),
  }
}

/** ml below which the vat no longer covers the film */
export const VAT_FLOOR = 15

export interface Events {
  /** after each layer: how many are printed, machine time, ml in the vat */
  layer(done: number, seconds: number, vat: number): void
  paused(why: 'vat-empty' | 'asked'): void
  power(): void
}

/** One print, layer by layer at a machine's pace or a multiple of it. */
export class Print {
  private hanging: Hanging
  private wake: (() => void) | null = null
  private holding: 'vat-empty' | 'asked' | null = null
  private stopped = false
  private done = 0
  private seconds = 0

  constructor(
    private readonly source: ByteSource,
    private readonly manifest: LayerManifest,
    private readonly layers: readonly ZipEntry[],
    private readonly nature: Nature,
    private vat: number,
    private readonly speedUp: () => number,
    private readonly events: Events,
  ) {
    const { pixels, pitch } = manifest.printer
    // The hanging keeps the world by reference: a weak lamp changes it from its layer on.
    this.world = { ...nature.world }
    this.hanging = new Hanging(
      this.world,
      pitch,
      [(-pixels[0] * pitch[0]) / 2, (-pixels[1] * pitch[1]) / 2],
      manifest.layerHeight,
      slack(pitch),
    )
  }
  private readonly world: World

  /**
   * @param from layers that were printed before the machine was switched off: gone through again without their time
   * @returns whether it came to its end; false when it was stopped or the mains failed
   */
  async run(from: number): Promise<boolean> {
    const { manifest: m, nature } = this
    let due = Date.now()
    for (let i = 0; i < this.layers.length; i++) {
      const fresh = i >= from
      await this.held()
      if (this.stopped) return false
      if (fresh && i > from && i === nature.power) {
        this.events.power()
        return false
      }
      const lamp = nature.lamp !== null && i >= nature.lamp ? WEAK : 1
      const exposure = i < m.bottomLayers ? m.bottomExposure : m.exposure
      const cured = Math.min(1.4, Math.max(0.1, 1 + CURVE * Math.log(exposure / nature.exposure)))
      this.world.greenStrength = nature.world.greenStrength * cured * lamp
      const bytes = await readEntry(this.source, this.layers[i]!, MAX_LAYER)
      const layer = bytes.ok ? readPngLayer(bytes.value) : bytes
      // The check has read only the layers' heads; one that is broken further in shows dark.
      const runs = layer.ok ? layer.value.runs : null
      if (runs) {
        this.hanging.push(runs)
        const ml = (runs.covered * m.printer.pitch[0] * m.printer.pitch[1] * m.layerHeight) / 1000
        if (fresh) this.vat -= ml
      }
      this.seconds += exposure + (layerSeconds(m, i) - exposure) * nature.slow
      this.done = i + 1
      if (!fresh) continue
      this.events.layer(this.done, this.seconds, this.vat)
      if (this.vat < VAT_FLOOR) this.pause('vat-empty')
      due = Math.max(due, Date.now() - 50) + (layerSeconds(m, i) * 1000) / this.speedUp()
      const wait = due - Date.now()
      await new Promise<void>((r) => (wait > 1 ? setTimeout(r, wait) : setImmediate(r)))
    }
    return true
  }

  pause(why: 'vat-empty' | 'asked'): void {
    if (this.holding) return
    this.holding = why
    this.events.paused(why)
  }
  resume(): void {
    this.holding = null
    this.wake?.()
  }
  stop(): void {
    this.stopped = true
    this.resume()
  }
  refill(ml: number): void {
    this.vat += ml
  }

  get result(): Hung {
    return this.hanging.result
  }

  private async held(): Promise<void> {
    while (this.holding && !this.stopped)
      await new Promise<void>((r) => {
        this.wake = r
      })
    this.wake = null
  }
}
