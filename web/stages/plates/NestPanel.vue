<script setup lang="ts">
import { BAlert } from 'bootstrap-vue-next/components/BAlert'
import { BTableSimple, BTbody, BTd, BTh, BThead, BTr } from 'bootstrap-vue-next/components/BTable'
import { BFormCheckbox } from 'bootstrap-vue-next/components/BFormCheckbox'
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref } from 'vue'
import { text, fixed } from '../../i18n'
import type { NestedPlate } from '../../../core/print/nest/types'
import { duration } from '../../shell/duration'
import { useStock } from '../../stores/stock'
import { usePlating } from '../../stores/plating'
import { useSpares } from './useSpares'
import ChoiceSelect from '../../shell/ChoiceSelect.vue'
import NumberField from '../../shell/NumberField.vue'
import { messageOf } from '../../messageOf'

/** What is printed how often, on which printers; the plates that come of it, and what other ways would take. */
const emit = defineEmits<{ show: []; slice: [] }>()
const plating = usePlating(),
  stock = useStock()
const n = computed(() => plating.report?.nesting ?? null)
const nameOf = (id: string): string =>
  plating.parts.find((p) => p.part.id === id)?.part.name ?? text('plates.nestPanel.aPartThatIs')
const printerName = (id: string): string =>
  stock.printers.find((p) => p.id === id)?.name ?? text('plates.nestPanel.aPrinterThatIs')
const WHY = {
  tall: text('plates.nestPanel.isTooTallFor'),
  wide: text('plates.nestPanel.isTooWideFor'),
  taken: text('plates.nestPanel.doesNotFitWhere'),
}
const ways = computed(() => {
  const r = plating.report
  if (!r) return []
  return [
    {
      word: text('plates.nestPanel.asShown'),
      ...r.nesting,
      plates: r.nesting.plates.length,
      left: r.nesting.left.length,
      now: true,
    },
    ...(r.soonest ? [{ word: text('plates.nestPanel.inParallelEarliestFinish'), ...r.soonest, now: false }] : []),
    ...r.only.map((o) => ({
      word: text('plates.nestPanel.allOn', { printer: printerName(o.printer) }),
      ...o,
      now: false,
    })),
    { word: text('plates.nestPanel.byInTheOrder'), ...r.oneByOne, now: false },
  ]
})
function copies(id: string, v: number): void {
  void plating.change({ copies: { ...plating.wish.copies, [id]: v } })
}
function printer(id: string, used: boolean): void {
  const now = new Set(plating.printers.map((p) => p.id))
  if (used) now.add(id)
  else now.delete(id)
  // At least one printer prints.
  if (now.size > 0) void plating.change({ printers: [...now] })
}
function free(id: string): void {
  void plating.change({
    locks: Object.fromEntries(Object.entries(plating.wish.locks).filter(([k]) => k !== id)),
  })
}
const { spares } = useSpares()
/** Spares are for what is printed several times or is likely to fail; one proposal a part. */
const advised = computed(() =>
  plating.parts.flatMap((p) => {
    const s = spares(p)
    return s && p.spares < s.spares ? [{ id: p.part.id, name: p.part.name, copies: p.copies, ...s }] : []
  }),
)
const fault = ref(''),
  busy = ref(false)
async function slice(plate: NestedPlate, i: number): Promise<void> {
  fault.value = ''
  busy.value = true
  plating.selected = i
  try {
    await plating.setUp(plate)
    emit('slice')
  } catch (e) {
    fault.value = messageOf(e)
  } finally {
    busy.value = false
  }
}
function show(i: number): void {
  plating.selected = i
  emit('show')
}
</script>

