<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { BTable } from 'bootstrap-vue-next/components/BTable'
import { computed } from 'vue'
import { resin as resinSchema } from '../../../contract/stock'
import { shelfLevel } from '../../../core/stock/lots'
import { text } from '../../i18n'
import { figure, unitName } from '../../manner'
import StartingBadge from './StartingBadge.vue'
import NumberField from '../../shell/NumberField.vue'
import { useStock } from '../../stores/stock'

/** The resins there are. @prop figures and bottles say whose figures and whose bottles are open */
defineProps<{ figures: string | null; bottles: string | null }>()
defineEmits<{ figures: [id: string]; bottles: [id: string]; level: [id: string, ml: number | null] }>()
const stock = useStock()
const rows = computed(() =>
  stock.resins.map((r) => ({
    id: r.id,
    name: r.name,
    starting: r.starting === true,
    clear: r.clear,
    density: r.density,
    price: r.pricePerLitre,
    exposure: r.exposure,
    first: r.bottomExposure,
    peel: r.peelPressure / 1000,
    green: r.greenStrength / 1e6,
    counted: (r.bottles?.length ?? 0) > 0,
    level: r.bottles?.length ? shelfLevel(resinSchema.parse(r)) : (r.level ?? null),
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
  head('density', text('places.stockPlace.densityGMl')),
  head('price', text('places.stockPlace.pricePerLitre')),
  head('exposure', text('places.stockPlace.exposureS')),
  head('first', text('places.stockPlace.firstLayersS')),
  head('peel', text('places.stockPlace.peelPressureKpa')),
  head('green', text('places.stockPlace.greenStrengthMpa')),
  head('level', text('places.stockPlace.inStockMl', { unit: unitName('ml') })),
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
    :empty-text="$t('places.stockPlace.noResinYet')"
    :label-sort-asc="$t('places.materialsPlace.sortAscending')"
    :label-sort-desc="$t('places.materialsPlace.sortDescending')"
    :label-sort-clear="$t('places.stockPlace.asAdded')"
  >
    <template #cell(name)="{ item: r }"
      >{{ r.name }}{{ r.clear ? $t('places.stockPlace.clear') : '' }} <StartingBadge v-if="r.starting"
    /></template>
    <template #cell(density)="{ item: r }">{{ figure(r.density) }}</template>
    <template #cell(price)="{ item: r }">{{ stock.money(r.price) }}</template>
    <template #cell(exposure)="{ item: r }">{{ figure(r.exposure) }}</template>
    <template #cell(first)="{ item: r }">{{ figure(r.first) }}</template>
    <template #cell(peel)="{ item: r }">{{ figure(r.peel, 1) }}</template>
    <template #cell(green)="{ item: r }">{{ figure(r.green, 1) }}</template>
    <template #cell(level)="{ item: r }">
      <span v-if="r.counted">{{ figure(r.level!, 0, 'ml') }}</span>
      <NumberField
        v-else
        bare
        optional
        :min="0"
        :max="1e6"
        :step="10"
        :digits="0"
        unit="ml"
        :placeholder="$t('places.stockPlace.notCounted')"
        :model-value="r.level"
        :label="$t('places.stockPlace.millilitresOfInStock', { name: r.name })"
        @update:model-value="$emit('level', r.id, $event)"
      />
    </template>
    <template #cell(doing)="{ item: r }">
      <BButton
        variant="quiet"
        size="sm"
        class="me-1"
        :aria-expanded="figures === r.id"
        :aria-label="$t('places.stockPlace.figuresOf', { name: r.name })"
        @click="$emit('figures', r.id)"
      >
        {{ $t('places.stockPlace.figures') }}
      </BButton>
      <BButton variant="quiet" size="sm" :aria-expanded="bottles === r.id" @click="$emit('bottles', r.id)">
        {{ bottles === r.id ? $t('places.stockPlace.close') : $t('places.stockPlace.bottles') }}
      </BButton>
    </template>
  </BTable>
</template>
