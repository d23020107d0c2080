/** What film, resin and air do in a printer where nobody has measured it; a resin's own figures are kept in stock (methods.md 5). */

/** Pa, with which a cured layer holds to the film as it is lifted */
export const PEEL_PRESSURE = 12_000
/** Pa, that green resin bears at a neck */
export const GREEN_STRENGTH = 4.5e6
/** Pa, the highest pressure difference that a room can put on a sealed cup (methods.md 3) */
export const VACUUM = 100_000
/** Pa, what a lift puts on a sealed cup in a printer that leaks a little, as they do */
export const LIFT_SUCTION = 60_000
