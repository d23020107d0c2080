import { text } from '../../i18n'
import { ref } from 'vue'
import type { JointRecord } from '../../../core/operations/pose'
import { FIGURE } from '../../../core/pose/figure'
import { useDerivations } from '../../stores/derivations'
import { usePiece } from '../../stores/piece'
import type { Picked } from '../../viewport/scene'
import { useViewport } from '../../viewport/useViewport'
import type { Posing } from './usePosing'

/** Joints pressed on the sculpt: a figure's landmarks one after the other, or a free chain. */
export function useJointSetting(posing: Posing, source: () => string | null) {
  const store = usePiece(),
    viewport = useViewport(),
    derivations = useDerivations()
  const setting = ref<'nothing' | 'free' | 'figure'>('nothing')
  /** Which landmark of a figure is asked for next. */
  const asked = ref(0)
  const { joints, chosen } = posing

  function begin(way: 'free' | 'figure'): void {
    setting.value = way
    if (way === 'figure') {
      joints.value = []
      posing.holds.value = []
      asked.value = 0
    }
  }
  const hint = (): string => {
    if (setting.value === 'figure')
      return FIGURE[asked.value] ? text('pose.useJointSetting.clickTheOnThe', { name: FIGURE[asked.value]!.name }) : ''
    return joints.value.length === 0
      ? text('pose.useJointSetting.clickWhereTheFirst')
      : text('pose.useJointSetting.clickTheNextJoint', {
          name: joints.value[chosen.value]?.name ?? text('pose.useJointSetting.theBefore'),
        })
  }
  viewport.describe(() => (setting.value === 'nothing' ? null : { mode: 'pick', hint: hint(), onPick: addJoint }))
  /** Presses may come faster than the middles are found; each waits for the one before. */
  let before: Promise<unknown> = Promise.resolve()
  function addJoint(p: Picked): void {
    if (p.companion === null) before = before.then(() => setJoint(p))
  }
  async function setJoint(p: Picked): Promise<void> {
    const mesh = source()
    if (!mesh || setting.value === 'nothing') return
    await store.guarded(async () => {
      const { middle } = await derivations.reported(mesh, { kind: 'inward', point: p.point, normal: p.normal })
      const turn: JointRecord['turn'] = [0, 0, 0, 1]
      if (setting.value === 'figure') {
        const mark = FIGURE[asked.value]!
        const parent = joints.value.findIndex((j) => j.name === nearestSet(mark.on))
        joints.value.push({ name: mark.name, parent, position: middle, turn })
        askNext()
      } else {
        joints.value.push({
          name:
            joints.value.length === 0 ? 'root' : text('pose.useJointSetting.joint', { joints: joints.value.length }),
          parent: joints.value.length === 0 ? -1 : chosen.value,
          position: middle,
          turn,
        })
        chosen.value = joints.value.length - 1
      }
    })
  }
  /** A landmark that was passed over leaves its children to the one it would have hung on. */
  function nearestSet(name: string | null): string | null {
    while (name !== null && !joints.value.some((j) => j.name === name))
      name = FIGURE.find((m) => m.name === name)?.on ?? null
    return name
  }
  function askNext(): void {
    asked.value++
    if (asked.value >= FIGURE.length) stop()
  }
  function stop(): void {
    setting.value = 'nothing'
    chosen.value = Math.min(1, joints.value.length - 1)
  }
  return { setting, begin, askNext, stop }
}
