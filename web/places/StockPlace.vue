<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, onMounted, ref } from 'vue'
import { text } from '../i18n'
import { useStock } from '../stores/stock'
import BottlePanel from './stock/BottlePanel.vue'
import CalibrationPanel from './stock/CalibrationPanel.vue'
import DevicePanel from './stock/DevicePanel.vue'
import FiguresPanel from './stock/FiguresPanel.vue'
import PrinterTable from './stock/PrinterTable.vue'
import RecordPanel from './stock/RecordPanel.vue'
import ResinTable from './stock/ResinTable.vue'
import StockNav from './stock/StockNav.vue'
import FaultNote from '../shell/FaultNote.vue'
import { messageOf } from '../messageOf'

const stock = useStock()
const fault = ref('')
const calibrating = ref<string | null>(null)
const bottles = ref<string | null>(null)
const counted = computed(() => stock.resins.find((r) => r.id === bottles.value) ?? null)
const atWork = computed(() => stock.printers.find((p) => p.id === calibrating.value) ?? null)
onMounted(() =>
  stock.load().catch((e: unknown) => {
    fault.value = messageOf(e)
  }),
)
const editing = ref<string | null>(null)
const editedPrinter = computed(() => stock.printers.find((p) => p.id === editing.value) ?? null)
const editedResin = computed(() => stock.resins.find((r) => r.id === editing.value) ?? null)
/** Something to begin with, whose figures are set right at once. */
const NEW = {
  printer: {
    name: text('places.stockPlace.newPrinter'),
    pixelsX: 3840,
    pixelsY: 2400,
    pitchX: 0.05,
    pitchY: 0.05,
    height: 200,
    layerHeight: 0.05,
  },
  resin: { name: text('places.stockPlace.newResin') },
}
const addNew = (kind: 'printer' | 'resin'): Promise<void> =>
  guard(async () => {
    const before = new Set(stock.items.map((i) => i.id))
    await stock.add(kind, NEW[kind])
    editing.value = stock.items.find((i) => !before.has(i.id))?.id ?? null
  })
async function guard(work: () => Promise<void>): Promise<void> {
  try {
    await work()
    fault.value = ''
  } catch (e) {
    fault.value = messageOf(e)
  }
}
const layer = (id: string, layerHeight: number): Promise<void> =>
  guard(async () => {
    await stock.change('printer', id, { layerHeight })
  })
const shelf = (id: string, level: number | null): Promise<void> =>
  guard(async () => {
    await stock.change('resin', id, { level })
  })
</script>

<template>
  <div class="place scroll">
    <StockNav />
    <FaultNote :text="fault" />
    <h2>{{ $t('places.stockPlace.printers') }}</h2>
    <div class="table-responsive mb-2">
      <PrinterTable
        :figures="editing"
        :calibrating="calibrating"
        @figures="editing = editing === $event ? null : $event"
        @calibrate="calibrating = calibrating === $event ? null : $event"
        @layer="layer"
      />
    </div>
    <p>
      <BButton variant="quiet" size="sm" @click="addNew('printer')">{{ $t('places.stockPlace.addAPrinter') }}</BButton>
    </p>
    <FiguresPanel
      v-if="editedPrinter"
      :key="editedPrinter.id"
      kind="printer"
      :item="editedPrinter"
      @gone="editing = null"
    />
    <CalibrationPanel v-if="atWork" :key="atWork.id" :printer="atWork" />
    <DevicePanel />
    <RecordPanel />
    <h2>{{ $t('places.stockPlace.resins') }}</h2>
    <div class="table-responsive mb-2">
      <ResinTable
        :figures="editing"
        :bottles="bottles"
        @figures="editing = editing === $event ? null : $event"
        @bottles="bottles = bottles === $event ? null : $event"
        @level="shelf"
      />
    </div>
    <p>
      <BButton variant="quiet" size="sm" @click="addNew('resin')">{{ $t('places.stockPlace.addAResin') }}</BButton>
    </p>
    <FiguresPanel v-if="editedResin" :key="editedResin.id" kind="resin" :item="editedResin" @gone="editing = null" />
    <BottlePanel v-if="counted" :key="counted.id" :resin="counted" />
  </div>
</template>

<style scoped>
.place {
  height: 100%;
  padding: 18px 28px;
}
/* The tables are their own components. */
.place :deep(table) {
  max-width: 1100px;
}
</style>
