<script setup lang="ts">
import { BTableSimple, BTbody, BTd, BTh, BThead, BTr } from 'bootstrap-vue-next/components/BTable'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, onMounted, ref } from 'vue'
import { text, fixed } from '../../i18n'
import { figure } from '../../manner'
import { record as recordSchema, type PrintRecord } from '../../../contract/runs'
import { api } from '../../api'
import { useAttempt } from '../../composables/useAttempt'
import { useStock } from '../../stores/stock'
import FaultNote from '../../shell/FaultNote.vue'

/** What the prints so far teach: how often parts come out, and how long a layer really takes. */
const stock = useStock()
const record = ref<PrintRecord | null>(null)
const { fault, attempt } = useAttempt()
const load = async (): Promise<void> => {
  record.value = await api(recordSchema, 'GET', '/record').catch(() => null)
}
onMounted(load)
const BY = {
  printer: text('stock.recordPanel.byPrinter'),
  resin: text('stock.recordPanel.byResin'),
  tilt: text('stock.recordPanel.byTilt'),
  tips: text('stock.recordPanel.byFinestTip'),
}
const groups = computed(() =>
  (Object.keys(BY) as (keyof typeof BY)[])
    .map((by) => ({ by, rows: (record.value?.rates ?? []).filter((r) => r.by === by) }))
    .filter((g) => g.rows.length > 0),
)
const pc = (v: number): string => `${Math.round(100 * v)} %`
/** Motion is shared out over lift, return and rest as it was. */
const take = (t: PrintRecord['times'][number]): Promise<void> =>
  attempt(async () => {
    const p = stock.printers.find((x) => x.id === t.printerId)
    if (!p) return
    const k = t.motion / Math.max(0.01, t.now)
    await stock.change('printer', p.id, {
      liftTime: p.liftTime * k,
      retractTime: p.retractTime * k,
      restTime: p.restTime * k,
    })
    await load()
  })
</script>

<template>
  <template v-if="record && record.plates > 0">
    <h2>{{ $t('stock.recordPanel.printStatistics') }}</h2>
    <BTableSimple v-if="record.times.length > 0" class="plain mb-3 times">
      <BThead>
        <BTr>
          <BTh>{{ $t('stock.recordPanel.printer') }}</BTh>
          <BTh class="num">{{ $t('stock.recordPanel.prints') }}</BTh>
          <BTh class="num">{{ $t('stock.recordPanel.motionPerLayerS') }}</BTh>
          <BTh class="num">{{ $t('stock.recordPanel.measured') }}</BTh>
          <BTh class="num">{{ $t('stock.recordPanel.errorOfEstimates') }}</BTh>
          <BTh class="num">{{ $t('stock.recordPanel.withThisValue') }}</BTh>
          <BTh />
        </BTr>
      </BThead>
      <BTbody>
        <BTr v-for="t in record.times" :key="t.printerId">
          <BTd>{{ t.name }}</BTd>
          <BTd class="num">{{ t.prints }}</BTd>
          <BTd class="num">{{ figure(t.now, 2) }}</BTd>
          <BTd class="num">{{ figure(t.motion, 2) }}</BTd>
          <BTd class="num">{{ figure(100 * t.before, 1) }} %</BTd>
          <BTd class="num">{{ figure(100 * t.after, 1) }} %</BTd>
          <BTd class="num">
            <BButton v-if="Math.abs(t.motion - t.now) > 0.02" variant="primary" size="sm" @click="take(t)">
              {{ $t('stock.recordPanel.calculateWithS', { motion: fixed(t.motion, 2) }) }}
            </BButton>
            <span v-else class="soft">{{ $t('stock.recordPanel.asCalculated') }}</span>
          </BTd>
        </BTr>
      </BTbody>
    </BTableSimple>
    <div class="rates mb-4">
      <BTableSimple v-for="g in groups" :key="g.by" class="plain">
        <BThead>
          <BTr>
            <BTh>{{ BY[g.by] }}</BTh>
            <BTh class="num">{{ $t('stock.recordPanel.succeeded') }}</BTh>
            <BTh class="num">{{ $t('stock.recordPanel.likely') }}</BTh>
          </BTr>
        </BThead>
        <BTbody>
          <BTr v-for="r in g.rows" :key="r.what">
            <BTd>{{ r.what }}</BTd>
            <BTd class="num">{{ $t('stock.recordPanel.of', { good: r.good, parts: r.parts }) }}</BTd>
            <BTd class="num soft" :title="$t('stock.recordPanel.n90IntervalByWilsons')">
              {{ $t('stock.recordPanel.to', { low: pc(r.low), high: pc(r.high) }) }}
            </BTd>
          </BTr>
        </BTbody>
      </BTableSimple>
    </div>
    <FaultNote :text="fault" />
  </template>
</template>

<style scoped>
.times {
  max-width: 1100px;
}
.rates {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(330px, 1fr));
  gap: 14px 28px;
  max-width: 1100px;
}
</style>
