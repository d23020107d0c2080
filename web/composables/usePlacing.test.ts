// @vitest-environment happy-dom
import { effectScope, type EffectScope } from 'vue'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import type { OperationInput } from '../../contract/operations'
import { evenNumbers } from '../../core/math/random'
import { apply3, dot, fromQuaternion, minus, unit, type Vector3 } from '../../core/math/vectors'
import { MEASURES, otherPart, PART } from '../stores/fakeServer'
import { usePiece } from '../stores/piece'
import { settle, StageBench } from '../stages/stageTesting'
import { usePlacing } from './usePlacing'

/** Moves of a part as changes of its place record: held against what each does to any point of it. */
type Place = Extract<OperationInput, { kind: 'place' }>
const OTHER = '99999999-9999-4999-8999-999999999999'
let page: StageBench, scope: EffectScope
beforeEach(() => {
  page = new StageBench()
  page.bench.checks.set('measures', MEASURES)
  page.bench.others = [otherPart(OTHER, 'plinth')]
})
afterEach(() => {
  scope.stop()
  page.end()
})
const plus = (a: Vector3, b: Vector3): Vector3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]]
/** Where a point of the sculpt is seen. */
const seen = (place: Place, p: Vector3): Vector3 =>
  plus(
    apply3(fromQuaternion(place.quaternion ?? [0, 0, 0, 1]), place.mirror ? [-p[0], p[1], p[2]] : p),
    place.shift ?? [0, 0, 0],
  )
/** The point of the sculpt that is seen there. */
const back = (place: Place, p: Vector3): Vector3 => {
  const [x, y, z, w] = place.quaternion!
  const r = apply3(fromQuaternion([-x, -y, -z, w]), minus(p, place.shift as Vector3))
  return place.mirror ? [-r[0], r[1], r[2]] : r
}
const placeOf = (operations: readonly OperationInput[]): Place =>
  (operations.find((o) => o.kind === 'place') as Place | undefined) ?? { kind: 'place' }
const now = (): Place => placeOf(page.bench.operations)
/** As it is said to stand: the box that the server measured is what moves go by. */
const MIDDLE: Vector3 = [5, 5, 10]
const close = (a: Vector3, b: Vector3): void => {
  for (const k of [0, 1, 2]) expect(a[k]).toBeCloseTo(b[k]!, 6)
}
const POINTS: Vector3[] = [
  [0, 0, 0],
  [3, -2, 7],
  [-11, 4, 0.5],
]
/** A part that stands somewhere already, turned, moved and perhaps mirrored. */
async function placed(seed: number, mirror: boolean): Promise<{ at: ReturnType<typeof usePlacing>; was: Place }> {
  const next = evenNumbers(seed)
  const q = [next() - 0.5, next() - 0.5, next() - 0.5, next()] as const
  const l = Math.hypot(...q)
  const was: Place = {
    kind: 'place',
    quaternion: q.map((v) => v / l) as [number, number, number, number],
    shift: [10 * next(), -10 * next(), 5 * next()],
    mirror,
  }
  page.bench.operations = [was]
  await page.piece()
  scope = effectScope()
  const at = scope.run(() => usePlacing())!
  await settle()
  return { at, was }
}

