/**
 * How soon a derivation is wanted, the highest first. What a user looks at is computed before what is only good to know:
 * first the picture of a sculpt, then what is wrong with it, then operations that were asked for by hand, then checks.
 */
const URGENCY: Readonly<Record<string, number>> = {
  import: 40,
  display: 40,
  health: 30,
  measures: 30,
  // Large, and nobody waits for them with his hand on the sculpt.
  slice: -10,
  plate: -10,
  nest: -10,
  archive: -10,
  export: -10,
  outlines: -10,
  // Known only by measuring the whole of a finished surface, for a plan that is not open yet.
  cusps: -20,
  access: -20,
}
const OPERATIONS = 20

/** @param isOperation whether it changes a part, as somebody asked for it */
export const urgencyOf = (kind: string, isOperation: boolean): number => URGENCY[kind] ?? (isOperation ? OPERATIONS : 0)
/** From this on a job has a worker of its own: it never waits behind a slice. */
export const AT_ONCE = 30
