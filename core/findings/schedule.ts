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
  const how = `Scheduled 200 times with durations as ${f.logged > 0 ? `${plural(f.logged, 'logged step')} spread them` : 'they usually spread, as none is logged yet'}, and with failures as often as they occur.`
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
      sentence: `${p.name} is due ${f.day(p.due)} and done ${f.day(p.finish)} as scheduled; with 90 % probability by ${f.day(r.most)}.`,
      places: [],
      how,
      fixes: [
        {
          act: 'showDeciding',
          piece: p.id,
          label: 'Show critical steps',
          effect: 'Marks the steps without slack.',
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
      sentence: `No bench hours are long enough for ${list(f.impossible)}, or the person for it has none. Add hours under Workshop, or assign another person.`,
      places: [],
      how: 'Every step is scheduled into the hours of every person for 500 days ahead.',
      fixes: [],
    })
  if (f.broken.length > 0)
    out.push({
      id: 'broken',
      level: 'warning',
      value: String(f.broken.length),
      unit: f.broken.length === 1 ? 'order dropped' : 'orders dropped',
      sentence: `The plan changed, and an order set by hand would now be a circle: ${list(f.broken)}. There the plan’s own order is used.`,
      places: [],
      how: 'Steps that wait for each other in a ring can never start.',
      fixes: [],
    })
  if (f.spray !== undefined && (f.spray === null || f.spray.from > f.now))
    out.push({
      id: 'spray',
      level: f.spray === null ? 'problem' : 'warning',
      value: f.spray === null ? 'none' : f.day(f.spray.from),
      unit: f.spray === null ? 'suitable for spraying' : 'next time to spray',
      sentence:
        f.spray === null
          ? 'The forecast has no hour that is warm and dry enough to spray. Spray in the room, or wait for a new forecast.'
          : `Until then it is under 10 °C or over 80 % humidity; it stays suitable until ${f.day(f.spray.to)}. Sprayed steps wait for it.`,
      places: [],
      how: 'The hourly forecast of the sensor at the bench; the room’s humidity follows the water content of the outside air.',
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
