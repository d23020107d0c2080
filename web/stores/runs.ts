import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { z } from 'zod'
import {
  device,
  plate as plateSchema,
  run as runSchema,
  type DeviceRecord,
  type PlateRecord,
  type RunRecord,
} from '../../contract/runs'
import { api, tell } from '../api'
import { queued } from '../composables/edits'
import { newestOnly } from '../composables/newest'
import { useChanges } from './changes'
import { usePiece } from './piece'

/** Print runs of the piece, and the devices that there are. */
export const useRuns = defineStore('runs', () => {
  const piece = usePiece()
  const runs = ref<RunRecord[]>([]),
    devices = ref<DeviceRecord[]>([])
  /** plate that is looked at, by id */
  const chosen = ref<string | null>(null)
  /** its parts stand on the turntable, to be judged */
  const judging = ref(false)
  /** the run that the next one prints failed parts of again */
  const reprintOf = ref<string | null>(null)

  async function loadRuns(): Promise<void> {
    const id = piece.piece?.id
    if (!id) return
    const list = await api(z.array(runSchema), 'GET', `/pieces/${id}/runs`)
    if (piece.piece?.id === id) runs.value = list
  }
  async function loadDevices(): Promise<void> {
    devices.value = await api(z.array(device), 'GET', '/devices')
  }
  // News of a print comes several times a second; one question at a time is enough.
  const fresh = newestOnly(async () => {
    await Promise.all([loadRuns(), loadDevices()]).catch(() => {
      /* the next news asks again */
    })
  })
  useChanges().listen((c) => {
    if (c.type === 'hello' || c.type === 'devices' || (c.type === 'run' && c.id === piece.piece?.id)) void fresh()
  })
  watch(
    () => piece.piece?.id,
    () => {
      runs.value = []
      chosen.value = null
      judging.value = false
      reprintOf.value = null
      void fresh()
    },
    { immediate: true },
  )
  const plates = computed(() => runs.value.flatMap((r) => r.plates))
  const runOf = (p: PlateRecord): RunRecord => runs.value.find((r) => r.id === p.runId)!
  const plate = computed<PlateRecord | null>(
    () =>
      plates.value.find((p) => p.id === chosen.value) ??
      plates.value.find((p) => p.state === 'printing' || p.state === 'sending') ??
      plates.value[0] ??
      null,
  )
  const deviceOf = (p: PlateRecord): DeviceRecord | null => devices.value.find((d) => d.serial === p.device) ?? null
  const printers = computed(() => devices.value.filter((d) => d.card.kind === 'printer'))
  const scale = computed(() => devices.value.find((d) => d.card.kind === 'scale' && d.reachable) ?? null)
  const station = computed(() => devices.value.find((d) => d.card.kind === 'station' && d.reachable) ?? null)
  /** The devices that are the printer a plate was sliced for. */
  const fitting = (p: PlateRecord): DeviceRecord[] => printers.value.filter((d) => d.printerId === p.printerId)

  async function put(path: string, method: string, body?: object): Promise<PlateRecord> {
    try {
      return await api(plateSchema, method, `/plates/${path}`, body)
    } finally {
      await fresh()
    }
  }
  const send = (p: PlateRecord, serial: string | null): Promise<PlateRecord> =>
    put(`${p.id}/send`, 'POST', { device: serial })
  const order = (p: PlateRecord, what: 'pause' | 'resume' | 'stop'): Promise<PlateRecord> =>
    put(`${p.id}/commands`, 'POST', { do: what })
  const judge = (p: PlateRecord, body: object): Promise<PlateRecord> =>
    queued(`plate ${p.id}`, () => {
      const { version } = plates.value.find((x) => x.id === p.id) ?? p
      return put(`${p.id}/judgement`, 'PUT', { ...body, version })
    })
  async function command(serial: string, body: { do: string } & Record<string, unknown>): Promise<DeviceRecord> {
    const d = await api(device, 'POST', `/devices/${serial}/commands`, body)
    devices.value = devices.value.map((x) => (x.serial === serial ? d : x))
    return d
  }
  async function toTrash(r: RunRecord): Promise<void> {
    await tell('DELETE', `/runs/${r.id}`)
    await fresh()
  }
  return {
    runs,
    devices,
    chosen,
    judging,
    reprintOf,
    plates,
    plate,
    runOf,
    deviceOf,
    printers,
    scale,
    station,
    fitting,
    fresh,
    send,
    order,
    judge,
    command,
    toTrash,
  }
})
