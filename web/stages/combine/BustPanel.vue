<script setup lang="ts">
import { BFormCheckbox } from 'bootstrap-vue-next/components/BFormCheckbox'
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { text, fixed } from '../../i18n'
import { reportOf } from '../../../contract/derivations'
import { computed, ref } from 'vue'
import { operation, type OperationInput } from '../../../contract/operations'
import type { LeftOut } from '../../../core/shape/mainPiece'
import type { OperationReport } from '../../../core/operations/registry'
import { bustDefaults, bustLine, type BustShape } from '../../../core/shape/bustLine'
import { usePicking } from '../../composables/usePicking'
import NumberField from '../../shell/NumberField.vue'
import { useAssembly } from '../../stores/assembly'
import { useDerivations } from '../../stores/derivations'
import { usePiece } from '../../stores/piece'
import { useViewport } from '../../viewport/useViewport'
import { SOCLE } from './socle'

/** A figure cut along a curved shoulder line and set on a turned socle. */
const store = usePiece(),
  assembly = useAssembly(),
  derivations = useDerivations(),
  viewport = useViewport(),
  picking = usePicking()
const own = computed(() => assembly.placed.find((p) => p.part.id === store.part?.id) ?? null)
const neck = ref<[number, number, number] | null>(null)
const shape = ref<BustShape | null>(null)
const socle = ref(true)
const busy = ref('')
const left = ref<LeftOut | null>(null)
const leftBy = (r: OperationReport<'cut'> | null): LeftOut | null =>
  r?.cut.left && r.cut.left.count > 0 ? r.cut.left : null
const line = computed(() => (neck.value && shape.value ? bustLine(neck.value, shape.value) : []))
viewport.describe(() => (neck.value ? { line: { points: line.value, closed: true } } : null))
function begin(): void {
  picking.ask(text('combine.bustPanel.clickThePitOf'), (p) => {
    if (p.companion !== null) return
    neck.value = p.point
    // A head is about what stands over the pit of the neck, less the neck itself.
    const top = own.value?.measures?.box.max[2] ?? p.point[2] + 25
    shape.value = bustDefaults(Math.max(3, (top - p.point[2]) / 1.3))
    picking.stop()
  })
}
function leave(): void {
  picking.stop()
  neck.value = shape.value = null
}
async function make(): Promise<void> {
  const part = store.part,
    mesh = own.value?.mesh,
    at = neck.value
  if (!part || !mesh || !at || !shape.value) return
  busy.value = 'Cutting …'
  const z = line.value.reduce((s, p) => s + p[2], 0) / line.value.length
  const cut: OperationInput = {
    kind: 'cut',
    point: [at[0], at[1], z],
    normal: [0, 0, 1],
    keep: 'above',
    line: line.value,
    // What floats above the cut and hangs on nothing, a raised lantern say, does not belong to a bust.
    piece: [at[0], at[1], (at[2] + (own.value?.measures?.box.max[2] ?? at[2])) / 2],
  }
  const upper = await store.tryOn(mesh, cut)
  if (upper) {
    left.value = leftBy(reportOf(await derivations.tried(mesh, operation.parse(cut)), 'cut'))
    const { box } = await derivations.reported(upper, { kind: 'measures' })
    const wide = 0.62 * (box.max[0] - box.min[0])
    const high = 0.55 * (box.max[2] - at[2]) + 0.2 * wide
    // Its top lies a little under the lowest of the breast: then the bust is let down onto it.
    await store.arrange({
      lists: [{ id: part.id, operations: store.withOperation(part, cut) }],
      create: socle.value
        ? [
            {
              name: text('combine.bustPanel.base'),
              from: null,
              operations: [
                {
                  kind: 'base',
                  outline: 'round',
                  side: 'turned',
                  width: wide,
                  depth: wide,
                  height: high,
                  profile: SOCLE,
                } as never,
                {
                  kind: 'place',
                  quaternion: [0, 0, 0, 1],
                  shift: [at[0], (box.min[1] + box.max[1]) / 2, box.min[2] - high + SINK],
                  mirror: false,
                },
              ],
            },
          ]
        : [],
    })
  }
  busy.value = ''
  leave()
}
/** mm by which the socle reaches into the bust: enough to be pinned, relieved or joined as one likes. */
const SINK = 2
const FIELDS: { key: keyof BustShape; label: string }[] = [
  { key: 'front', label: text('combine.bustPanel.downAtTheFront') },
  { key: 'back', label: text('combine.bustPanel.downAtTheBack') },
  { key: 'sides', label: text('combine.bustPanel.downAtTheSides') },
  { key: 'across', label: text('combine.bustPanel.outToTheSides') },
  { key: 'deep', label: text('combine.bustPanel.outToTheFront') },
]
</script>

<template>
  <FoldPanel class="mb-3" @toggle="$event || leave()">
    <template #title>{{ $t('combine.bustPanel.makeABustOf', { name: store.part?.name }) }}</template>
    <BButton variant="quiet" size="sm" class="my-2" @click="picking.asking.value ? leave() : begin()">
      {{
        picking.asking.value
          ? $t('combine.bustPanel.cancel')
          : neck
            ? $t('combine.bustPanel.chooseAnotherPlace')
            : $t('combine.bustPanel.chooseThePitOf')
      }}
    </BButton>
    <p v-if="left" role="status" class="small soft">
      {{ $t('combine.bustPanel.leftOutOfThe', { count: left.count, volume: fixed(left.volume / 1000, 2) }) }}
    </p>
    <template v-if="shape">
      <NumberField
        v-for="f in FIELDS"
        :key="f.key"
        v-model="shape[f.key]"
        :label="f.label"
        unit="mm"
        :min="0.1"
        :max="1000"
        :digits="1"
      />
      <BFormCheckbox class="mb-2" v-model="socle">{{ $t('combine.bustPanel.onATurnedBase') }}</BFormCheckbox>
      <BButton variant="primary" size="sm" :disabled="busy !== ''" @click="make">
        {{ busy || $t('combine.bustPanel.cutToABust') }}
      </BButton>
    </template>
  </FoldPanel>
</template>
