/** A peg and a hole printed and measured: what the machine adds to the one and takes off the other. Diameters, mm. */
export interface FitPrint {
  peg: { drawn: number; measured: number }
  hole: { drawn: number; measured: number }
}

/** mm per side by which what is printed comes together nearer than it was drawn. */
export const closingBy = ({ peg, hole }: FitPrint): number =>
  (peg.measured - peg.drawn + (hole.drawn - hole.measured)) / 2

/**
 * What must be drawn per side, so that the printed parts have the wished clearance: never less than nothing, since parts
 * that are drawn into each other are an overlap, whatever the print made of them.
 */
export const drawnClearance = (wished: number, print: FitPrint | null): number =>
  Math.max(0, wished + (print ? closingBy(print) : 0))
