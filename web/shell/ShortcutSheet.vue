<script setup lang="ts">
import { text } from '../i18n'
import { BModal } from 'bootstrap-vue-next/components/BModal'

const open = defineModel<boolean>({ required: true })
const KEYS = [
  ['?', text('shell.shortcutSheet.thisList')],
  ['/', text('shell.shortcutSheet.search')],
  ['1 … 9, 0', text('shell.shortcutSheet.theFirstTenStages')],
  [', .', text('shell.shortcutSheet.theStageBeforeThe')],
  ['u', text('shell.shortcutSheet.undoTheLastOperation')],
  ['U', text('shell.shortcutSheet.redo')],
  ['b', text('shell.shortcutSheet.benchModeInIt')],
  ['shift ← → ↑ ↓', text('shell.shortcutSheet.inTheCalendarMove')],
  ['← →', text('shell.shortcutSheet.turnTheViewWhen')],
  ['↑ ↓', text('shell.shortcutSheet.stepANumberWith')],
]
</script>

<template>
  <BModal
    v-model="open"
    :title="$t('shell.shortcutSheet.shortcuts')"
    ok-only
    :ok-title="$t('shell.shortcutSheet.close')"
    ok-variant="primary"
    button-size="sm"
    centered
  >
    <dl class="facts">
      <template v-for="[k, what] in KEYS" :key="k"
        ><dt>
          <kbd>{{ k }}</kbd>
        </dt>
        <dd class="text-start">{{ what }}</dd></template
      >
    </dl>
  </BModal>
</template>
