<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect'
import { computed, ref, watch } from 'vue'
import type { FitNow } from '../../../core/plan/scheduling/fitsNow'
import NumberField from '../../shell/NumberField.vue'
import { duration } from '../../shell/duration'
import { useCalendar } from '../../stores/calendar'

/** What fits into the time there is, for the most use, over all pieces. */
const emit = defineEmits<{ select: [id: string] }>()
const store = useCalendar()
const minutes = ref(45),
  person = ref('')
const fits = ref<FitNow[] | null>(null)
let asked = 0
watch(
  [minutes, person, () => store.made],
  async () => {
    const mine = ++asked
    const found = await store.use(minutes.value * 60, person.value || null)
    if (mine === asked) fits.value = found
  },
  { immediate: true },
)
const taken = computed(() => {
  const list = fits.value ?? []
  return list.length > 0 ? (list.at(-1)!.end - list[0]!.start) / 1000 : 0
})
const saved = computed(() => (fits.value ?? []).reduce((s, f) => s + f.saved, 0))
const pieceName = (id: string): string =>
  store.calendar?.pieces.find((p) => p.id === store.task.get(id)?.piece)?.name ?? ''
const benchOf = (id: string) => {
  const t = store.task.get(id)!
  return { path: `/pieces/${t.piece}/bench`, query: { step: t.key } }
}
</script>

<template>
  <section class="sheet p-3 mb-3" :aria-label="$t('calendar.timePanel.whatFitsNow')">
    <NumberField v-model="minutes" :label="$t('calendar.timePanel.iHave')" unit="min" :min="5" :max="720" :step="5" />
    <BFormSelect
      v-if="(store.calendar?.people.length ?? 0) > 1"
      v-model="person"
      size="sm"
      class="my-1"
      :aria-label="$t('calendar.timePanel.whoHasTime')"
    >
      <option value="">{{ $t('calendar.timePanel.anyone') }}</option>
      <option v-for="p in store.calendar!.people" :key="p.name" :value="p.name">{{ p.name }}</option>
    </BFormSelect>
    <p v-if="fits && fits.length === 0" class="soft small m-0">
      {{ $t('calendar.timePanel.nothingThatCanStart') }}
    </p>
    <ol v-else-if="fits" class="fits">
      <li v-for="f in fits" :key="f.id">
        <BButton variant="card" class="what" @click="emit('select', f.id)">{{ store.task.get(f.id)?.title }}</BButton>
        <span class="soft small">
          {{ pieceName(f.id) }}, {{ duration((f.end - f.start) / 1000)
          }}{{
            (store.task.get(f.id)?.waiting ?? 0) > 600
              ? $t('calendar.timePanel.thenOfWaiting', { waiting: duration(store.task.get(f.id)!.waiting) })
              : ''
          }}
        </span>
        <RouterLink v-if="store.task.get(f.id)" class="small ms-1" :to="benchOf(f.id)">{{
          $t('calendar.timePanel.openBenchMode')
        }}</RouterLink>
      </li>
    </ol>
    <p v-if="taken > 0" class="soft small m-0">
      {{
        $t('calendar.timePanel.inAllSavedOf', {
          taken: duration(taken),
          saved: saved > 0,
          saved2: duration(saved),
        })
      }}
    </p>
  </section>
</template>

<style scoped>
.fits {
  margin: 6px 0;
  padding-left: 20px;
}
.what {
  display: block;
  background: none;
  border: 0;
  padding: 0;
  text-align: left;
  color: inherit;
}
.what:hover {
  text-decoration: underline;
}
</style>
