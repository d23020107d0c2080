import { z } from 'zod'
import { words } from './issues'

/** CIELAB under D65: lightness 0 to 100, a and b. */
export const lab = z.tuple([
  z.number().min(0, words('forms.lightnessIs0To100')).max(100, words('forms.lightnessIs0To100')),
  z.number().min(-130, 'a is −130 to 130.').max(130, 'a is −130 to 130.'),
  z.number().min(-130, 'b is −130 to 130.').max(130, 'b is −130 to 130.'),
])
export type Lab = z.infer<typeof lab>
/** #rrggbb */
export const hex = z.string().regex(/^#[0-9a-f]{6}$/i)
