import ical, { ICalEventBusyStatus, ICalEventTransparency } from 'ical-generator'
import { BATCH } from '../../core/plan/scheduling/batching'
import type { WorkshopSchedule } from '../../core/plan/scheduling/workshop'
import { say } from '../../core/words/say'
import type { Calendar } from './schedule'

/** ms between two steps that are still one stint */
const PAUSE = 5 * 60_000

interface Stint {
  person: string
  piece: string
  start: number
  end: number
  steps: string[]
}

/** The schedule as a feed (RFC 5545): stints at the bench by person, and the days on which pieces are due. */
export function icsOf(c: Calendar, scheduled: WorkshopSchedule): string {
  const feed = ical({
    name: 'Undercut',
    prodId: { company: 'Undercut', product: 'bench', language: 'EN' },
    // How often a calendar program should ask again, s.
    ttl: 900,
  })
  for (const s of stintsOf(c, scheduled))
    feed.createEvent({
      id: `${s.start}-${s.person || 'bench'}@undercut`,
      start: new Date(s.start),
      end: new Date(s.end),
      stamp: new Date(c.now),
      summary: s.person ? `${s.piece} (${s.person})` : s.piece,
      description: s.steps.join('\n'),
      busystatus: ICalEventBusyStatus.TENTATIVE,
    })
  for (const p of c.pieces)
    if (p.due !== null && !p.resting)
      feed.createEvent({
        id: `due-${p.id}@undercut`,
        start: new Date(p.due),
        allDay: true,
        stamp: new Date(c.now),
        timezone: c.zone,
        summary: `${p.name} is due`,
        transparency: ICalEventTransparency.TRANSPARENT,
      })
  return feed.toString()
}

function stintsOf(c: Calendar, scheduled: WorkshopSchedule): Stint[] {
  const task = new Map(c.tasks.map((t) => [t.id, t]))
  const batch = new Map(c.batches.map((b) => [BATCH + b.id, b.tasks]))
  const name = new Map(c.pieces.map((p) => [p.id, p.name]))
  const out: Stint[] = []
  const open = new Map<string, Stint>()
  for (const p of [...scheduled.placed].sort((a, b) => a.start - b.start)) {
    const tasks = (batch.get(p.id) ?? [p.id]).flatMap((id) => task.get(id) ?? [])
    if (tasks.length === 0) continue
    const piece = [...new Set(tasks.map((t) => name.get(t.piece) ?? ''))].join(', ')
    const last = open.get(p.person)
    if (last && last.piece === piece && p.start - last.end <= PAUSE) {
      last.end = Math.max(last.end, p.end)
      last.steps.push(...tasks.map((t) => say(t.title)))
      continue
    }
    const stint = { person: p.person, piece, start: p.start, end: p.end, steps: tasks.map((t) => say(t.title)) }
    out.push(stint)
    open.set(p.person, stint)
  }
  return out
}
