<script setup lang="ts">
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect'
import { PSEUDO } from '../../../core/words/format'
import { text } from '../../i18n'
import { browserRegion, CHOICES, dateText, figure, manner } from '../../manner'

/**
 * How this browser writes: regions whose numbers and dates differ, and units. Another choice loads the page again, so that
 * there is none while something typed is not saved.
 */
defineProps<{ unsaved: boolean }>()
const REGIONS = 'AU AT BE CA CH DE DK FI GB IE IN NL NZ SE SG US ZA'.split(' ')
const names = new Intl.DisplayNames('en', { type: 'region' })
const own = browserRegion()
const regions = REGIONS.map((value) => ({ value, text: names.of(value) ?? value })).sort((a, b) =>
  a.text.localeCompare(b.text, 'en'),
)
const PAIRS = {
  length: ['mm', 'in'],
  mass: ['g', 'oz'],
  volume: ['ml', 'fl oz'],
  temperature: ['°C', '°F'],
} as const
const WORDS: Readonly<Record<keyof typeof PAIRS, string>> = {
  length: text('workshop.mannerPanel.lengths'),
  mass: text('workshop.mannerPanel.masses'),
  volume: text('workshop.mannerPanel.volumes'),
  temperature: text('workshop.mannerPanel.temperatures'),
}
const kept = (key: keyof typeof CHOICES): string => localStorage.getItem(CHOICES[key]) ?? ''
function choose(key: keyof typeof CHOICES, value: string): void {
  if (value === '') localStorage.removeItem(CHOICES[key])
  else localStorage.setItem(CHOICES[key], value)
  location.reload()
}
const spoken = manner.locale === PSEUDO
</script>

<template>
  <section>
    <h2 class="mt-4 mb-2">{{ $t('workshop.mannerPanel.unitsAndFormats') }}</h2>
    <p class="soft small mb-2">
      {{
        $t('workshop.mannerPanel.ofThisBrowserNow', {
          number: figure(1234.5, 1),
          date: dateText(new Date(), 'date'),
          time: dateText(new Date(), 'time'),
        })
      }}
    </p>
    <p v-if="unsaved" class="small mb-2">{{ $t('workshop.mannerPanel.saveFirst') }}</p>
    <label v-for="(pair, key) in PAIRS" :key="key" class="row-of"
      >{{ WORDS[key] }}
      <BFormSelect
        size="sm"
        :disabled="unsaved"
        :model-value="manner[key]"
        :options="[...pair]"
        @update:model-value="choose(key, String($event))"
    /></label>
    <label class="row-of"
      >{{ $t('workshop.mannerPanel.numbersAndDatesAs') }}
      <BFormSelect
        size="sm"
        :disabled="spoken || unsaved"
        :model-value="kept('region')"
        :options="[
          {
            value: '',
            text: $t('workshop.mannerPanel.asTheBrowser', { region: own ? (names.of(own) ?? own) : '–' }),
          },
          ...regions,
        ]"
        @update:model-value="choose('region', String($event))"
    /></label>
  </section>
</template>

<style scoped>
.row-of {
  display: grid;
  grid-template-columns: 1fr minmax(90px, 190px);
  gap: 10px;
  align-items: center;
  margin-bottom: 5px;
}
</style>
