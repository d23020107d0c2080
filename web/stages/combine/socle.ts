/** From the foot up: a torus, a hollow and a small torus, as socles have been turned for long. */
export const SOCLE: [number, number][] = [
  [1, 0],
  [1, 0.12],
  [0.97, 0.17],
  [0.9, 0.2],
  [0.78, 0.27],
  [0.68, 0.4],
  [0.63, 0.55],
  [0.63, 0.68],
  [0.67, 0.78],
  [0.76, 0.84],
  [0.84, 0.87],
  [0.86, 0.92],
  [0.84, 0.97],
  [0.8, 1],
]