describe.each([
  [1, false],
  [2, true],
  [3, true],
])('a part that stands anyhow (%s, mirrored: %s)', (seed, mirror) => {
  it('is turned about its own middle, as it is seen', async () => {
    const { at, was } = await placed(seed, mirror)
    await at.spin([0, 0, 1], 90)
    for (const p of POINTS) {
      const [x, y, z] = minus(seen(was, p), MIDDLE)
      // A quarter turn seen from above: right becomes behind.
      close(seen(now(), p), plus(MIDDLE, [-y, x, z]))
    }
  })
  it('is mirrored about its own middle, left for right as it is seen, and twice is as before', async () => {
    const { at, was } = await placed(seed, mirror)
    await at.mirror()
    for (const p of POINTS) {
      const s = seen(was, p)
      close(seen(now(), p), [2 * MIDDLE[0] - s[0], s[1], s[2]])
    }
    await settle()
    await at.mirror()
    for (const p of POINTS) close(seen(now(), p), seen(was, p))
  })
  it('is set down on the table by as much as it is above it', async () => {
    const { at, was } = await placed(seed, mirror)
    await at.rest(false)
    for (const p of POINTS) close(seen(now(), p), plus(seen(was, p), [0, 0, -MEASURES.box.min[2]!]))
  })
  it('puts a place of its skin onto a place of another’s, the skins facing each other', async () => {
    const { at, was } = await placed(seed, mirror)
    const own: Vector3 = [1, 2, 3],
      mine = { point: seen(was, own) as never, normal: unit([1, 2, -1]) as never },
      theirs = { point: [30, -4, 12] as never, normal: unit([0, 1, 1]) as never }
    const tip = plus(mine.point, mine.normal)
    await at.faceToFace(mine, theirs)
    close(seen(now(), own), theirs.point)
    // What was a millimetre outside its surface is a millimetre inside the other's.
    close(seen(now(), back(was, tip)), minus(theirs.point, theirs.normal))
  })
  it('puts its axis along another’s and stays where it is along it', async () => {
    const { at, was } = await placed(seed, mirror)
    const mine = { point: [4, 4, 4] as Vector3, direction: unit([1, 0.2, -2]) },
      theirs = { point: [20, 0, 0] as Vector3, direction: unit([0.3, 0, 1]) }
    page.bench.checks.set('axis', ({ point }: { point: Vector3 }) => ({
      ...(point[0] === 1 ? mine : theirs),
      radius: 3,
      residual: 0,
    }))
    expect(await at.axisToAxis([1, 0, 0], [2, 0, 0], 'plinth-sculpt')).toBe(true)
    for (const t of [0, 7, -3]) {
      const on = seen(now(), back(was, plus(mine.point, mine.direction.map((v) => v * t) as never)))
      const off = minus(on, theirs.point)
      const along = dot(off, theirs.direction)
      close(minus(off, theirs.direction.map((v) => v * along) as never), [0, 0, 0])
      if (t === 0) expect(along).toBeCloseTo(dot(minus(mine.point, theirs.point), theirs.direction), 6)
    }
  })
})

describe('a part among others', () => {
  it('stands with its middle over another’s, at the height it has', async () => {
    const { at, was } = await placed(4, false)
    // Both were measured alike: the middles are one already.
    await at.middleOver(OTHER)
    for (const p of POINTS) close(seen(now(), p), seen(was, p))
  })
  it('takes along what it is grouped with, about one middle', async () => {
    page.bench.fields = { groups: { [PART]: 'g', [OTHER]: 'g' } }
    const { at, was } = await placed(5, false)
    await at.spin([0, 0, 1], 180)
    const plinth = placeOf(page.bench.others[0]!.operations)
    for (const p of POINTS) {
      const turn = (s: Vector3): Vector3 => [2 * MIDDLE[0] - s[0], 2 * MIDDLE[1] - s[1], s[2]]
      close(seen(now(), p), turn(seen(was, p)))
      close(seen(plinth, p), turn(p))
    }
    await settle()
    await usePiece().undo()
    expect(placeOf(page.bench.others[0]!.operations)).toEqual({ kind: 'place' })
    for (const p of POINTS) close(seen(now(), p), seen(was, p))
  })
  it('rests on what is below it, and says so where nothing is', async () => {
    const { at, was } = await placed(6, false)
    page.bench.checks.set('rest', { up: -3.5 })
    await at.rest(true)
    for (const p of POINTS) close(seen(now(), p), plus(seen(was, p), [0, 0, -3.5]))
    page.bench.checks.set('rest', { up: null })
    await settle()
    expect(await at.rest(true)).toBe(false)
    expect(usePiece().problem).toContain('no other part below this one')
  })
  it('hands its place to another sculpt so that a point of it stands where one of this stood', async () => {
    const { at, was } = await placed(7, true)
    close(seen(at.anchored([1, 2, 3], [-4, 0, 9]), [-4, 0, 9]), seen(was, [1, 2, 3]))
  })
})
