import { expose } from 'comlink'
import type { CalendarRecord } from '../../contract/bench'
import type { TaskBatch } from '../../core/plan/scheduling/batching'
import type { FitNow } from '../../core/plan/scheduling/fitsNow'
import type { PieceRisk } from '../../core/plan/scheduling/lateness'
import {
  batchesToTake,
  scheduleWorkshop,
  risksOf,
  useOfTime,
  type WorkshopSchedule,
} from '../../core/plan/scheduling/workshop'

export interface Scheduled {
  laid: WorkshopSchedule
  risks: Record<string, PieceRisk>
  proposals: TaskBatch[]
}

/** Makes schedules off the page's thread. */
const worker = {
  schedule: (c: CalendarRecord): WorkshopSchedule => scheduleWorkshop(c),
  all(c: CalendarRecord): Scheduled {
    const laid = scheduleWorkshop(c)
    return { laid, risks: risksOf(c, laid.order, c.record), proposals: batchesToTake(c) }
  },
  /** @param better told of the cost of each better one as it is found */
  improve(c: CalendarRecord, ms: number, better: (cost: number) => void): WorkshopSchedule {
    return scheduleWorkshop(c, { tries: 1e6, budget: ms, onBetter: (made) => better(made.cost) })
  },
  use: (c: CalendarRecord, laid: WorkshopSchedule, seconds: number, person: string | null): FitNow[] =>
    useOfTime(c, laid, seconds, person),
}
export type ScheduleWorker = typeof worker
expose(worker)
