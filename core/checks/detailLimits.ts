import { z } from 'zod'

/** What detail has to be deeper than, mm: see `DetailLimits` of core/fit/detail. */
export const detailLimits = {
  layerHeight: z.number().min(0).max(1),
  pitch: z.number().min(0).max(1),
  film: z.number().min(0).max(2).describe('mm of primer and paint'),
}
/** Faces on which relief is told from form: finer than a screen shows, and quick. */
export const DETAIL_FACES = 1_500_000
