import { z } from 'zod'

export const HIT_KINDS = ['piece', 'sculpt', 'printer', 'resin', 'paint', 'material', 'log'] as const
/** What a search found: where it is, what it is called, and what of it matched. */
export const searchHit = z.object({
  kind: z.enum(HIT_KINDS),
  id: z.string(),
  name: z.string(),
  about: z.string().describe('client, file, or the entry of the log'),
  pieceId: z.string().nullable().describe('of an entry of the log'),
})
export type SearchHit = z.infer<typeof searchHit>
export const searchQuery = z.object({ q: z.string().trim().max(200) })