<template>
  <section class="mb-3">
    <h2 class="mb-2">{{ $t('plates.nestPanel.plates') }}</h2>
    <p v-if="plating.parts.length === 0" class="soft mb-0">{{ $t('plates.nestPanel.noPartHasAn') }}</p>
    <template v-else>
      <div v-if="n" class="sheet p-3 mb-2">
        <span class="figure">{{ duration(n.seconds) }}</span>
        <span class="soft"
          >{{ ' ' }}{{ $t('plates.nestPanel.ofMachineTimeOn', { plates: n.plates.length })
          }}<template v-if="n.finish < n.seconds - 60">{{
            $t('plates.nestPanel.finishedAfter', { finish: duration(n.finish) })
          }}</template
          ><template v-if="plating.measuring">{{ ' ' }}{{ $t('plates.nestPanel.nesting') }}</template></span
        >
        <ul class="plates mt-2">
          <li v-for="(p, i) in n.plates" :key="i" :class="{ now: plating.plate === p }">
            <span
              >{{ printerName(p.printer) }}, {{ p.number + 1 }}<br /><span class="soft small">{{
                $t('plates.nestPanel.partsMm', {
                  parts: p.parts.length,
                  height: fixed(p.height, 0),
                  seconds: duration(p.seconds),
                })
              }}</span></span
            >
            <span class="d-flex gap-1">
              <BButton variant="quiet" size="sm" @click="show(i)">{{ $t('plates.nestPanel.show') }}</BButton>
              <BButton variant="quiet" size="sm" :disabled="busy || plating.behind" @click="slice(p, i)">
                {{ $t('plates.nestPanel.slice') }}
              </BButton>
            </span>
          </li>
        </ul>
        <BAlert v-for="(l, i) in n.left" :key="i" :model-value="true" variant="danger">
          {{ nameOf(l.id) }} {{ WHY[l.why] }}.
        </BAlert>
        <FoldPanel v-if="ways.length > 1" class="mt-1">
          <template #title>{{ $t('plates.nestPanel.otherArrangements') }}</template>
          <BTableSimple class="mt-1 mb-0" small>
            <BThead>
              <BTr>
                <BTh />
                <BTh class="num">{{ $t('plates.nestPanel.plates2') }}</BTh>
                <BTh class="num">{{ $t('plates.nestPanel.machineTime') }}</BTh>
                <BTh class="num">{{ $t('plates.nestPanel.finishedAfter2') }}</BTh>
              </BTr>
            </BThead>
            <BTbody>
              <BTr v-for="w in ways" :key="w.word" :class="{ nowRow: w.now }">
                <BTh scope="row">{{ w.word }}</BTh>
                <template v-if="w.left > 0 && !w.now"
                  ><BTd colspan="3" class="soft">{{ $t('plates.nestPanel.doNotFit', { left: w.left }) }}</BTd></template
                >
                <template v-else>
                  <BTd class="num">{{ w.plates }}</BTd>
                  <BTd class="num">{{ duration(w.seconds) }}</BTd>
                  <BTd class="num">{{ duration(w.finish) }}</BTd>
                </template>
              </BTr>
            </BTbody>
          </BTableSimple>
        </FoldPanel>
      </div>
      <p v-else-if="plating.measuring" class="soft">{{ $t('plates.nestPanel.nesting2') }}</p>
      <BAlert v-if="plating.problem || fault" :model-value="true" variant="danger">{{
        fault || plating.problem
      }}</BAlert>
      <BTableSimple class="mb-2" small>
        <BThead>
          <BTr>
            <BTh>{{ $t('plates.nestPanel.part') }}</BTh>
            <BTh class="num">{{ $t('plates.nestPanel.copies') }}</BTh>
            <BTh>{{ $t('plates.nestPanel.mayBeTurned2') }}</BTh>
            <BTh />
          </BTr>
        </BThead>
        <BTbody>
          <BTr v-for="p in plating.parts" :key="p.part.id">
            <BTd>
              {{ p.part.name
              }}<template v-if="p.spares > 0"
                ><span class="soft">{{ $t('plates.nestPanel.andSpare', { spares: p.spares }) }}</span>
                <BButton
                  variant="quiet"
                  size="sm"
                  :aria-label="$t('plates.nestPanel.noSpareOf', { name: p.part.name })"
                  @click="plating.change({ spares: { ...plating.wish.spares, [p.part.id]: 0 } })"
                >
                  ×
                </BButton></template
              >
            </BTd>
            <BTd class="num">
              <NumberField
                bare
                :min="0"
                :max="200"
                whole
                :model-value="p.copies"
                :label="$t('plates.nestPanel.copiesOf', { name: p.part.name })"
                @update:model-value="copies(p.part.id, $event)"
              />
            </BTd>
            <BTd>
              <BFormCheckbox
                :model-value="!plating.wish.straight[p.part.id]"
                :aria-label="$t('plates.nestPanel.mayBeTurned', { name: p.part.name })"
                @update:model-value="
                  plating.change({
                    straight: {
                      ...plating.wish.straight,
                      [p.part.id]: !Boolean($event),
                    },
                  })
                "
              />
            </BTd>
            <BTd>
              <BButton v-if="plating.wish.locks[p.part.id]?.length" variant="quiet" size="sm" @click="free(p.part.id)">
                {{ $t('plates.nestPanel.unlock') }}
              </BButton>
            </BTd>
          </BTr>
        </BTbody>
      </BTableSimple>
      <p v-for="a in advised" :key="a.id" class="soft small mb-2" :data-spares="a.name">
        {{
          $t('plates.nestPanel.theChanceThatCopies', {
            name: a.name,
            round: Math.round(100 * a.without),
            copies: a.copies,
            spares: a.spares,
            round2: Math.round(100 * a.with),
          })
        }}
        <BButton
          variant="quiet"
          size="sm"
          @click="plating.change({ spares: { ...plating.wish.spares, [a.id]: a.spares } })"
        >
          {{ $t('plates.nestPanel.printSparesSpares', { spares: a.spares }) }}
        </BButton>
      </p>
      <p v-if="plating.unplaced.length > 0" class="soft small mb-2">
        {{ $t('plates.nestPanel.withoutOrientationSoNot', { names: plating.unplaced.map((p) => p.name).join(', ') }) }}
      </p>
      <FoldPanel>
        <template #title
          >{{ $t('plates.nestPanel.printers')
          }}<span class="soft">: {{ plating.printers.map((p) => p.name).join(', ') }}</span>
        </template>
        <BFormCheckbox
          v-for="p in stock.printers"
          :key="p.id"
          class="mt-1"
          :model-value="plating.printers.some((q) => q.id === p.id)"
          @update:model-value="printer(p.id, Boolean($event))"
          >{{ p.name }}</BFormCheckbox
        >
        <label class="d-flex align-items-center gap-2 mt-2"
          ><span>{{ $t('plates.nestPanel.aim') }}</span>
          <ChoiceSelect
            size="sm"
            class="w-auto"
            :model-value="plating.wish.aim"
            @update:model-value="plating.change({ aim: $event as 'hours' })"
          >
            <option value="hours">{{ $t('plates.nestPanel.leastMachineTime') }}</option>
            <option value="soonest">{{ $t('plates.nestPanel.earliestFinish') }}</option>
          </ChoiceSelect></label
        >
      </FoldPanel>
    </template>
  </section>
</template>

<style scoped>
.plates {
  list-style: none;
  padding: 0;
  margin-bottom: 4px;
}
.plates li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 8px;
  padding: 4px 6px;
  border-radius: 5px;
}
.plates li.now,
.nowRow {
  background: var(--paper-sunk);
}
.table {
  font-size: 0.85rem;
}
.table th {
  font-weight: 500;
}
.count {
  width: 64px;
  margin-left: auto;
  text-align: right;
}
</style>
