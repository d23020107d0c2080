/**
 * Colour under illuminant D65 for the CIE 1931 2° observer on 36 bands, 380 to 730 nm in steps of 10 nm
 * (CIE 018:2019 and ISO 11664-2 tables, sampled).
 */
export const BANDS = 36
export const wavelength = (band: number): number => 380 + 10 * band

const X = [
  0.001368, 0.004243, 0.01431, 0.04351, 0.13438, 0.2839, 0.34828, 0.3362, 0.2908, 0.19536, 0.09564, 0.03201, 0.0049,
  0.0093, 0.06327, 0.1655, 0.2904, 0.43345, 0.5945, 0.7621, 0.9163, 1.0263, 1.0622, 1.0026, 0.85445, 0.6424, 0.4479,
  0.2835, 0.1649, 0.0874, 0.04677, 0.0227, 0.011359, 0.00579, 0.002899, 0.00144,
]
const Y = [
  0.000039, 0.00012, 0.000396, 0.00121, 0.004, 0.0116, 0.023, 0.038, 0.06, 0.09098, 0.13902, 0.20802, 0.323, 0.503,
  0.71, 0.862, 0.954, 0.99495, 0.995, 0.952, 0.87, 0.757, 0.631, 0.503, 0.381, 0.265, 0.175, 0.107, 0.061, 0.032, 0.017,
  0.00821, 0.004102, 0.002091, 0.001047, 0.00052,
]
const Z = [
  0.00645, 0.02005, 0.06785, 0.2074, 0.6456, 1.3856, 1.74706, 1.77211, 1.6692, 1.28764, 0.81295, 0.46518, 0.272, 0.1582,
  0.07825, 0.04216, 0.0203, 0.00875, 0.0039, 0.0021, 0.00165, 0.0011, 0.0008, 0.00034, 0.00019, 0.00005, 0.00002, 0, 0,
  0, 0, 0, 0, 0, 0, 0,
]
const D65 = [
  49.9755, 54.6482, 82.7549, 91.486, 93.4318, 86.6823, 104.865, 117.008, 117.812, 114.861, 115.923, 108.811, 109.354,
  107.802, 104.79, 107.689, 104.405, 104.046, 100, 96.3342, 95.788, 88.6856, 90.0062, 89.5991, 87.6987, 83.2886,
  83.6992, 80.0268, 80.2146, 82.2778, 78.2842, 69.7213, 71.6091, 74.349, 61.604, 69.8856,
]

const norm = 1 / D65.reduce((s, d, i) => s + d * Y[i]!, 0)
const WX = Float64Array.from(D65, (d, i) => d * X[i]! * norm)
const WY = Float64Array.from(D65, (d, i) => d * Y[i]! * norm)
const WZ = Float64Array.from(D65, (d, i) => d * Z[i]! * norm)

export interface Weights {
  WX: Float64Array
  WY: Float64Array
  WZ: Float64Array
}
/** Weights of the bands for X, Y and Z of a reflectance under a light, with Y = 1 for white; D65 unless given. */
export function weightsOf(light?: ArrayLike<number>): Weights {
  if (!light) return { WX, WY, WZ }
  let white = 0
  for (let b = 0; b < BANDS; b++) white += light[b]! * Y[b]!
  const by = (cmf: readonly number[]): Float64Array => Float64Array.from(cmf, (v, b) => (v * light[b]!) / white)
  return { WX: by(X), WY: by(Y), WZ: by(Z) }
}

export type Triple = readonly [number, number, number]
/** XYZ of the perfect diffuser, with Y = 1. */
export const WHITE: Triple = [WX.reduce((a, b) => a + b), 1, WZ.reduce((a, b) => a + b)]

/** XYZ (Y = 1 for white) of a reflectance on the 36 bands. */
export function toXyz(reflectance: ArrayLike<number>): [number, number, number] {
  let x = 0,
    y = 0,
    z = 0
  for (let i = 0; i < BANDS; i++) {
    const r = reflectance[i]!
    x += WX[i]! * r
    y += WY[i]! * r
    z += WZ[i]! * r
  }
  return [x, y, z]
}

/** CIELAB relative to D65 white. */
export function xyzToLab(xyz: Triple): [number, number, number] {
  const f = (t: number): number => (t > 216 / 24389 ? Math.cbrt(t) : ((24389 / 27) * t + 16) / 116)
  const fx = f(xyz[0] / WHITE[0]),
    fy = f(xyz[1]),
    fz = f(xyz[2] / WHITE[2])
  return [116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz)]
}
export function labToXyz(lab: Triple): [number, number, number] {
  const g = (t: number): number => (t > 6 / 29 ? t ** 3 : (116 * t - 16) / (24389 / 27))
  const fy = (lab[0] + 16) / 116
  return [WHITE[0] * g(fy + lab[1] / 500), g(fy), WHITE[2] * g(fy - lab[2] / 200)]
}
/** '#rrggbb' nearest to a colour, clipped to what a screen shows. */
export const labToHex = (lab: Triple): `#${string}` => toHex(xyzToSrgb(labToXyz(lab)))
export const toLab = (reflectance: ArrayLike<number>): [number, number, number] => xyzToLab(toXyz(reflectance))

