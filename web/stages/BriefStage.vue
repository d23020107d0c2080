<script setup lang="ts">
import { text, questionOf, choicesOf } from '../i18n'
import { SCHOOLS, type School } from '../../core/defaults/plan'
import { usePiece } from '../stores/piece'
import { useStock } from '../stores/stock'
import NumberField from '../shell/NumberField.vue'
import ChoiceSelect from '../shell/ChoiceSelect.vue'
import DateField from '../shell/DateField.vue'
import SavedText from '../shell/SavedText.vue'
import { newPiece } from '../../contract/pieces'

const store = usePiece(),
  stock = useStock()
const client = newPiece.shape.client.unwrap(),
  brief = newPiece.shape.brief.unwrap()
const save = (fields: Parameters<typeof store.save>[0]): void => {
  void store.save(fields)
}
const houseRule = (s: School): string => {
  const choices: Record<string, string> = choicesOf(s)
  return stock.workshop
    ? text('stages.briefStage.houseRule', { choices: choices[stock.workshop.schools[s]] })
    : text('stages.briefStage.houseRule2')
}
function school(s: School, v: string): void {
  const schools = { ...store.piece!.schools, [s]: v === '' ? undefined : v }
  save({ schools: JSON.parse(JSON.stringify(schools)) as typeof schools })
}
</script>

<template>
  <p class="soft">{{ $t('stages.briefStage.thePurposeDecidesHow') }}</p>
  <Teleport to="#middle" defer>
    <div class="page">
      <h2 class="mb-3">{{ $t('stages.briefStage.brief') }}</h2>
      <div class="grid">
        <SavedText
          :value="store.piece!.name"
          :label="$t('stages.briefStage.name')"
          :schema="newPiece.shape.name"
          @done="save({ name: $event })"
        />
        <SavedText
          :value="store.piece!.client"
          :label="$t('stages.briefStage.forWhom')"
          :schema="client"
          :placeholder="$t('stages.briefStage.ownPiece')"
          @done="save({ client: $event })"
        />
        <label
          >{{ $t('stages.briefStage.purpose') }}
          <ChoiceSelect :model-value="store.piece!.purpose" @update:model-value="save({ purpose: $event as 'keep' })">
            <option value="keep">{{ $t('stages.briefStage.toKeep') }}</option>
            <option value="sell">{{ $t('stages.briefStage.toSell') }}</option>
            <option value="commission">{{ $t('stages.briefStage.commission') }}</option>
          </ChoiceSelect></label
        >
        <DateField
          :value="store.piece!.deadline ?? ''"
          :label="$t('stages.briefStage.deadline')"
          @done="save({ deadline: $event || null })"
        />
        <label
          >{{ $t('stages.briefStage.finish') }}
          <ChoiceSelect :model-value="store.piece!.finish" @update:model-value="save({ finish: $event as 'shelf' })">
            <option value="shelf">{{ $t('stages.briefStage.shelf') }}</option>
            <option value="display">{{ $t('stages.briefStage.display') }}</option>
            <option value="exhibition">{{ $t('stages.briefStage.exhibition') }}</option>
          </ChoiceSelect></label
        >
        <label
          >{{ $t('stages.briefStage.printer') }}
          <ChoiceSelect
            :model-value="store.piece!.printerId ?? ''"
            @update:model-value="save({ printerId: String($event) || null })"
          >
            <option value="">{{ $t('stages.briefStage.notChosen') }}</option>
            <option v-for="p in stock.printers" :key="p.id" :value="p.id">{{ p.name }}</option>
          </ChoiceSelect></label
        >
        <label
          >{{ $t('stages.briefStage.resin') }}
          <ChoiceSelect
            :model-value="store.piece!.resinId ?? ''"
            @update:model-value="save({ resinId: String($event) || null })"
          >
            <option value="">{{ $t('stages.briefStage.notChosen') }}</option>
            <option v-for="r in stock.resins" :key="r.id" :value="r.id">{{ r.name }}</option>
          </ChoiceSelect></label
        >
        <SavedText
          class="wide"
          :lines="5"
          :value="store.piece!.brief"
          :label="$t('stages.briefStage.whatWasAgreedAnd')"
          :schema="brief"
          @done="save({ brief: $event })"
        />
      </div>
    </div>
  </Teleport>
  <NumberField
    :model-value="store.piece!.subjectStature"
    :label="$t('stages.briefStage.statureOfTheSubject')"
    unit="mm"
    :step="10"
    :min="1"
    :max="100000"
    :digits="0"
    :source="$t('stages.briefStage.forScaleRatios')"
    @update:model-value="save({ subjectStature: $event })"
  />
  <h2 class="mt-4 mb-2">{{ $t('stages.briefStage.howYouWork') }}</h2>
  <p class="soft small">{{ $t('stages.briefStage.theWorkshopsHouseRule') }}</p>
  <label v-for="(_, key) in SCHOOLS" :key="key" class="choice">
    <span>{{ questionOf(key) }}</span>
    <ChoiceSelect
      size="sm"
      :model-value="store.piece!.schools[key] ?? ''"
      @update:model-value="school(key, String($event))"
    >
      <option value="">{{ houseRule(key) }}</option>
      <option v-for="(words, v) in choicesOf(key)" :key="v" :value="v">{{ words }}</option>
    </ChoiceSelect>
  </label>
</template>

<style scoped>
.page {
  padding: 20px 28px;
  max-width: 780px;
}
.grid {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px 18px;
}
.grid label {
  font-size: 0.88rem;
  color: var(--ink-soft);
}
.wide {
  grid-column: 1 / -1;
}
.choice {
  display: block;
  margin-bottom: 8px;
  font-size: 0.88rem;
}
</style>
