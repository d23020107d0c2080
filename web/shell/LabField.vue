<script setup lang="ts">
import { ref } from 'vue'
import { text as message } from '../i18n'
import { hexToLab, labToHex, type Triple } from '../../core/paint/optics/colour'
import DraftInput from './DraftInput.vue'
import FaultNote from './FaultNote.vue'
import ColourInput from './ColourInput.vue'

/** A colour by the eye or by its three CIELAB numbers. */
const props = defineProps<{ lab: Triple | null; label: string; empty?: string }>()
const emit = defineEmits<{ change: [lab: Triple | null] }>()
const wrong = ref('')
const text = (): string => (props.lab ? props.lab.map((v) => Number(v.toFixed(1))).join(' / ') : '')
function typed(t: string): void {
  wrong.value = ''
  if (t.trim() === '') {
    emit('change', null)
    return
  }
  const v = t.split(/[/;\s]+/).filter((x) => x !== '')
  const n = v.map((x) => Number(x.replace(',', '.').replace('−', '-')))
  if (
    n.length !== 3 ||
    n.some((x) => !Number.isFinite(x)) ||
    n[0]! < 0 ||
    n[0]! > 100 ||
    n.some((x) => Math.abs(x) > 130)
  )
    wrong.value = message('shell.labField.threeNumbersLFrom')
  else emit('change', n as unknown as Triple)
}
</script>

<template>
  <div>
    <div class="lab">
      <ColourInput :value="lab ? labToHex(lab) : '#b9ac98'" :label="label" @chosen="emit('change', hexToLab($event))" />
      <DraftInput
        :value="text()"
        :placeholder="empty ?? 'L / a / b'"
        :aria-label="$t('shell.labField.asLAB', { label })"
        @done="typed"
      />
    </div>
    <FaultNote :text="wrong" class="mt-1 mb-0" />
  </div>
</template>

<style scoped>
.lab {
  display: grid;
  grid-template-columns: 42px 1fr;
  gap: 6px;
}
</style>
