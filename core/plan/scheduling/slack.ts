import type { Problem, Schedule } from './types'

/**
 * s by which each task may begin later without its piece ending later (or, where it is due, later than that), everything else
 * keeping its order and hours not looked at: what comes after it, what its person does next, what its place is used for next. Tasks without slack are
 * the critical path.
 */
export function slackOf(problem: Problem, { placed, finish }: Schedule): Map<string, number> {
  const task = new Map(problem.tasks.map((t) => [t.id, t]))
  const by = [...placed].sort((a, b) => b.end - a.end || b.start - a.start)
  const slack = new Map<string, number>()
  const nextOf = new Map<string, { start: number; id: string }>()
  const successors = new Map<string, string[]>()
  for (const t of problem.tasks) for (const a of t.after) successors.set(a, [...(successors.get(a) ?? []), t.id])
  const at = new Map(placed.map((p) => [p.id, p]))
  for (const p of by) {
    const t = task.get(p.id)!
    let least = Infinity
    for (const piece of [t.piece, ...(t.also ?? [])])
      least = Math.min(least, Math.max(finish[piece]!, problem.due[piece] ?? -Infinity) - p.free)
    for (const s of successors.get(p.id) ?? []) {
      const next = at.get(s)
      if (next) least = Math.min(least, next.start + slack.get(s)! - p.free)
    }
    // Where there are several of a place, whoever comes next may take another.
    const chains = [`person ${p.person}`, ...((problem.resources[t.needs] ?? 1) === 1 ? [`place ${t.needs}`] : [])]
    for (const c of chains) {
      const next = nextOf.get(c)
      if (next) least = Math.min(least, next.start + slack.get(next.id)! - p.end)
      nextOf.set(c, { start: p.start, id: p.id })
    }
    slack.set(p.id, Math.max(0, least))
  }
  return new Map([...slack].map(([id, ms]) => [id, ms / 1000]))
}
