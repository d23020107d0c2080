<script setup lang="ts">
import FoldPanel from '../../shell/FoldPanel.vue'
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { ref } from 'vue'
import { text } from '../../i18n'
import type { Mesh } from '../../../core/mesh/mesh'
import { usePaintWork } from '../../composables/usePaintWork'
import NumberField from '../../shell/NumberField.vue'
import { nearRegion } from './regionWords'
import ChoiceSelect from '../../shell/ChoiceSelect.vue'

/** What is done to a region as a whole: its edge moved, mirrored, cut in two. */
const props = defineProps<{
  mesh: Mesh
  labels: Uint8Array
  region: number
  splitting: boolean
  undoable: boolean
  others: readonly { id: number; name: string }[]
}>()
const emit = defineEmits<{
  labels: [labels: Uint8Array]
  split: [normal: [number, number, number] | null]
  undo: []
  join: [to: number]
}>()
const work = usePaintWork()
const by = ref(1),
  said = ref(''),
  busy = ref(false),
  way = ref<'level' | 'side' | 'front'>('level')
const WAYS = { level: [0, 0, 1], side: [1, 0, 0], front: [0, -1, 0] } as const
async function run(what: () => Promise<{ labels: Uint8Array; said: string }>): Promise<void> {
  busy.value = true
  try {
    const got = await what()
    said.value = got.said
    emit('labels', got.labels)
  } finally {
    busy.value = false
  }
}
const grow = (mm: number): Promise<void> =>
  run(async () => {
    const labels = await work.grow(props.mesh, props.labels.slice(), props.region, mm)
    return { labels, said: nearRegion(props.labels, labels, props.region) }
  })
const mirror = (): Promise<void> =>
  run(async () => {
    const r = await work.mirror(props.mesh, props.labels.slice(), props.region)
    const lost = Math.round((100 * r.lost) / Math.max(1, props.labels.length))
    return {
      labels: r.labels,
      said:
        r.changed === 0
          ? text('scheme.regionTools.nothingOfItIs')
          : `Mirrored.${lost > 1 ? text('scheme.regionTools.ofTheSideIs', { lost }) : ''}`,
    }
  })
</script>

<template>
  <FoldPanel class="mt-2">
    <template #title>{{ $t('scheme.regionTools.moveItsEdgeMirror') }}</template>
    <NumberField
      class="mt-2"
      v-model="by"
      :label="$t('scheme.regionTools.moveItsEdgeBy')"
      unit="mm"
      :min="0.2"
      :max="30"
      :step="0.5"
      :digits="1"
    />
    <div class="d-flex gap-2 flex-wrap align-items-center">
      <BButton variant="quiet" size="sm" :disabled="busy" @click="grow(by)">{{
        $t('scheme.regionTools.outward')
      }}</BButton>
      <BButton variant="quiet" size="sm" :disabled="busy" @click="grow(-by)">{{
        $t('scheme.regionTools.inward')
      }}</BButton>
      <BButton
        variant="quiet"
        size="sm"
        :disabled="busy"
        :title="$t('scheme.regionTools.acrossTheMiddleOf')"
        @click="mirror"
      >
        {{ $t('scheme.regionTools.mirror') }}
      </BButton>
      <BButton variant="quiet" size="sm" class="ms-auto" :disabled="!undoable" @click="emit('undo')">{{
        $t('scheme.regionTools.undoThisChange')
      }}</BButton>
    </div>
    <div class="d-flex gap-2 mt-2 align-items-center">
      <BButton
        :variant="splitting ? 'primary' : 'quiet'"
        size="sm"
        :aria-pressed="splitting"
        @click="emit('split', splitting ? null : [...WAYS[way]])"
      >
        {{ splitting ? $t('scheme.regionTools.cancelSplit') : $t('scheme.regionTools.splitAtAClick') }}
      </BButton>
      <BFormSelect v-model="way" size="sm" class="w-auto" :aria-label="$t('scheme.regionTools.directionOfTheSplit')">
        <option value="level">{{ $t('scheme.regionTools.level') }}</option>
        <option value="side">{{ $t('scheme.regionTools.leftFromRight') }}</option>
        <option value="front">{{ $t('scheme.regionTools.frontFromBack') }}</option>
      </BFormSelect>
    </div>
    <label v-if="others.length > 0" class="d-flex gap-2 mt-2 align-items-center"
      ><span class="text-nowrap">{{ $t('scheme.regionTools.removeRegionItsSurface') }}</span
      ><ChoiceSelect
        :model-value="''"
        size="sm"
        :aria-label="$t('scheme.regionTools.regionThatGetsIts')"
        @update:model-value="emit('join', Number($event))"
      >
        <option value="">{{ $t('scheme.regionTools.choose') }}</option>
        <option v-for="r in others" :key="r.id" :value="r.id">{{ r.name }}</option>
      </ChoiceSelect></label
    >
    <p v-if="said" class="soft small mt-1 mb-0" role="status">{{ said }}</p>
  </FoldPanel>
</template>
