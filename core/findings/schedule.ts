import type { ScheduleFacts } from './facts'
import type { Finding } from './finding'
import { rule } from './rule'
import { fixed } from '../words/format'
import { message } from '../words/message'
import type { Said } from '../words/say'

/** From this chance on lateness is to be known, and to be settled. */
const KNOW = 0.2,
  SETTLE = 0.6
const DAY = 86_400_000

/** What a schedule of the whole workshop means for who works by it. */
export function scheduleFindings(f: ScheduleFacts): Finding<'showDeciding'>[] {
  const out: Finding<'showDeciding'>[] = []
  const how = message('findings.schedule.scheduled200TimesWithDurations', { f: f.logged > 0, logged: f.logged })
  for (const p of f.pieces) {
    const r = f.risks[p.id]
    if (p.due === null || p.finish === null || !r || r.late === null) continue
    const over = (p.finish - p.due) / DAY
    if (r.late < KNOW && over <= 0) continue
    out.push({
      id: `late:${p.id}`,
      level: over > 0 || r.late >= SETTLE ? 'problem' : 'warning',
      value: over > 0 ? fixed(over, over < 10 ? 1 : 0) : Math.round(100 * r.late),
      unit: over > 0 ? message('findings.schedule.daysLate') : message('findings.schedule.likelyLate'),
      sentence: message('findings.schedule.isDueAndDoneAs', {
        name: p.name,
        due: f.day(p.due),
        finish: f.day(p.finish),
        most: f.day(r.most),
      }),
      places: [],
      how,
      fixes: [
        {
          act: 'showDeciding',
          piece: p.id,
          label: message('findings.schedule.showCriticalSteps'),
          effect: message('findings.schedule.marksTheStepsWithoutSlack'),
        },
      ],
    })
  }
  if (f.impossible.length > 0)
    out.push({
      id: 'impossible',
      level: 'problem',
      value: f.impossible.length,
      unit: message('findings.schedule.stepsWithoutHours', { n: f.impossible.length }),
      sentence: message('findings.schedule.noBenchHoursAreLong', { impossible: few(f.impossible) }),
      places: [],
      how: message('findings.schedule.everyStepIsScheduledInto'),
      fixes: [],
    })
  if (f.broken.length > 0)
    out.push({
      id: 'broken',
      level: 'warning',
      value: f.broken.length,
      unit: message('findings.schedule.ordersDropped', { n: f.broken.length }),
      sentence: message('findings.schedule.thePlanChangedAndAn', { broken: few(f.broken) }),
      places: [],
      how: message('findings.schedule.stepsThatWaitForEach'),
      fixes: [],
    })
  if (f.spray !== undefined && (f.spray === null || f.spray.from > f.now))
    out.push({
      id: 'spray',
      level: f.spray === null ? 'problem' : 'warning',
      value: f.spray === null ? message('findings.schedule.none') : f.day(f.spray.from),
      unit:
        f.spray === null
          ? message('findings.schedule.suitableForSpraying')
          : message('findings.schedule.nextTimeToSpray'),
      sentence:
        f.spray === null
          ? message('findings.schedule.theForecastHasNoHour')
          : message('findings.schedule.untilThenItIsUnder', { to: f.day(f.spray.to) }),
      places: [],
      how: message('findings.schedule.theHourlyForecastOfThe'),
      fixes: [],
    })
  return out
}

const few = (titles: readonly string[]): readonly Said[] =>
  titles.length > 3 ? [...titles.slice(0, 3), message('findings.schedule.more', { n: titles.length - 3 })] : titles

export const scheduleHolds = rule({
  title: message('findings.schedule.noPieceIsLikelyLate'),
  stages: ['calendar'],
  inputs: ['workshopSchedule'],
  find: ({ workshopSchedule }) => scheduleFindings(workshopSchedule),
})
