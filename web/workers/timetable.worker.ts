import { expose } from 'comlink'
import type { CalendarRecord } from '../../contract/bench'
import type { TaskBatch } from '../../core/plan/scheduling/batching'
import type { FitNow } from '../../core/plan/scheduling/fitsNow'
import type { PieceRisk } from '../../core/plan/scheduling/lateness'
import { batchesToTake, layWorkshop, risksOf, useOfTime, type Laid } from '../../core/plan/scheduling/workshop'

export interface Timetabled {
  laid: Laid
  risks: Record<string, PieceRisk>
  proposals: TaskBatch[]
}

/** Lays timetables off the page's thread. */
const worker = {
  lay: (c: CalendarRecord): Laid => layWorkshop(c),
  all(c: CalendarRecord): Timetabled {
    const laid = layWorkshop(c)
    return { laid, risks: risksOf(c, laid.order, c.record), proposals: batchesToTake(c) }
  },
  /** @param better told of the cost of each better one as it is found */
  improve(c: CalendarRecord, ms: number, better: (cost: number) => void): Laid {
    return layWorkshop(c, { tries: 1e6, budget: ms, onBetter: (made) => better(made.cost) })
  },
  use: (c: CalendarRecord, laid: Laid, seconds: number, person: string | null): FitNow[] =>
    useOfTime(c, laid, seconds, person),
}
export type TimetableWorker = typeof worker
expose(worker)
