/** Where a light or a spray comes from, in words: degrees to the piece's own left of its front, and up. */
export function directionText(turn: number, lift: number): string {
  const round =
    turn === 0
      ? 'the front'
      : Math.abs(turn) === 180
        ? 'behind'
        : `${Math.abs(turn)}° to its ${turn > 0 ? 'left' : 'right'}`
  return lift === 0 ? round : `${round}, ${Math.abs(lift)}° ${lift > 0 ? 'up' : 'down'}`
}
