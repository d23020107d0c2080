import { ApiProblem } from '../api'

/** What was asked last of each record, by its name. */
const queues = new Map<string, Promise<unknown>>()

/**
 * Runs changes of one record one after the other, in the order in which they were made, so that each is sent with the
 * version that the answer before it gave. A change that fails holds up none of those behind it.
 *
 * @param record names the record, the same for everybody who changes it, as "piece 4f…"
 */
export function queued<T>(record: string, work: () => Promise<T>): Promise<T> {
  const mine = (queues.get(record) ?? Promise.resolve()).then(work, work)
  const settled = mine.catch(() => undefined)
  queues.set(record, settled)
  void settled.then(() => {
    if (queues.get(record) === settled) queues.delete(record)
  })
  return mine
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b)

/** How often a change is sent again because something else in its record has changed. */
const TRIES = 5

export interface FieldEdits<R> {
  /**
   * Changes some fields: shown at once, sent in turn. What else was changed meanwhile, in another window or by the
   * program's own bookkeeping, is kept; only a change of the same fields is a conflict.
   *
   * @throws ApiProblem when it is refused; the record is then shown without it
   */
  edit: (fields: Partial<R>) => Promise<void>
  /** A record as the server has it, with what has not been answered yet over it. */
  withPending: (record: R) => R
}

/**
 * Changes of single fields of one record.
 *
 * @param o.name name of its queue
 * @param o.current the record as it is shown; null when it is no longer there
 * @param o.send sends fields, changed from a record of the server's, and gives the record that came of it
 * @param o.show shows a record
 * @param o.read reads the newer record that a refusal carries; null when it carries none
 */
export function fieldEdits<R extends { version: number }>(o: {
  name: () => string
  current: () => R | null
  send: (fields: Partial<R>, from: R) => Promise<R>
  show: (record: R) => void
  read: (refused: unknown) => R | null
}): FieldEdits<R> {
  let pending: { of: string; fields: Partial<R> }[] = []
  /** what the server last said of the record */
  let known: { of: string; record: R } | null = null
  const serverHas = (of: string, record: R): void => {
    if (known?.of !== of || record.version >= known.record.version) known = { of, record }
  }
  const laidOver = (record: R): R =>
    Object.assign({}, record, ...pending.flatMap((p) => (p.of === o.name() ? [p.fields] : []))) as R
  const withPending = (record: R): R => {
    serverHas(o.name(), record)
    return laidOver(record)
  }

  async function edit(fields: Partial<R>): Promise<void> {
    const before = o.current()
    if (!before) return
    const of = o.name()
    if (known?.of !== of) serverHas(of, before)
    const mine = { of, fields }
    const was = Object.fromEntries(Object.keys(fields).map((k) => [k, before[k as keyof R]])) as Partial<R>
    pending.push(mine)
    o.show(laidOver(before))
    await queued(of, async () => {
      let from = known?.of === of ? known.record : before
      try {
        for (let tries = 1; ; tries++) {
          try {
            from = await o.send(fields, from)
            return
          } catch (e) {
            const newer = e instanceof ApiProblem && e.status === 409 ? o.read(e.body.current) : null
            if (newer) from = newer
            if (
              !newer ||
              tries === TRIES ||
              Object.keys(was).some((k) => !same(was[k as keyof R], newer[k as keyof R]))
            )
              throw e
          }
        }
      } finally {
        pending = pending.filter((p) => p !== mine)
        // Unless the page has gone on to another record meanwhile.
        if (of === o.name()) {
          serverHas(of, from)
          o.show(laidOver(known!.record))
        }
      }
    })
  }
  return { edit, withPending }
}
