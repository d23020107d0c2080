import { fixed, scaleBar, svgPage, svgText } from '../../formats/svg'
import type { Vector3 } from '../../math/vectors'
import type { Ball, EyePlan } from './eyes'
import { fixed as decimals, type Fixed } from '../../words/format'
import { METRIC, type Manner } from '../../words/manner'
import { message } from '../../words/message'
import { say } from '../../words/say'

/** Steps in which an eye is painted, from the ball to the last spark; each shows what the ones before left. */
const STEPS = [
  { name: message('painting.eyes.ball'), draws: ['ball'] },
  { name: message('painting.eyes.ring'), draws: ['ball', 'ring'] },
  { name: message('painting.eyes.iris'), draws: ['ball', 'ring', 'iris'] },
  { name: message('painting.eyes.pupil'), draws: ['ball', 'ring', 'iris', 'pupil'] },
  { name: message('painting.eyes.lid'), draws: ['ball', 'ring', 'iris', 'pupil', 'lids'] },
  { name: message('painting.eyes.catchLight'), draws: ['ball', 'ring', 'iris', 'pupil', 'lids', 'catch'] },
] as const

/**
 * A sheet to practise on: each eye in its steps at so many times its size, as seen along its own axis, with a bar to
 * prove the scale. SVG in mm.
 */
export function eyeSheet(
  eyes: readonly { name: string; ball: Ball; plan: EyePlan }[],
  times: number,
  manner: Manner = METRIC,
): { svg: string; width: number; height: number } {
  const widest = Math.max(...eyes.map((e) => e.ball.radius))
  const cell = 2.4 * widest * times + 4,
    left = 10
  const width = left + STEPS.length * cell + 6,
    height = 20 + eyes.length * (cell + 10) + 14
  const out: string[] = []
  eyes.forEach(({ name, ball, plan }, row) => {
    const y = 20 + row * (cell + 10) + cell / 2
    out.push(
      svgText(
        left,
        y - cell / 2 - 2,
        say(
          message('painting.eyes.sizes', {
            name,
            ball: tenths(2 * ball.radius),
            iris: tenths(2 * plan.irisRadius),
            pupil: tenths(2 * plan.pupilRadius),
            lid: tenths(plan.upperCut),
            tip: tenths(plan.tip),
          }),
          manner,
        ),
      ),
    )
    STEPS.forEach((step, i) =>
      out.push(
        ...eye(left + (i + 0.5) * cell, y, times, ball, plan, new Set(step.draws)),
        svgText(left + i * cell, y + cell / 2 + 3, `${i + 1}. ${say(step.name, manner)}`),
      ),
    )
  })
  out.push(scaleBar(left, height - 8, 10, say(message('painting.eyes.scale', { times }), manner)))
  const svg = svgPage(width, height, out)
  return { svg, width, height }
}

function eye(x: number, y: number, k: number, ball: Ball, plan: EyePlan, on: ReadonlySet<string>): string[] {
  const r = ball.radius * k,
    iris = plan.irisRadius * k
  const out = [circle(x, y, r, 'ball', on.has('ball') ? '#f2ece0' : 'none')]
  if (on.has('ring')) out.push(circle(x, y, iris, 'ring', '#2c2420'))
  if (on.has('iris')) out.push(circle(x, y + 0.06 * iris, 0.86 * iris, 'iris', '#7d8f9c'))
  if (on.has('pupil')) out.push(circle(x, y, plan.pupilRadius * k, 'pupil', '#0c0a0a'))
  if (on.has('lids')) {
    const top = y - iris + plan.upperCut * k
    const half = Math.sqrt(Math.max(0, r * r - (top - y) ** 2))
    out.push(
      `<path class="lid" d="M${fixed(x - half)} ${fixed(top)}H${fixed(x + half)}A${fixed(r)} ${fixed(r)} 0 0 0 ${fixed(x - half)} ${fixed(top)}Z" fill="#c99a80"/>`,
      `<path d="M${fixed(x - half)} ${fixed(top)}H${fixed(x + half)}" stroke="#2c2420" stroke-width="${fixed(Math.max(0.2, 0.06 * iris))}"/>`,
    )
    if (plan.lowerCut > 0) {
      const low = y + iris - plan.lowerCut * k
      const h = Math.sqrt(Math.max(0, r * r - (low - y) ** 2))
      out.push(
        `<path class="lid" d="M${fixed(x - h)} ${fixed(low)}H${fixed(x + h)}A${fixed(r)} ${fixed(r)} 0 0 1 ${fixed(x - h)} ${fixed(low)}Z" fill="#c99a80"/>`,
      )
    }
  }
  if (on.has('catch')) {
    const [dx, dy] = seenAlong(ball, plan)
    out.push(circle(x + dx * k, y + dy * k, plan.catchRadius * k, 'catch', '#ffffff'))
  }
  return out
}
/** Where the catch-light stands to one who looks into the eye along its axis: mm to the right and down. */
function seenAlong(ball: Ball, plan: EyePlan): [number, number] {
  const from = (p: Vector3): Vector3 => [p[0] - ball.centre[0], p[1] - ball.centre[1], p[2] - ball.centre[2]]
  const a = from(plan.iris),
    c = from(plan.catchLight)
  // Level to the right of who looks at it; of an eye that looks straight up, the piece's own right.
  const flat = Math.hypot(a[0], a[1])
  const right: Vector3 = flat < 1e-9 ? [1, 0, 0] : [-a[1] / flat, a[0] / flat, 0]
  const length = Math.hypot(...a)
  const up: Vector3 = [
    (a[1] * right[2] - a[2] * right[1]) / length,
    (a[2] * right[0] - a[0] * right[2]) / length,
    (a[0] * right[1] - a[1] * right[0]) / length,
  ]
  const dot = (u: Vector3): number => c[0] * u[0] + c[1] * u[1] + c[2] * u[2]
  return [dot(right), -dot(up)]
}
const tenths = (v: number): Fixed => decimals(v, 1)
const circle = (x: number, y: number, r: number, name: string, fill: string): string =>
  `<circle class="${name}" cx="${fixed(x)}" cy="${fixed(y)}" r="${fixed(r)}" fill="${fill}" stroke="#777" stroke-width="0.1"/>`
