<script setup lang="ts">
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref, shallowRef, watch } from 'vue'
import { text, questionOf, choicesOf } from '../i18n'
import { changedWorkshop, type Workshop } from '../../contract/workshop'
import { SCHOOLS, type School } from '../../core/defaults/plan'
import { useStock } from '../stores/stock'
import NumberField from '../shell/NumberField.vue'
import ClearanceTable from './ClearanceTable.vue'
import HoursEditor from './workshop/HoursEditor.vue'
import MannerPanel from './workshop/MannerPanel.vue'
import PeoplePanel from './workshop/PeoplePanel.vue'
import { DAYS } from './workshop/days'
import ChoiceSelect from '../shell/ChoiceSelect.vue'
import TextField from '../shell/TextField.vue'
import { useFieldFaults } from '../composables/useFieldFaults'

const stock = useStock()
const form = ref<Workshop | null>(null)
/** what the form was filled from */
const filled = shallowRef<Workshop | null>(null)
const copy = (w: Workshop): Workshop => JSON.parse(JSON.stringify(w)) as Workshop
/** Settings that were changed in the form. */
const edited = (): Partial<Workshop> =>
  Object.fromEntries(
    Object.entries(form.value ?? {}).filter(
      ([k, v]) => JSON.stringify(v) !== JSON.stringify(filled.value?.[k as keyof Workshop]),
    ),
  )
const faults = useFieldFaults(),
  { fault } = faults
const saved = ref(false)
/** What was saved is not said of what was typed since. */
const unsaved = computed(() => Object.keys(edited()).length > 0)
watch(
  () => stock.workshop,
  (w) => {
    // What is being edited stays while something else of the workshop changes.
    form.value = w && { ...copy(w), ...(filled.value ? edited() : {}) }
    filled.value = w && copy(w)
  },
  { immediate: true },
)
/** What steps need and a workshop may have several of. */
const PLACES = ['bench', 'airbrush', text('places.workshopPlace.curingLamp')]
const own = new Intl.DateTimeFormat().resolvedOptions().timeZone
const zone = computed({
  get: () => form.value?.timeZone ?? '',
  set: (v) => {
    if (form.value) form.value.timeZone = v.trim() || null
  },
})
/** Fields that say themselves what is wrong with them. */
const SHOWN = /^(name|currency|timeZone|people\.\d+\.name)$/
async function save(): Promise<void> {
  saved.value = false
  const f = form.value!
  if (!faults.read(changedWorkshop, f)) {
    // What is wrong with none of the fields that have a place for it is said above.
    const [other] = Object.entries(faults.all.value).filter(([path]) => !SHOWN.test(path))
    if (other) fault.value = other[1]
    return
  }
  const backwards = [f.benchHours, ...f.people.map((p) => p.hours ?? [])].flat().find((h) => h.to <= h.from)
  if (backwards) {
    fault.value = text('places.workshopPlace.theBenchHoursEnd', { DAYS: DAYS[backwards.weekday] })
    return
  }
  try {
    const sent = copy(edited() as Workshop) as Partial<Workshop>
    await stock.changeWorkshop(sent)
    // As it is kept, which may be without a space at its end; what was typed meanwhile stays.
    const now = form.value as Record<string, unknown> | null
    for (const [k, v] of Object.entries(sent))
      if (now && stock.workshop && JSON.stringify(now[k]) === JSON.stringify(v))
        now[k] = copy(stock.workshop)[k as keyof Workshop]
    saved.value = true
  } catch (e) {
    faults.refuse(e, (path) => SHOWN.test(path))
  }
}
const choose = (s: School, v: string): void => {
  ;(form.value!.schools as Record<string, string>)[s] = v
}
</script>

