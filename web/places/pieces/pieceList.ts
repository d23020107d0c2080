import type { z } from 'zod'
import type { pieceSummary } from '../../../contract/pieces'

export type Summary = z.infer<typeof pieceSummary>
export const FILTERS = ['all', 'bench', 'ahead', 'hold'] as const
export const SORTS = ['newest', 'due', 'name'] as const
export type Filter = (typeof FILTERS)[number]
export type Sort = (typeof SORTS)[number]

const IN: Record<Filter, (p: Summary) => boolean> = {
  all: () => true,
  /** something of it is done */
  bench: (p) => p.done > 0 && !p.resting,
  ahead: (p) => p.done === 0 && !p.resting,
  hold: (p) => p.resting,
}
const BEFORE: Record<Sort, (a: Summary, b: Summary) => number> = {
  newest: (a, b) => b.createdAt.localeCompare(a.createdAt),
  // What has no deadline comes after what has one.
  due: (a, b) => (a.deadline ?? '9999').localeCompare(b.deadline ?? '9999') || BEFORE.newest(a, b),
  name: (a, b) => a.name.localeCompare(b.name),
}
/** How many pieces each filter leaves. */
export const counted = (list: readonly Summary[]): Record<Filter, number> =>
  Object.fromEntries(FILTERS.map((f) => [f, list.filter(IN[f]).length])) as Record<Filter, number>
/** The pieces as they are shown: those of a filter, in order; equal ones stay as they were. */
export const arranged = (list: readonly Summary[], filter: Filter, sort: Sort): Summary[] =>
  list.filter(IN[filter]).sort(BEFORE[sort])
