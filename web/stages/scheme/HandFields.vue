<script setup lang="ts">
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed } from 'vue'
import { text } from '../../i18n'
import type { Coat } from '../../../contract/scheme'
import { HAND, type Hand } from '../../../core/defaults/paint'
import { readOf } from '../../../core/paint/coats/technique'
import { useHand } from '../../stores/hand'
import FaultNote from '../../shell/FaultNote.vue'

/** What of a technique is the hand's own: dragged while the sculpt shows it, kept for all pieces. */
const props = defineProps<{ coat: Pick<Coat, 'technique' | 'tool'> }>()
const store = useHand()
const WORDS: Record<keyof Hand, string> = {
  washOpen: text('scheme.handFields.leftOnOpenSurfaces'),
  layerFlat: text('scheme.handFields.putOnFlatSurfaces'),
  layerHollow: text('scheme.handFields.missedInTheDeepest'),
  dryBrushHollow: text('scheme.handFields.missedOnRidgesIn'),
  chipsFlat: text('scheme.handFields.chipsOnAFlat'),
  powderOpen: text('scheme.handFields.staysOnOpenSurfaces'),
  powderHollow: text('scheme.handFields.moreInTheDeepest'),
  powderSheltered: text('scheme.handFields.moreWhereItIs'),
}
const fields = computed(() => readOf(props.coat).hand)
const usual = computed(() => fields.value.every((k) => store.hand[k] === HAND[k]))
const share = (e: Event): number => Number((e.target as HTMLInputElement).value) / 100
function reset(): void {
  store.set(Object.fromEntries(fields.value.map((k) => [k, HAND[k]])))
  void store.keep()
}
</script>

<template>
  <div v-if="fields.length > 0" class="mt-1">
    <label v-for="k in fields" :key="k"
      ><span>{{ WORDS[k] }}</span
      ><BFormInput
        type="range"
        min="0"
        max="100"
        step="1"
        :model-value="100 * store.hand[k]"
        :aria-label="$t('scheme.handFields.yourHand', { WORDS: WORDS[k] })"
        @input="store.set({ [k]: share($event) })"
        @change="store.keep()"
      /><span class="num">{{ Math.round(100 * store.hand[k]) }} %</span></label
    >
    <p class="m-0">
      {{ $t('scheme.handFields.valuesOfYourOwn', { technique: coat.technique }) }}
      <BButton v-if="!usual" variant="quiet" size="sm" @click="reset">{{ $t('scheme.handFields.reset') }}</BButton>
    </p>
    <FaultNote :text="store.fault" />
  </div>
</template>

<style scoped>
label {
  display: grid;
  grid-template-columns: 1fr 96px 44px;
  gap: 8px;
  align-items: center;
}
</style>
