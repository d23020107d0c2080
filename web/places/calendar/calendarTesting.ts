import type { CalendarRecord, CalendarTask } from '../../../contract/bench'

/** A step of an hour at the bench, as the server tells of it; for tests. */
export const task = (id: string, piece: string, more: Partial<CalendarTask> = {}): CalendarTask => ({
  id,
  piece,
  key: id,
  title: id,
  phase: 'Fit',
  work: 3600,
  waiting: 0,
  needs: 'bench',
  after: [],
  risks: [],
  edit: null,
  ...more,
})
export const piece = (id: string, name: string): CalendarRecord['pieces'][number] => ({
  id,
  name,
  due: null,
  resting: false,
  done: 0,
  version: 1,
})

/** A workshop of one person with the same bench hours every day, minutes after midnight. */
export const calendar = (
  daily: readonly [from: number, to: number][],
  more: Partial<CalendarRecord> & Pick<CalendarRecord, 'now' | 'zone' | 'pieces' | 'tasks'>,
): CalendarRecord => ({
  people: [
    {
      name: '',
      hours: [0, 1, 2, 3, 4, 5, 6].flatMap((weekday) => daily.map(([from, to]) => ({ weekday, from, to }))),
      off: [],
    },
  ],
  resources: {},
  closed: {},
  batches: [],
  order: [],
  record: [],
  broken: [],
  room: { temperature: 20, humidity: 50, measured: false, at: null },
  forecast: [],
  ...more,
})
