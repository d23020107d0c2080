import { basename } from 'node:path'
import type { z } from 'zod'
import { calendarFile, planFile } from '../contract/calendar'
import { improve, improveDefaults, cycleAmong } from '../core/plan/scheduling/improve'
import { SPRAY, tasksOf } from '../core/plan/scheduling/ofPlan'
import { slackOf } from '../core/plan/scheduling/slack'
import type { Problem, Schedule } from '../core/plan/scheduling/types'
import { dayNumber, momentIn, wallClock } from '../core/math/wallClock'
import { usage, line, type Call } from './call'
import { loadJson } from './files'
import { writeReport } from './results'
import { fixed } from '../core/words/format'
import { message } from '../core/words/message'

type Plan = z.infer<typeof planFile>

/** Lays the plans of several pieces on the hours there are. Exit 0 all in time, 1 something late or without hours, 2 unreadable. */
export async function planCommand({ words, flags, out, fail }: Call): Promise<number> {
  const path = flags.get('calendar')
  if (words.length === 0 || !path) return fail(usage('cli.usage.plan'), 2)
  const seconds = Number(flags.get('seconds') ?? improveDefaults.budget / 1000)
  if (!(seconds >= 0 && seconds <= 600)) return fail(usage('cli.usage.seconds'), 2)
  const calendar = await loadJson(path, calendarFile)
  if (!calendar.ok) return fail(calendar.problem, 2)
  const plans: [string, Plan][] = []
  for (const word of words) {
    const plan = await loadJson(word, planFile)
    if (!plan.ok) return fail(plan.problem, 2)
    const name = plan.value.name ?? basename(word, '.json')
    if (plans.some(([n]) => n === name))
      return fail({ code: 'pieces-alike', message: message('cli.file.piecesAlike', { path: word, name }) }, 2)
    plans.push([name, plan.value])
  }
  const tasks = plans.flatMap(([name, plan]) => tasksOf(name, plan.steps, doneIn(plan)))
  const ring = cycleAmong(tasks)
  if (ring.length > 0)
    return fail(
      {
        code: 'ring',
        message: message('cli.file.ring', { steps: ring.join(', ') }),
      },
      2,
    )
  const moment = (iso: string): number => momentIn(calendar.value.zone, iso)
  const problem: Problem = {
    tasks,
    people: calendar.value.people,
    resources: calendar.value.resources,
    ...(calendar.value.zone ? { zone: calendar.value.zone } : {}),
    closed: {
      [SPRAY]: calendar.value.noSpraying.map(([a, b]) => [moment(a), moment(b)] as const).sort((a, b) => a[0] - b[0]),
    },
    start: calendar.value.start ? moment(calendar.value.start) : Date.now(),
    // Due on a day is due at its end.
    due: Object.fromEntries(
      plans.flatMap(([n, p]) =>
        p.due ? [[n, wallClock(calendar.value.zone).at(dayNumber(p.due) + 1, 0) - 1000] as const] : [],
      ),
    ),
  }
  const made = improve(problem, { ...improveDefaults, budget: seconds * 1000 })
  const slack = slackOf(problem, made)
  const rows = [...made.placed].sort((a, b) => a.start - b.start)
  const report = { ...made, placed: rows.map((p) => ({ ...p, slack: slack.get(p.id) ?? 0 })) }
  if (flags.has('json')) out(`${JSON.stringify(report, null, 1)}\n`)
  else tell(out, problem, made, slack, plans)
  const noted = await writeReport(flags, report)
  if (noted) return fail(noted, 2)
  return made.late > 0 || made.impossible.length > 0 ? 1 : 0
}

function tell(
  out: Call['out'],
  problem: Problem,
  made: Schedule,
  slack: ReadonlyMap<string, number>,
  plans: readonly [string, Plan][],
): void {
  const titles = new Map(plans.flatMap(([n, p]) => p.steps.map((s) => [`${n}: ${s.key}`, `${n}: ${s.title || s.key}`])))
  for (const p of [...made.placed].sort((a, b) => a.start - b.start)) {
    const critical = slack.get(p.id) === 0 ? `  ${line('cli.plan.critical')}` : ''
    out(`${stamp(p.start)}  ${stamp(p.end)}  ${p.person}  ${titles.get(p.id)}${critical}\n`)
  }
  for (const [piece, end] of Object.entries(made.finish)) {
    const over = end - (problem.due[piece] ?? Infinity)
    const told =
      over > 0
        ? line('cli.plan.late', { piece, end: stamp(end), days: fixed(over / 86_400_000, 1) })
        : line('cli.plan.done', { piece, end: stamp(end) })
    out(`${told}\n`)
  }
  for (const id of made.impossible) out(`${line('cli.plan.noHours', { step: id })}\n`)
}

const doneIn = ({ steps }: Plan): Map<string, number> =>
  new Map(steps.flatMap((s) => (s.doneAt ? [[s.key, new Date(s.doneAt).getTime()] as const] : [])))

const two = (v: number): string => String(v).padStart(2, '0')
function stamp(ms: number): string {
  const d = new Date(ms)
  return `${d.getFullYear()}-${two(d.getMonth() + 1)}-${two(d.getDate())} ${two(d.getHours())}:${two(d.getMinutes())}`
}
