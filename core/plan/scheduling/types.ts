/** Bench hours on a weekday (0 Sunday), in minutes from local midnight. */
export interface BenchHours {
  weekday: number
  from: number
  to: number
}

/** A step of some piece that wants a person, and mostly a place or a machine. */
export interface Task {
  /** unlike any other, over all pieces */
  id: string
  piece: string
  /** other pieces that it is done for at once */
  also?: readonly string[]
  /** s of hands-on work */
  work: number
  /** s after it until what comes next may begin */
  waiting: number
  needs: string
  /** ids of tasks that must be over, waiting included */
  after: readonly string[]
  /** ms since the epoch before which it may not begin, as what was done before it has to dry, or as somebody wished */
  notBefore?: number
  /** ms at which somebody wants it begun: every second after that costs */
  wanted?: number
  /** what it needs stays taken while it waits, as a printer prints on */
  holds?: boolean
  /** the one person who may do it */
  by?: string
  /** a name in `Problem.closed`: in none of those stretches is it worked at */
  shuns?: string
  /** s of its work that need not be done again right after another with the same set-up: laying out, mixing, cleaning */
  setup?: { key: string; seconds: number } | null
  /** s in which it must be over once begun, as what is mixed sets */
  window?: number | null
}
export interface Person {
  name: string
  hours: readonly BenchHours[]
  /** days without work, as YYYY-MM-DD */
  off: readonly string[]
}
export interface Problem {
  tasks: readonly Task[]
  people: readonly Person[]
  /** how many there are of what tasks need; of what is not named there is one */
  resources: Readonly<Record<string, number>>
  /** ms since the epoch */
  start: number
  /** ms by which a piece is due; pieces that are not named have no day */
  due: Readonly<Record<string, number>>
  /**
   * stretches of time, ms, rising and apart, in which a place is not free, by its name, or in which work that shuns them is not
   * done, as the air forbids it
   */
  closed?: Readonly<Record<string, readonly (readonly [number, number])[]>>
  /** IANA name of the time zone that bench hours are in; the machine's own where there is none */
  zone?: string
}
export interface Placed {
  id: string
  person: string
  /** ms; hands off at `end`, and what comes next may begin at `free` */
  start: number
  end: number
  free: number
}
export interface Schedule {
  placed: Placed[]
  /** ids in the order in which they were laid: what a later improvement begins from */
  order: string[]
  /** tasks that no window of any person holds, or that wait for one */
  impossible: string[]
  /** ms since the epoch at which each piece is done */
  finish: Record<string, number>
  /** s of lateness over all pieces */
  late: number
  cost: number
}
