<script setup lang="ts">
import { dateText } from '../manner'
import { BFormCheckbox } from 'bootstrap-vue-next/components/BFormCheckbox'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { storeToRefs } from 'pinia'
import { computed } from 'vue'
import { RouterLink } from 'vue-router'
import type { CleanStepRecord } from '../../contract/runs'
import { useAttempt } from '../composables/useAttempt'
import { clock, duration } from '../shell/duration'
import FindingList from '../shell/FindingList.vue'
import type { StageHandlers } from '../shell/fixHandlers'
import { useCleaning } from '../stores/cleaning'
import { useFindings } from '../stores/findings'
import { usePiece } from '../stores/piece'
import { useRuns } from '../stores/runs'
import { useStock } from '../stores/stock'
import BathPanel from './clean/BathPanel.vue'
import { useStation } from './clean/useStation'
import FaultNote from '../shell/FaultNote.vue'

/** What came off the plate is drained, washed, stripped, dried and cured: how long, why, and what the station does of it. */
const stock = useStock(),
  piece = usePiece(),
  runs = useRuns(),
  found = useFindings(),
  washing = useCleaning()
const { done, chosen, plate, list } = storeToRefs(washing)
const { fault, attempt } = useAttempt()
const station = useStation()
const next = computed(() => list.value?.steps.find((s) => s.doneAt === null) ?? null)
const left = computed(() => (list.value?.steps ?? []).filter((s) => s.doneAt === null))
const handsOn = computed(() => left.value.reduce((s, x) => s + x.handsOn, 0))
const waits = computed(() => left.value.reduce((s, x) => s + x.wait, 0))
/** "4 × tern, plinth" */
const contents = computed(() => {
  const count = new Map<string, number>()
  for (const { name } of plate.value?.parts ?? []) count.set(name, (count.get(name) ?? 0) + 1)
  return [...count].map(([name, n]) => (n > 1 ? `${n} × ${name}` : name)).join(', ')
})
const tick = (s: CleanStepRecord, on: boolean): Promise<void> => attempt(() => washing.tick(s, on))
const start = (s: CleanStepRecord): Promise<void> => attempt(() => station.start(s.key, s.program!, s.wait))
const fixes: StageHandlers<'clean'> = {
  freshBath: ({ bath }) =>
    attempt(async () => {
      const shop = stock.workshop
      if (shop) await stock.changeWorkshop({ baths: { ...shop.baths, [bath]: { ...shop.baths[bath], resin: 0 } } })
    }),
}
const when = (iso: string): string => dateText(iso, 'time')
</script>

<template>
  <Teleport to="#middle" defer>
    <div class="page">
      <p v-if="!plate" class="soft p-4">
        {{ $t('stages.cleanStage.noPlateIsFinished') }}
        <RouterLink :to="`/pieces/${piece.piece!.id}/print`">{{ $t('stages.cleanStage.print') }}</RouterLink>
        {{ $t('stages.cleanStage.isCleanedHere') }}
      </p>
      <ol v-else-if="list" class="steps">
        <li v-for="s in list.steps" :key="s.key" :class="{ done: s.doneAt, next: s === next }" :data-step="s.key">
          <BFormCheckbox
            :model-value="s.doneAt !== null"
            :aria-label="$t('stages.cleanStage.done', { title: s.title })"
            @update:model-value="tick(s, Boolean($event))"
          />
          <div class="what">
            <b>{{ s.title }}</b>
            <span class="soft">{{ s.why }}</span>
            <template v-if="s === next">
              <span v-if="s.materials.length > 0">{{
                $t('stages.cleanStage.atHand', { materials: s.materials.join(', ') })
              }}</span>
              <span v-for="c in s.cautions" :key="c" class="caution">{{ c }}</span>
              <span v-if="s.program && station.device.value" class="d-flex gap-2 align-items-center mt-1">
                <template v-if="station.running(s.key)">
                  <span class="figure">{{ clock(Math.ceil(station.left.value)) }}</span>
                  <span class="soft">{{
                    $t('stages.cleanStage.leftIn', { name: station.device.value.card.name })
                  }}</span>
                  <BButton variant="quiet" size="sm" @click="attempt(station.hold)">
                    {{ station.paused.value ? $t('stages.cleanStage.continue') : $t('stages.cleanStage.pause') }}
                  </BButton>
                  <BButton variant="quiet" size="sm" @click="attempt(station.stop)">{{
                    $t('stages.cleanStage.stop')
                  }}</BButton>
                </template>
                <span v-else-if="station.finished(s.key)" role="status">{{
                  $t('stages.cleanStage.isFinished', { name: station.device.value.card.name })
                }}</span>
                <BButton v-else variant="primary" size="sm" @click="start(s)">
                  {{ $t('stages.cleanStage.in', { wait: duration(s.wait), name: station.device.value.card.name }) }}
                </BButton>
              </span>
            </template>
          </div>
          <span class="num">{{ duration(s.handsOn) }}</span>
          <span class="num soft">{{ s.doneAt ? when(s.doneAt) : s.wait > 0 ? `+ ${duration(s.wait)}` : '' }}</span>
        </li>
      </ol>
    </div>
  </Teleport>
  <FindingList v-if="plate" :judged="found.byStage.clean" :fixes="fixes" />
  <FaultNote :text="fault" />
  <section v-if="plate && list" class="sheet p-3 mb-3">
    <template v-if="next">
      <span class="figure">{{ duration(handsOn) }}</span>
      <span class="soft">{{ ' ' }}{{ $t('stages.cleanStage.ofWorkLeftAnd', { waits: duration(waits) }) }}</span>
    </template>
    <span v-else>{{ $t('stages.cleanStage.everythingIsClean') }}</span>
    <p class="soft small mb-0 mt-1">{{ $t('stages.cleanStage.removeTheSupportsAs', { contents }) }}</p>
  </section>
  <section v-if="done.length > 1" class="mb-3">
    <h2 class="mb-1">{{ $t('stages.cleanStage.printedPlates') }}</h2>
    <BButton
      v-for="p in done"
      :key="p.id"
      :variant="p.id === plate?.id ? 'primary' : 'quiet'"
      size="sm"
      class="me-1 mb-1"
      @click="chosen = p.id"
    >
      {{ $t('stages.cleanStage.runPlate', { number: runs.runOf(p).number, number2: p.number }) }}
    </BButton>
  </section>
  <BathPanel :carryOver="list" />
</template>

<style scoped>
.page {
  height: 100%;
  padding: 18px 22px;
  background: var(--studio);
  overflow: auto;
}
.steps {
  list-style: none;
  padding: 0;
  max-width: 780px;
}
.steps li {
  display: grid;
  grid-template-columns: 22px minmax(0, 1fr) 70px 84px;
  gap: 10px;
  padding: 9px 10px;
  border-bottom: 1px solid var(--line);
}
.steps li.next {
  background: var(--paper-raised);
  border-left: 3px solid var(--action);
}
.steps li.done .what {
  color: var(--ink-soft);
}
.what {
  display: flex;
  flex-direction: column;
}
</style>
