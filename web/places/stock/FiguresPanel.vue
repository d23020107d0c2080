<script setup lang="ts">
import { BFormCheckbox } from 'bootstrap-vue-next/components/BFormCheckbox'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed } from 'vue'
import { printer as printerSchema, resin as resinSchema } from '../../../contract/stock'
import { useAttempt } from '../../composables/useAttempt'
import DraftInput from '../../shell/DraftInput.vue'
import NumberField from '../../shell/NumberField.vue'
import { useStock } from '../../stores/stock'
import { PRINTER_FIGURES, RESIN_FIGURES, type Figure } from './figures'
import FaultNote from '../../shell/FaultNote.vue'

/** Every figure of a printer or a resin, to be set right. */
const props = defineProps<{ kind: 'printer' | 'resin'; item: { id: string; version: number; name: string } }>()
const emit = defineEmits<{ gone: [] }>()
const stock = useStock()
const { fault, attempt } = useAttempt()
const data = computed<Record<string, unknown>>(() =>
  props.kind === 'printer' ? printerSchema.parse(props.item) : resinSchema.parse(props.item),
)
const figures = computed<Figure[]>(() => (props.kind === 'printer' ? PRINTER_FIGURES : RESIN_FIGURES))
const shown = (f: Figure): number => Number(data.value[f.key]) * (f.times ?? 1)
const save = (more: Record<string, unknown>): Promise<void> =>
  attempt(() => stock.change(props.kind, props.item.id, more))
const remove = (): Promise<void> =>
  attempt(async () => {
    await stock.remove(props.kind, props.item.id)
    emit('gone')
  })
</script>

<template>
  <section class="sheet p-3 mb-4" :data-figures="item.name">
    <label class="d-flex gap-2 align-items-center mb-2"
      ><span>{{ $t('stock.figuresPanel.name') }}</span
      ><DraftInput
        class="name"
        maxlength="80"
        :value="item.name"
        :aria-label="$t('stock.figuresPanel.nameOf', { name: item.name })"
        @done="$event.trim() !== '' && save({ name: $event.trim() })"
    /></label>
    <div class="figures">
      <NumberField
        v-for="f in figures"
        :key="f.key"
        :model-value="shown(f)"
        :label="f.word"
        :unit="f.unit"
        :step="f.step"
        :min="f.min"
        :max="f.max"
        :digits="f.digits"
        @update:model-value="save({ [f.key]: $event / (f.times ?? 1) })"
      />
    </div>
    <label v-if="kind === 'printer'" class="d-flex gap-2 align-items-center mt-1"
      ><span>{{ $t('stock.figuresPanel.film') }}</span
      ><DraftInput
        class="name"
        maxlength="80"
        :value="String(data.film ?? '')"
        :placeholder="$t('stock.figuresPanel.filmUnderTheVat')"
        :aria-label="$t('stock.figuresPanel.filmOf', { name: item.name })"
        @done="save({ film: $event.trim() })"
    /></label>
    <BFormCheckbox
      v-if="kind === 'resin'"
      class="mt-1"
      :model-value="Boolean(data.clear)"
      @update:model-value="save({ clear: Boolean($event) })"
      >{{ $t('stock.figuresPanel.clearCureItBriefly') }}</BFormCheckbox
    >
    <BButton variant="quiet" size="sm" class="mt-2" @click="remove">{{
      $t('stock.figuresPanel.delete', { name: item.name })
    }}</BButton>
    <FaultNote :text="fault" class="mt-1" />
  </section>
</template>

<style scoped>
.figures {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(320px, 1fr));
  gap: 0 28px;
  max-width: 1060px;
}
.name {
  width: 260px;
}
</style>
