<script setup lang="ts">
import { BFormCheckbox } from 'bootstrap-vue-next/components/BFormCheckbox'
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, reactive, ref, watch } from 'vue'
import { text, questionOf, choicesOf } from '../../i18n'
import { planDifference, type PlanDifference } from '../../../contract/plan'
import { ADHESIVES, FILLERS } from '../../../core/plan/materials/materials'
import { OF_SCHEMES, SCHOOLS, type School } from '../../../core/defaults/plan'
import { api } from '../../api'
import { useAttempt } from '../../composables/useAttempt'
import { duration } from '../../shell/duration'
import { usePiece } from '../../stores/piece'
import { useStock } from '../../stores/stock'
import ChoiceSelect from '../../shell/ChoiceSelect.vue'
import FaultNote from '../../shell/FaultNote.vue'
import { say } from '../../../core/words/say'
import { manner } from '../../manner'

/** House rules as they hold for this piece: what another choice would change is seen before it is taken. */
const piece = usePiece(),
  stock = useStock()
const { fault, busy, attempt } = useAttempt()
type Choices = Partial<Record<School, string>>
/** Rules of schemes change a plan by the coats that are taken there, not by themselves. */
const QUESTIONS = (Object.keys(SCHOOLS) as School[]).filter((k) => !OF_SCHEMES.includes(k))
const now = computed<Record<string, string>>(() => ({ ...stock.workshop?.schools, ...piece.piece?.schools }))
const wish = reactive<Choices>({})
/** Fillers and adhesives that would not be used; null: as it is. */
const without = ref<string[] | null>(null)
const MATERIALS = [...FILLERS, ...ADHESIVES]
const unused = computed(() => without.value ?? piece.piece?.without ?? [])
function use(id: string, on: boolean): void {
  const next = on ? unused.value.filter((x) => x !== id) : [...unused.value, id]
  const same = [...next].sort().join() === [...(piece.piece?.without ?? [])].sort().join()
  without.value = same ? null : next
}
const difference = ref<PlanDifference | null>(null)
const differs = computed(() => (Object.keys(wish) as School[]).filter((k) => wish[k] && wish[k] !== now.value[k]))
const asked = computed(() => differs.value.length > 0 || without.value !== null)
let serial = 0
watch(
  () => [JSON.stringify(wish), JSON.stringify(without.value), JSON.stringify(now.value), piece.piece?.id],
  async () => {
    const mine = ++serial
    difference.value = null
    if (!asked.value || !piece.piece) return
    const schools = Object.fromEntries(differs.value.map((k) => [k, wish[k]]))
    const { id } = piece.piece
    await attempt(async () => {
      const d = await api(planDifference, 'POST', `/pieces/${id}/plan/compare`, {
        schools,
        ...(without.value ? { without: without.value } : {}),
      })
      if (mine === serial) difference.value = d
    })
  },
)
function choose(k: School, v: string): void {
  if (v === now.value[k]) delete wish[k]
  else wish[k] = v
}
async function take(): Promise<void> {
  const schools = Object.fromEntries(differs.value.map((k) => [k, wish[k]]))
  await attempt(async () => {
    await piece.save({
      schools: { ...piece.piece?.schools, ...schools },
      ...(without.value ? { without: without.value } : {}),
    })
    drop()
  })
}
function drop(): void {
  for (const k of Object.keys(wish) as School[]) delete wish[k]
  without.value = null
}
const more = (v: number, word: (v: number) => string): string =>
  Math.abs(v) < 30
    ? text('plan.comparePanel.theSame')
    : text('plan.comparePanel.v', { abs: word(Math.abs(v)), v: v > 0 })
const rows = computed(() => {
  const d = difference.value
  if (!d) return []
  const time = (of: 'handsOn' | 'waiting' | 'rework') => more(d.then[of] - d.now[of], duration)
  const money = d.then.money - d.now.money
  return [
    ['work', time('handsOn')],
    ['waiting', time('waiting')],
    [text('plan.comparePanel.likelyToBeDone'), time('rework')],
    ...(stock.workshop && stock.workshop.labour > 0
      ? [
          [
            'money',
            Math.abs(money) < 0.5
              ? text('plan.comparePanel.theSame')
              : text('plan.comparePanel.money2', {
                  money: stock.money(Math.abs(money)),
                  money2: money > 0,
                }),
          ],
        ]
      : []),
  ]
})
</script>

<template>
  <FoldPanel class="mb-3">
    <template #title>{{ $t('plan.comparePanel.methodsForThisPiece') }}</template>
    <label v-for="key in QUESTIONS" :key="key" class="line">
      <span>{{ questionOf(key) }}</span>
      <ChoiceSelect size="sm" :model-value="wish[key] ?? now[key]" @update:model-value="choose(key, String($event))">
        <option v-for="(words, v) in choicesOf(key)" :key="v" :value="v">{{ words }}</option>
      </ChoiceSelect>
    </label>
    <fieldset class="mt-2">
      <legend class="small soft mb-1">{{ $t('plan.comparePanel.fillerAndGlueWhere') }}</legend>
      <BFormCheckbox
        v-for="m in MATERIALS"
        :key="m.id"
        class="small"
        :model-value="!unused.includes(m.id)"
        @update:model-value="use(m.id, Boolean($event))"
        >{{ say(m.name, manner) }}</BFormCheckbox
      >
    </fieldset>
    <section v-if="asked" class="sheet p-3 mt-2" data-difference>
      <p v-if="!difference" class="soft m-0">{{ busy ? $t('plan.comparePanel.calculating') : '' }}</p>
      <template v-else>
        <dl class="facts mb-2">
          <template v-for="[word, text] in rows" :key="word"
            ><dt>{{ word }}</dt>
            <dd>{{ text }}</dd></template
          >
        </dl>
        <p v-if="difference.added.length" class="small mb-1">
          {{ $t('plan.comparePanel.added', { added: difference.added.join('; ') }) }}
        </p>
        <p v-if="difference.removed.length" class="small mb-1">
          {{ $t('plan.comparePanel.removed', { removed: difference.removed.join('; ') }) }}
        </p>
        <p v-if="difference.kept > 0" class="small mb-1">
          {{ $t('plan.comparePanel.keptDone', { kept: difference.kept }) }}
        </p>
        <p v-if="difference.lost.length" class="small mb-1">
          {{ $t('plan.comparePanel.doneButNoLonger', { lost: difference.lost.join('; ') }) }}
        </p>
        <div class="d-flex gap-2 mt-2">
          <BButton variant="primary" size="sm" :disabled="busy" @click="take">{{
            $t('plan.comparePanel.apply')
          }}</BButton>
          <BButton variant="quiet" size="sm" @click="drop">{{ $t('plan.comparePanel.cancel') }}</BButton>
        </div>
      </template>
    </section>
    <FaultNote :text="fault" />
  </FoldPanel>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: 104px 1fr;
  gap: 8px;
  align-items: center;
  padding: 2px 0;
}
</style>