<template>
  <form v-if="form" class="place scroll" @submit.prevent="save">
    <div class="d-flex gap-3 align-items-center mb-3">
      <h1>{{ $t('places.workshopPlace.workshop') }}</h1>
      <BButton type="submit" variant="primary" size="sm">{{ $t('places.workshopPlace.save') }}</BButton><span
        v-if="saved && !unsaved"
        role="status"
        class="soft"
        >{{ $t('places.workshopPlace.saved') }}</span
      ><span v-if="fault" role="alert" class="text-danger">{{ fault }}</span>
    </div>
    <div class="columns">
      <section>
        <h2 class="mb-2">{{ $t('places.workshopPlace.roomAndMoney') }}</h2>
        <TextField
          v-model="form.name"
          class="mb-2"
          :label="$t('places.workshopPlace.name')"
          :fault="faults.of('name')"
          @update:model-value="faults.mend('name')"
        />
        <TextField
          v-model="form.currency"
          class="mb-2"
          :label="$t('places.workshopPlace.currency')"
          :fault="faults.of('currency')"
          @update:model-value="faults.mend('currency')"
        />
        <NumberField
          v-model="form.temperature"
          :label="$t('places.workshopPlace.temperature')"
          unit="°C"
          :min="-20"
          :max="50"
          :source="$t('places.workshopPlace.usedForWaitingTimes')"
        />
        <NumberField
          v-model="form.humidity"
          :label="$t('places.workshopPlace.humidity')"
          unit="%"
          :min="0"
          :max="100"
          :source="$t('places.workshopPlace.usedForDryingTimes')"
        />
        <NumberField
          v-model="form.labour"
          :label="$t('places.workshopPlace.costOfAnHour')"
          :unit="form.currency"
          :min="0"
          :max="10000"
          :digits="2"
          :source="$t('places.workshopPlace.usedToComparePlans')"
        />
        <label class="d-block mb-2"
          >{{ $t('places.workshopPlace.spraying') }}
          <BFormSelect v-model="form.spraysIn" size="sm">
            <option value="room">{{ $t('places.workshopPlace.inTheRoom') }}</option>
            <option value="open">{{ $t('places.workshopPlace.outdoors') }}</option>
          </BFormSelect></label
        >
        <TextField
          v-model="zone"
          class="mb-2"
          :label="$t('places.workshopPlace.timeZone')"
          :placeholder="$t('places.workshopPlace.thatOfThisComputer', { own })"
          :fault="faults.of('timeZone')"
          @update:model-value="faults.mend('timeZone')"
        />
        <h2 class="mt-4 mb-2">{{ $t('places.workshopPlace.benchHours') }}</h2>
        <HoursEditor v-model="form.benchHours" />
        <PeoplePanel v-model="form.people" :faults="faults" />
        <h2 class="mt-4 mb-2">{{ $t('places.workshopPlace.equipmentOfWhichThere') }}</h2>
        <NumberField
          v-for="place in PLACES"
          :key="place"
          :model-value="form.places[place] ?? 1"
          :label="place"
          :min="1"
          :max="50"
          :digits="0"
          @update:model-value="form.places[place] = $event"
        />
      </section>
      <section>
        <h2 class="mb-2">{{ $t('places.workshopPlace.houseRules') }}</h2>
        <p class="soft">
          {{ $t('places.workshopPlace.wherePractitionersDifferChoose') }}
        </p>
        <label v-for="(_, key) in SCHOOLS" :key="key" class="d-block mb-2"
          >{{ questionOf(key) }}
          <ChoiceSelect size="sm" :model-value="form.schools[key]" @update:model-value="choose(key, String($event))">
            <option v-for="(words, v) in choicesOf(key)" :key="v" :value="v">{{ words }}</option>
          </ChoiceSelect></label
        >
      </section>
      <section>
        <ClearanceTable v-model="form.clearances" />
        <MannerPanel :unsaved="unsaved" />
      </section>
    </div>
  </form>
</template>

<style scoped>
.place {
  height: 100%;
  padding: 18px 28px;
}
.columns {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 370px));
  gap: 44px;
}
</style>
