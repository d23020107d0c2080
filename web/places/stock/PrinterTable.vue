<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { BTable } from 'bootstrap-vue-next/components/BTable'
import { computed } from 'vue'
import { plateSize } from '../../../core/print/slice/printer'
import { text } from '../../i18n'
import { figure, unitName } from '../../manner'
import StartingBadge from './StartingBadge.vue'
import ChoiceSelect from '../../shell/ChoiceSelect.vue'
import { useStock } from '../../stores/stock'

/** The printers there are. @prop figures and calibrating say whose figures and whose calibration are open */
defineProps<{ figures: string | null; calibrating: string | null }>()
defineEmits<{ figures: [id: string]; calibrate: [id: string]; layer: [id: string, height: number] }>()
const stock = useStock()
const rows = computed(() =>
  stock.printers.map((p) => ({
    id: p.id,
    name: p.name,
    starting: p.starting === true,
    // Sorted by its area, shown by its sides.
    plate: plateSize(p).reduce((a, b) => a * b, 1),
    sides: plateSize(p)
      .map((v) => figure(v, 0, 'mm'))
      .join(' × '),
    height: p.height,
    pixels: `${p.pixelsX} × ${p.pixelsY}`,
    pitch: p.pitchX * 1000,
    layer: p.layerHeight,
    motion: p.liftTime + p.retractTime + p.restTime,
  })),
)
const head = (key: string, label: string) => ({
  key,
  label,
  sortable: true,
  ...(key === 'name' ? {} : { class: 'num' }),
})
const fields = [
  head('name', text('places.stockPlace.name')),
  head('plate', text('places.stockPlace.plateMm', { unit: unitName('mm') })),
  head('height', text('places.stockPlace.heightMm', { unit: unitName('mm') })),
  { key: 'pixels', label: text('places.stockPlace.pixels'), class: 'num' },
  head('pitch', text('places.stockPlace.pitchM')),
  head('layer', text('places.stockPlace.layerMm')),
  head('motion', text('places.stockPlace.motionPerLayerS')),
  { key: 'doing', label: '', class: 'num' },
]
</script>

<template>
  <BTable
    class="plain"
    small
    show-empty
    primary-key="id"
    :items="rows"
    :fields="fields"
    :empty-text="$t('places.stockPlace.noPrinterYet')"
    :label-sort-asc="$t('places.materialsPlace.sortAscending')"
    :label-sort-desc="$t('places.materialsPlace.sortDescending')"
    :label-sort-clear="$t('places.stockPlace.asAdded')"
  >
    <template #cell(name)="{ item: p }">{{ p.name }} <StartingBadge v-if="p.starting" /></template>
    <template #cell(plate)="{ item: p }">{{ p.sides }}</template>
    <template #cell(height)="{ item: p }">{{ figure(p.height, undefined, 'mm') }}</template>
    <template #cell(pitch)="{ item: p }">{{ figure(p.pitch, 1) }}</template>
    <template #cell(layer)="{ item: p }">
      <ChoiceSelect
        size="sm"
        class="d-inline-block w-auto"
        :model-value="p.layer"
        :aria-label="$t('places.stockPlace.layerHeightOf', { name: p.name })"
        @update:model-value="$emit('layer', p.id, Number($event))"
      >
        <option v-for="h in [0.025, 0.03, 0.04, 0.05, 0.08, 0.1]" :key="h" :value="h">{{ figure(h) }}</option>
      </ChoiceSelect>
    </template>
    <template #cell(motion)="{ item: p }">{{ figure(p.motion, 1) }}</template>
    <template #cell(doing)="{ item: p }">
      <BButton
        variant="quiet"
        size="sm"
        class="me-1"
        :aria-expanded="figures === p.id"
        :aria-label="$t('places.stockPlace.figuresOf', { name: p.name })"
        @click="$emit('figures', p.id)"
      >
        {{ $t('places.stockPlace.figures') }}
      </BButton>
      <BButton variant="quiet" size="sm" :aria-expanded="calibrating === p.id" @click="$emit('calibrate', p.id)">
        {{ calibrating === p.id ? $t('places.stockPlace.close') : $t('places.stockPlace.calibrate') }}
      </BButton>
    </template>
  </BTable>
</template>
