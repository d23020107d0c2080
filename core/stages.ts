/** The stages of a piece, in working order. */
export const PIECE_STAGES = [
  'brief',
  'import',
  'combine',
  'pose',
  'scale',
  'hollow',
  'orient',
  'plates',
  'print',
  'clean',
  'prime',
  'scheme',
  'plan',
] as const
export type PieceStage = (typeof PIECE_STAGES)[number]
