import { bad, type Answer } from '../../answer'
import { decodeSrgb, deltaE00, encodeSrgb, srgbToXyz, xyzToLab, type Triple } from '../optics/colour'
import { message } from '../../words/message'

/** Samples of a picture: encoded sRGB, 0 to 255, three numbers a pixel. */
export type Pixels = Uint8Array | Uint8ClampedArray

export interface SwatchRead {
  /** mean of the samples, white balance and exposure set right by the card */
  lab: [number, number, number]
  /** each sample on its own */
  samples: [number, number, number][]
  /** mean ΔE00 of the samples from their mean */
  spread: number
  /** what the light was off by: stops of exposure, and the red and blue gains over green */
  stops: number
  red: number
  blue: number
}

/** Share of a patch's pixels that may be burnt out or drowned. */
const CLIPPED = 0.02
/** Gain of a channel over green above which the light was so coloured that the correction cannot be trusted. */
const TINTED = 1.8
/** Relative spread within the card's patch: more is no even card. */
const UNEVEN = 0.12
/** ΔE00 between samples above which they are not of one paint, or glare lies on one. */
export const SPREAD = 3

/**
 * A paint's colour from a photo in which a grey card lies beside its swatch. Pixels are made linear and averaged;
 * the card's known reflectance gives exposure and white balance, one gain a channel (von Kries in linear sRGB).
 *
 * @param card pixels on the card
 * @param swatches pixels of each place pressed on the swatch
 * @param cardReflectance of the card, 0 to 1
 */
export function readSwatch(card: Pixels, swatches: readonly Pixels[], cardReflectance = 0.18): Answer<SwatchRead> {
  if (card.length < 27 || swatches.length === 0 || swatches.some((s) => s.length < 27))
    return bad('patch-small', message('problems.swatchPhoto.aPatchHasTooFew'))
  if (clipped(card)) return bad('card-clipped', message('problems.swatchPhoto.theGreyCardIsOverexposed'))
  const grey = mean(card)
  if (spreadOf(card, grey) > UNEVEN) return bad('no-card', message('problems.swatchPhoto.thePlaceClickedAsThe'))
  const gain = grey.map((v) => cardReflectance / v) as [number, number, number]
  const red = gain[0] / gain[1],
    blue = gain[2] / gain[1]
  if (Math.max(red, 1 / red, blue, 1 / blue) > TINTED)
    return bad('light-tinted', message('problems.swatchPhoto.eitherThisIsNoGrey'))
  const at = swatches.findIndex(clipped)
  if (at >= 0) return bad('swatch-clipped', message('problems.swatchPhoto.sampleIsBurntOutOr', { at: at + 1 }))
  const samples = swatches.map((s) => {
    const m = mean(s)
    return xyzToLab(srgbToXyz(m.map((v, k) => encodeSrgb(v * gain[k]!)) as unknown as Triple))
  })
  const lab = [0, 1, 2].map((k) => samples.reduce((s, x) => s + x[k]!, 0) / samples.length) as [number, number, number]
  const spread = samples.reduce((s, x) => s + deltaE00(x, lab), 0) / samples.length
  return { ok: true, value: { lab, samples, spread, stops: Math.log2(gain[1]), red, blue } }
}

/** linear mean per channel */
function mean(p: Pixels): [number, number, number] {
  const sum: [number, number, number] = [0, 0, 0]
  for (let i = 0; i + 2 < p.length; i += 3) for (let k = 0; k < 3; k++) sum[k]! += decodeSrgb(p[i + k]! / 255)
  const n = Math.floor(p.length / 3)
  return sum.map((s) => Math.max(1e-6, s / n)) as [number, number, number]
}
function clipped(p: Pixels): boolean {
  let n = 0
  for (let i = 0; i + 2 < p.length; i += 3) {
    const most = Math.max(p[i]!, p[i + 1]!, p[i + 2]!)
    if (most >= 254 || most <= 3) n++
  }
  return n > CLIPPED * Math.floor(p.length / 3)
}
/** Standard deviation over the mean, of the channel in which it is largest. */
function spreadOf(p: Pixels, m: readonly number[]): number {
  const sum = [0, 0, 0]
  for (let i = 0; i + 2 < p.length; i += 3)
    for (let k = 0; k < 3; k++) sum[k]! += (decodeSrgb(p[i + k]! / 255) - m[k]!) ** 2
  const n = Math.floor(p.length / 3)
  return Math.max(...sum.map((s, k) => Math.sqrt(s / n) / m[k]!))
}
