import { useIntervalFn, useSessionStorage } from '@vueuse/core'
import { computed } from 'vue'
import { useRuns } from '../../stores/runs'

/** The washing and curing station while a step runs in it: which one, and how long still. */
export function useStation() {
  const runs = useRuns()
  const device = computed(() => runs.station)
  /** step whose program was started last from here; the station knows programs alone */
  const step = useSessionStorage<string | null>('undercut.station', null)
  useIntervalFn(() => {
    const d = device.value
    if (d && state.value !== 'idle' && state.value !== 'finished')
      runs.command(d.serial, { do: 'state' }).catch(() => undefined)
  }, 1000)
  const state = computed(() => String(device.value?.state?.state ?? 'idle'))
  const left = computed(() => Number(device.value?.state?.left ?? 0))
  const paused = computed(() => state.value === 'paused')
  const running = (key: string): boolean => step.value === key && (state.value === 'running' || paused.value)
  const finished = (key: string): boolean => step.value === key && state.value === 'finished'
  const order = async (body: { do: string } & Record<string, unknown>): Promise<void> => {
    if (device.value) await runs.command(device.value.serial, body)
  }
  async function start(key: string, program: string, seconds: number): Promise<void> {
    await order({ do: 'start', program, seconds: Math.round(seconds) })
    step.value = key
  }
  const hold = (): Promise<void> => order({ do: paused.value ? 'resume' : 'pause' })
  const stop = (): Promise<void> => order({ do: 'stop' })
  return { device, left, paused, running, finished, start, hold, stop }
}
