// @vitest-environment happy-dom
import { effectScope, type EffectScope } from 'vue'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import type { JointRecord } from '../../../core/operations/pose'
import { FIGURE } from '../../../core/pose/figure'
import { useViewport } from '../../viewport/useViewport'
import { settle, StageBench } from '../stageTesting'
import { useJointSetting } from './useJointSetting'
import { usePosing } from './usePosing'

let page: StageBench, scope: EffectScope
beforeEach(() => {
  page = new StageBench()
})
afterEach(() => {
  scope.stop()
  page.end()
})
const STILL: JointRecord['turn'] = [0, 0, 0, 1]
const joint = (name: string, parent: number, z: number): JointRecord => ({
  name,
  parent,
  position: [0, 0, z],
  turn: STILL,
})
/** A chain that stands straight up: 0, 10, 20, 30 mm. */
const chain = (): JointRecord[] => [
  joint('root', -1, 0),
  joint('joint 1', 0, 10),
  joint('joint 2', 1, 20),
  joint('joint 3', 2, 30),
]
async function posing(joints: JointRecord[] | null = chain(), more: object = {}) {
  if (joints) page.bench.operations = [{ kind: 'pose', joints, rigid: null, paint: [], ...more }]
  await page.piece()
  scope = effectScope()
  return scope.run(() => {
    const p = usePosing()
    return { ...p, setting: useJointSetting(p, () => 'mesh-sculpt') }
  })!
}
const quarter: JointRecord['turn'] = [Math.SQRT1_2, 0, 0, Math.SQRT1_2]

describe('a pose that is tried', () => {
  it('is a change only while it differs from what is kept, and is given up whole', async () => {
    const p = await posing()
    expect(p.changed.value).toBe(false)
    p.limited.value = false
    p.setTurns(new Map([[1, quarter]]))
    expect(p.changed.value).toBe(true)
    p.reset()
    expect(p.changed.value).toBe(false)
    expect(p.joints.value.map((j) => j.turn)).toEqual(chain().map((j) => j.turn))
  })
  it('carries along what hangs on the joint that is turned, at the same length', async () => {
    const p = await posing()
    p.limited.value = false
    p.setTurns(new Map([[1, quarter]]))
    const at = p.bent.value
    expect(at[1]).toEqual([0, 0, 10].map((v) => expect.closeTo(v, 6)))
    // A quarter turn about x: what pointed up points along −y.
    expect(at[3]).toEqual([0, -20, 10].map((v) => expect.closeTo(v, 6)))
  })
  it('brings what is held back to its place while what it hangs on is turned', async () => {
    const p = await posing()
    p.limited.value = false
    // Bent a little, so that there is something to give.
    p.setTurns(new Map([[2, [Math.sin(0.3), 0, 0, Math.cos(0.3)]]]))
    const before = p.bent.value[3]!.slice()
    expect(p.canHold(3)).toBe(true)
    expect(p.canHold(0)).toBe(false)
    p.toggleHold(3)
    expect(p.isHeld(3)).toBe(true)
    p.setTurns(new Map([[0, [Math.sin(0.05), 0, 0, Math.cos(0.05)]]]))
    const held = p.bent.value[3]!
    const off = Math.hypot(...held.map((v, k) => v - before[k]!))
    expect(p.short.value.length === 0 ? off : 0).toBeLessThan(0.05)
    p.toggleHold(3)
    expect(p.holds.value).toEqual([])
  })
  it('without a joint hangs its children on its parent, and forgets what was brushed for it', async () => {
    const spot = (n: number) => ({ point: [0, 0, n], radius: 3, joint: n, weight: 1 })
    const p = await posing(chain(), { paint: [spot(1), spot(2), spot(3)] })
    p.chosen.value = 3
    p.drop(1)
    expect(p.joints.value.map((j) => [j.name, j.parent])).toEqual([
      ['root', -1],
      ['joint 2', 0],
      ['joint 3', 1],
    ])
    expect(p.paint.value.map((d) => d.joint)).toEqual([1, 2])
    expect(p.chosen.value).toBe(2)
  })
})

describe('joints that are pressed on the sculpt', () => {
  const press = async (x: number, companion: string | null = null): Promise<void> => {
    useViewport().scene.onPick!({ point: [x, 0, 0], normal: [0, 0, 1], face: 0, companion })
    await settle()
  }
  beforeEach(() => {
    page.bench.checks.set('inward', ({ point }: { point: number[] }) => ({ middle: [point[0], 1, 1], depth: 2 }))
  })
  it('hang one on the other, each in the middle of the limb there', async () => {
    const p = await posing(null)
    p.setting.begin('free')
    expect(useViewport().scene.hint).toContain('the body stays still there')
    await press(1)
    await press(9, 'plinth-sculpt')
    expect(useViewport().scene.hint).toContain('it is attached to root')
    await press(2)
    await press(3)
    expect(p.joints.value.map((j) => [j.name, j.parent, j.position])).toEqual([
      ['root', -1, [1, 1, 1]],
      ['joint 1', 0, [2, 1, 1]],
      ['joint 2', 1, [3, 1, 1]],
    ])
    p.setting.stop()
    expect(useViewport().scene.mode).not.toBe('pick')
  })
  it('keep the order of the presses where they come faster than their middles are found', async () => {
    const p = await posing(null)
    page.bench.slow = 8
    p.setting.begin('free')
    const { onPick } = useViewport().scene
    for (const x of [1, 2, 3]) onPick!({ point: [x, 0, 0], normal: [0, 0, 1], face: 0, companion: null })
    for (let i = 0; i < 5; i++) await settle()
    expect(p.joints.value.map((j) => j.position[0])).toEqual([1, 2, 3])
    expect(p.joints.value.map((j) => j.parent)).toEqual([-1, 0, 1])
  })
  it('are a figure’s landmarks in order; what hangs on one that was passed over hangs on the next above', async () => {
    const p = await posing(null)
    p.setting.begin('figure')
    const passed = FIGURE.findIndex((m) => FIGURE.some((x) => x.on === m.name) && m.on !== null)
    for (let i = 0; i < FIGURE.length; i++) {
      expect(useViewport().scene.hint).toContain(FIGURE[i]!.name)
      if (i === passed) p.setting.askNext()
      else await press(i)
    }
    expect(p.setting.setting.value).toBe('nothing')
    const names = p.joints.value.map((j) => j.name)
    expect(names).toEqual(FIGURE.filter((_, i) => i !== passed).map((m) => m.name))
    const over = FIGURE[passed]!
    for (const child of FIGURE.filter((m) => m.on === over.name)) {
      const j = p.joints.value.find((x) => x.name === child.name)!
      expect(names[j.parent]).toBe(over.on)
    }
  })
})
