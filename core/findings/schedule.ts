import type { ScheduleFacts } from './facts'
import { plural, type Finding } from './finding'
import { rule } from './rule'

/** From this chance on lateness is to be known, and to be settled. */
const KNOW = 0.2,
  SETTLE = 0.6
const DAY = 86_400_000

/** What a schedule of the whole workshop means for who works by it. */
export function scheduleFindings(f: ScheduleFacts): Finding<'showDeciding'>[] {
  const out: Finding<'showDeciding'>[] = []
  const how = `Scheduled 200 times with durations as ${f.logged > 0 ? `${plural(f.logged, 'logged step')} spread them` : 'they usually spread, as none is logged yet'}, and with what may go wrong going wrong as often as it does.`
  for (const p of f.pieces) {
    const r = f.risks[p.id]
    if (p.due === null || p.finish === null || !r || r.late === null) continue
    const over = (p.finish - p.due) / DAY
    if (r.late < KNOW && over <= 0) continue
    out.push({
      id: `late:${p.id}`,
      level: over > 0 || r.late >= SETTLE ? 'problem' : 'warning',
      value: over > 0 ? over.toFixed(over < 10 ? 1 : 0) : String(Math.round(100 * r.late)),
      unit: over > 0 ? 'days late' : '% likely late',
      sentence: `${p.name} is due ${f.day(p.due)} and done ${f.day(p.finish)} as laid; nine times in ten by ${f.day(r.most)}.`,
      places: [],
      how,
      fixes: [
        {
          act: 'showDeciding',
          piece: p.id,
          label: 'Show what decides it',
          effect: 'Marks the steps that cannot slip.',
        },
      ],
    })
  }
  if (f.impossible.length > 0)
    out.push({
      id: 'impossible',
      level: 'problem',
      value: String(f.impossible.length),
      unit: f.impossible.length === 1 ? 'step without hours' : 'steps without hours',
      sentence: `No bench hours hold ${list(f.impossible)}, or who should do it has none. Add hours under Workshop, or give it to somebody else.`,
      places: [],
      how: 'Every step is laid into the hours of every person for 500 days ahead.',
      fixes: [],
    })
  if (f.broken.length > 0)
    out.push({
      id: 'broken',
      level: 'warning',
      value: String(f.broken.length),
      unit: f.broken.length === 1 ? 'order let go' : 'orders let go',
      sentence: `The plan changed, and what was put in order by hand would wait for itself: ${list(f.broken)}. There the plan’s own order counts.`,
      places: [],
      how: 'Steps that wait for each other in a ring can never begin.',
      fixes: [],
    })
  if (f.spray !== undefined && (f.spray === null || f.spray.from > f.now))
    out.push({
      id: 'spray',
      level: f.spray === null ? 'problem' : 'warning',
      value: f.spray === null ? 'none' : f.day(f.spray.from),
      unit: f.spray === null ? 'to spray in' : 'next to spray',
      sentence:
        f.spray === null
          ? 'The forecast has no hour that is warm and dry enough to spray. Spray in the room, or wait for a new forecast.'
          : `Until then it is under 10 °C or over 80 % damp; it stays fit until ${f.day(f.spray.to)}. Sprayed steps wait for it.`,
      places: [],
      how: 'The forecast of the sensor at the bench, by the hour; the room follows the water in the air that comes in.',
      fixes: [],
    })
  return out
}

const list = (titles: readonly string[]): string =>
  titles.slice(0, 3).join('; ') + (titles.length > 3 ? `, and ${titles.length - 3} more` : '')

export const scheduleHolds = rule({
  title: 'no piece is likely late, and every step has hours',
  stages: ['calendar'],
  inputs: ['workshopSchedule'],
  find: ({ workshopSchedule }) => scheduleFindings(workshopSchedule),
})
