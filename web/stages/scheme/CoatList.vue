<script setup lang="ts">
import { term } from '../../i18n'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed } from 'vue'
import { coat as coatSchema, type Coat } from '../../../contract/scheme'
import type { CoatFact } from '../../../core/paint/coats/coatFacts'
import { TECHNIQUES, type Technique } from '../../../core/defaults/paint'
import { useStock } from '../../stores/stock'
import CoatRow from './CoatRow.vue'

/** The stack of one region, first to last, within the coats of the whole scheme. */
const all = defineModel<Coat[]>({ required: true })
const props = defineProps<{ region: number; facts: ReadonlyMap<string, CoatFact> }>()
const stock = useStock()
const coats = computed(() => all.value.filter((c) => c.regionId === props.region))
/** How each way of laying begins; the rest is as the contract has it. */
const BEGINS: Record<Technique, Partial<Coat>> = {
  base: { film: 40 },
  airbrush: { film: 24, tool: 'airbrush', pigment: 0.6 },
  wash: { film: 16 },
  glaze: { film: 10, pigment: 0.25 },
  layer: { film: 20 },
  'dry brush': { film: 8 },
  stipple: { film: 16, coverage: 0.3, grain: 1.5 },
  chips: { film: 30, coverage: 0.6, grain: 1 },
  powder: { film: 12, coverage: 0.7, pigment: 0.5 },
  metallic: { film: 30 },
  'clear ink': { film: 16, pigment: 0.5 },
  varnish: { film: 10 },
}
const fresh = (technique: Technique, more: Partial<Coat> = {}): Coat =>
  coatSchema.parse({ id: crypto.randomUUID(), regionId: props.region, technique, ...BEGINS[technique], ...more })
const add = (technique: Technique): void => {
  all.value = [...all.value, fresh(technique)]
}
const drop = (c: Coat): void => {
  all.value = all.value.filter((x) => x.id !== c.id)
}
const replace = (c: Coat, next: Coat): void => {
  all.value = all.value.map((x) => (x.id === c.id ? next : x))
}
/** A mix as the region's base: in the one that is there, or in a new one under all others. */
function take(drops: readonly { paint: string; drops: number }[]): void {
  const mix = drops.map((d) => ({ paintId: d.paint, drops: d.drops }))
  const base = coats.value.find((c) => c.technique === 'base')
  if (base) replace(base, { ...base, mix, paintId: null })
  else all.value = [fresh('base', { mix }), ...all.value]
}
defineExpose({ take })
</script>

<template>
  <h2>{{ $t('scheme.coatList.coatsFirstToLast') }}</h2>
  <p v-if="coats.length === 0" class="soft mt-1">{{ $t('scheme.coatList.noCoatsYetStart') }}</p>
  <CoatRow
    v-for="(c, i) in coats"
    :key="c.id"
    :model-value="c"
    :number="i + 1"
    :paints="stock.paints"
    :fact="facts.get(c.id)"
    @update:model-value="replace(c, $event)"
    @remove="drop(c)"
  />
  <div class="d-flex gap-1 flex-wrap my-2">
    <BButton v-for="t in TECHNIQUES" :key="t" variant="quiet" size="sm" @click="add(t)"
      >+ {{ term('technique', t) }}</BButton
    >
  </div>
</template>
