import { text } from '../i18n'
/** Where a light or a spray comes from, in words: degrees to the piece's own left of its front, and up. */
export function directionText(turn: number, lift: number): string {
  const round =
    turn === 0
      ? text('shell.directionText.theFront')
      : Math.abs(turn) === 180
        ? text('shell.directionText.behind')
        : text('shell.directionText.toItsTurn', { abs: Math.abs(turn), turn: turn > 0 })
  return lift === 0 ? round : text('shell.directionText.lift', { round, abs: Math.abs(lift), lift: lift > 0 })
}
