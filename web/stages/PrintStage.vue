<script setup lang="ts">
import { dateText } from '../manner'
import FoldPanel from '../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, onBeforeUnmount, onMounted } from 'vue'
import { fill } from '../../core/findings/printTrouble'
import type { PlateRecord } from '../../contract/runs'
import { useAttempt } from '../composables/useAttempt'
import FindingList from '../shell/FindingList.vue'
import type { StageHandlers } from '../shell/fixHandlers'
import { stillNeeded } from '../stores/facts/runFacts'
import { useFindings } from '../stores/findings'
import { usePlating } from '../stores/plating'
import { useRuns } from '../stores/runs'
import BeginRun from './print/BeginRun.vue'
import JudgePanel from './print/JudgePanel.vue'
import PlateCard from './print/PlateCard.vue'
import PlateView from './print/PlateView.vue'
import FaultNote from '../shell/FaultNote.vue'

/** Runs of the piece: what is printed on which machine, how far it is, how it came out, and what is printed again. */
const found = useFindings(),
  plating = usePlating(),
  runs = useRuns()
const { fault, attempt } = useAttempt()
onMounted(() => {
  plating.open = true
})
onBeforeUnmount(() => {
  plating.open = false
  runs.judging = false
})
const latest = computed(() => runs.runs[0] ?? null)
const older = computed(() => runs.runs.slice(1))
const at =
  <F extends { plate: string }>(work: (plate: PlateRecord, fix: F) => unknown) =>
  (fix: F): Promise<void> =>
    attempt(async () => {
      const plate = runs.plates.find((p) => p.id === fix.plate)
      if (!plate) return
      runs.chosen = plate.id
      await work(plate, fix)
    })
const fixes: StageHandlers<'print'> = {
  judge: at(() => {
    runs.judging = true
  }),
  resume: at((plate) => runs.order(plate, 'resume')),
  refill: at(async (plate) => {
    if (!plate.device) return
    await runs.command(plate.device, { do: 'refill', ml: fill(stillNeeded(plate)) })
    await runs.order(plate, 'resume')
  }),
}
const bin = (): Promise<void> =>
  attempt(async () => {
    if (latest.value) await runs.toTrash(latest.value)
  })
const day = (iso: string): string => dateText(iso, 'day')
</script>

<template>
  <Teleport to="#middle" defer>
    <PlateView v-if="runs.plate && !runs.judging" :plate="runs.plate" />
    <div v-else-if="!runs.judging" class="empty">
      <p class="soft">
        {{ $t('stages.printStage.nothingHasBeenPrinted') }}
      </p>
    </div>
  </Teleport>
  <JudgePanel v-if="runs.judging && runs.plate" :key="runs.plate.id" :plate="runs.plate" />
  <template v-else>
    <FindingList v-if="runs.runs.length > 0" :judged="found.byStage.print" :fixes="fixes" />
    <FaultNote :text="fault" />
    <section v-if="latest" class="mb-3">
      <h2 class="mb-2">
        {{ $t('stages.printStage.run', { number: latest.number }) }}
        <span class="soft small fw-normal"
          >{{ day(latest.createdAt) }}, {{ latest.resinName
          }}{{ latest.lot ? $t('stages.printStage.lot', { lot: latest.lot }) : ''
          }}{{ latest.reprintOf ? $t('stages.printStage.reprint') : '' }}</span
        >
      </h2>
      <PlateCard v-for="p in latest.plates" :key="p.id" :plate="p" :chosen="runs.plate?.id === p.id" />
      <BButton v-if="latest.plates.every((p) => p.state === 'planned')" variant="quiet" size="sm" @click="bin">
        {{ $t('stages.printStage.deleteRun') }}
      </BButton>
    </section>
    <BeginRun />
    <FoldPanel v-for="r in older" :key="r.id" class="mb-1">
      <template #title
        >{{ $t('stages.printStage.run', { number: r.number })
        }}<span class="soft">, {{ day(r.createdAt) }}, {{ r.resinName }}</span>
      </template>
      <PlateCard v-for="p in r.plates" :key="p.id" :plate="p" :chosen="runs.plate?.id === p.id" class="mt-1" />
    </FoldPanel>
  </template>
</template>

<style scoped>
.empty {
  display: grid;
  place-items: center;
  height: 100%;
  padding: 60px;
  background: var(--studio);
}
.empty p {
  max-width: 420px;
}
</style>