/** Linear sRGB from XYZ, by rows (IEC 61966-2-1). */
export const TO_LINEAR = [
  [3.2404542, -1.5371385, -0.4985314],
  [-0.969266, 1.8760108, 0.041556],
  [0.0556434, -0.2040259, 1.0572252],
] as const

/** sRGB, 0 to 1 per channel, encoded (IEC 61966-2-1); colours outside the gamut are clipped. */
export function xyzToSrgb(xyz: Triple): [number, number, number] {
  const [r, g, b] = TO_LINEAR.map((row) => encodeSrgb(row[0] * xyz[0] + row[1] * xyz[1] + row[2] * xyz[2]))
  return [r!, g!, b!]
}
/** Linear to encoded sRGB of one channel, clipped to 0 to 1 (IEC 61966-2-1). */
export const encodeSrgb = (v: number): number => {
  const c = v < 0 ? 0 : v > 1 ? 1 : v
  return c <= 0.0031308 ? 12.92 * c : 1.055 * c ** (1 / 2.4) - 0.055
}
/** Encoded to linear sRGB of one channel, 0 to 1. */
export const decodeSrgb = (c: number): number => (c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4)
export function srgbToXyz(rgb: Triple): [number, number, number] {
  const [r, g, b] = rgb.map(decodeSrgb) as [number, number, number]
  return [
    0.4124564 * r + 0.3575761 * g + 0.1804375 * b,
    0.2126729 * r + 0.7151522 * g + 0.072175 * b,
    0.0193339 * r + 0.119192 * g + 0.9503041 * b,
  ]
}

/** '#rrggbb' to 0..1 channels; null when it is not a colour. */
export function parseHex(hex: string): [number, number, number] | null {
  const m = /^#?([0-9a-f]{6})$/i.exec(hex.trim())
  if (!m) return null
  const n = parseInt(m[1]!, 16)
  return [(n >> 16) / 255, ((n >> 8) & 255) / 255, (n & 255) / 255]
}
export const toHex = (rgb: Triple): `#${string}` =>
  `#${rgb
    .map((c) =>
      Math.round(c * 255)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`
export const hexToLab = (hex: string): [number, number, number] => xyzToLab(srgbToXyz(parseHex(hex) ?? [0, 0, 0]))

/** CIEDE2000 colour difference (Luo, Cui and Rigg 2001; Sharma, Wu and Dalal 2005), unit weights. */
export function deltaE00(p: Triple, q: Triple): number {
  const c1 = Math.hypot(p[1], p[2]),
    c2 = Math.hypot(q[1], q[2])
  const c7 = ((c1 + c2) / 2) ** 7
  const g = 1.5 - 0.5 * Math.sqrt(c7 / (c7 + 25 ** 7))
  const a1 = p[1] * g,
    a2 = q[1] * g
  const k1 = Math.hypot(a1, p[2]),
    k2 = Math.hypot(a2, q[2])
  const angle = (b: number, a: number): number =>
    a === 0 && b === 0 ? 0 : ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360
  const h1 = angle(p[2], a1),
    h2 = angle(q[2], a2)
  const dl = q[0] - p[0],
    dc = k2 - k1
  let dh = h2 - h1
  if (k1 * k2 === 0) dh = 0
  else if (dh > 180) dh -= 360
  else if (dh < -180) dh += 360
  const dH = 2 * Math.sqrt(k1 * k2) * Math.sin((dh * Math.PI) / 360)
  const l = (p[0] + q[0]) / 2,
    c = (k1 + k2) / 2
  let h = h1 + h2
  if (k1 * k2 !== 0) h = Math.abs(h1 - h2) <= 180 ? h / 2 : h < 360 ? (h + 360) / 2 : (h - 360) / 2
  const cos = (deg: number): number => Math.cos((deg * Math.PI) / 180)
  const t = 1 - 0.17 * cos(h - 30) + 0.24 * cos(2 * h) + 0.32 * cos(3 * h + 6) - 0.2 * cos(4 * h - 63)
  const sl = 1 + (0.015 * (l - 50) ** 2) / Math.sqrt(20 + (l - 50) ** 2),
    sc = 1 + 0.045 * c,
    sh = 1 + 0.015 * c * t
  const rc = 2 * Math.sqrt(c ** 7 / (c ** 7 + 25 ** 7))
  const rt = -Math.sin((60 * Math.exp(-(((h - 275) / 25) ** 2)) * Math.PI) / 180) * rc
  return Math.sqrt((dl / sl) ** 2 + (dc / sc) ** 2 + (dH / sh) ** 2 + rt * (dc / sc) * (dH / sh))
}
