<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, onMounted, ref } from 'vue'
import { plateSize } from '../../core/print/slice/printer'
import { resin as resinSchema } from '../../contract/stock'
import { shelfLevel } from '../../core/stock/lots'
import DraftInput from '../shell/DraftInput.vue'
import { useStock } from '../stores/stock'
import BottlePanel from './stock/BottlePanel.vue'
import CalibrationPanel from './stock/CalibrationPanel.vue'
import DevicePanel from './stock/DevicePanel.vue'
import FiguresPanel from './stock/FiguresPanel.vue'
import RecordPanel from './stock/RecordPanel.vue'
import StockNav from './stock/StockNav.vue'
import ChoiceSelect from '../shell/ChoiceSelect.vue'

const stock = useStock()
const fault = ref('')
const calibrating = ref<string | null>(null)
const bottles = ref<string | null>(null)
const counted = computed(() => stock.resins.find((r) => r.id === bottles.value) ?? null)
const atWork = computed(() => stock.printers.find((p) => p.id === calibrating.value) ?? null)
onMounted(() =>
  stock.load().catch((e: unknown) => {
    fault.value = e instanceof Error ? e.message : String(e)
  }),
)
const editing = ref<string | null>(null)
const editedPrinter = computed(() => stock.printers.find((p) => p.id === editing.value) ?? null)
const editedResin = computed(() => stock.resins.find((r) => r.id === editing.value) ?? null)
/** Something to begin with, whose figures are set right at once. */
const NEW = {
  printer: {
    name: 'New printer',
    pixelsX: 3840,
    pixelsY: 2400,
    pitchX: 0.05,
    pitchY: 0.05,
    height: 200,
    layerHeight: 0.05,
  },
  resin: { name: 'New resin' },
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
    fault.value = e instanceof Error ? e.message : String(e)
  }
}
const layer = (p: (typeof stock.printers)[number], v: string): Promise<void> =>
  guard(async () => {
    await stock.change('printer', p.id, { layerHeight: Number(v) })
  })
const shelf = (r: (typeof stock.resins)[number], v: string): Promise<void> =>
  guard(async () => {
    await stock.change('resin', r.id, { level: v.trim() === '' ? null : Math.max(0, Number(v)) })
  })
</script>

<template>
  <div class="place scroll">
    <StockNav />
    <p v-if="fault" role="alert" class="text-danger">{{ fault }}</p>
    <h2>Printers</h2>
    <table class="plain mb-2">
      <thead>
        <tr>
          <th>Name</th>
          <th class="num">Plate, mm</th>
          <th class="num">Height, mm</th>
          <th class="num">Pixels</th>
          <th class="num">Pitch, µm</th>
          <th class="num">Layer, mm</th>
          <th class="num">s a layer, motion</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="p in stock.printers" :key="p.id">
          <td>{{ p.name }}</td>
          <td class="num">
            {{
              plateSize(p)
                .map((v) => v.toFixed(0))
                .join(' × ')
            }}
          </td>
          <td class="num">{{ p.height }}</td>
          <td class="num">{{ p.pixelsX }} × {{ p.pixelsY }}</td>
          <td class="num">{{ (p.pitchX * 1000).toFixed(1) }}</td>
          <td class="num">
            <ChoiceSelect
              size="sm"
              class="d-inline-block w-auto"
              :model-value="p.layerHeight"
              :aria-label="`Layer height of ${p.name}`"
              @update:model-value="layer(p, String($event))"
            >
              <option v-for="h in [0.025, 0.03, 0.04, 0.05, 0.08, 0.1]" :key="h" :value="h">{{ h }}</option>
            </ChoiceSelect>
          </td>
          <td class="num">{{ (p.liftTime + p.retractTime + p.restTime).toFixed(1) }}</td>
          <td class="num">
            <BButton
              variant="quiet"
              size="sm"
              class="me-1"
              :aria-expanded="editing === p.id"
              :aria-label="`Figures of ${p.name}`"
              @click="editing = editing === p.id ? null : p.id"
            >
              Figures
            </BButton>
            <BButton
              variant="quiet"
              size="sm"
              :aria-expanded="calibrating === p.id"
              @click="calibrating = calibrating === p.id ? null : p.id"
            >
              {{ calibrating === p.id ? 'Close' : 'Calibrate' }}
            </BButton>
          </td>
        </tr>
      </tbody>
    </table>
    <p>
      <BButton variant="quiet" size="sm" @click="addNew('printer')">Add a printer</BButton>
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
    <h2>Resins</h2>
    <table class="plain mb-2">
      <thead>
        <tr>
          <th>Name</th>
          <th class="num">Density, g/ml</th>
          <th class="num">Price a litre</th>
          <th class="num">Exposure, s</th>
          <th class="num">First layers, s</th>
          <th class="num">Peel, kPa</th>
          <th class="num">Green strength, MPa</th>
          <th class="num">On the shelf, ml</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="r in stock.resins" :key="r.id">
          <td>{{ r.name }}{{ r.clear ? ' (clear)' : '' }}</td>
          <td class="num">{{ r.density }}</td>
          <td class="num">{{ stock.money(r.pricePerLitre) }}</td>
          <td class="num">{{ r.exposure }}</td>
          <td class="num">{{ r.bottomExposure }}</td>
          <td class="num">{{ (r.peelPressure / 1000).toFixed(1) }}</td>
          <td class="num">{{ (r.greenStrength / 1e6).toFixed(1) }}</td>
          <td class="num">
            <span v-if="r.bottles?.length">{{ shelfLevel(resinSchema.parse(r))!.toFixed(0) }}</span>
            <DraftInput
              v-else
              class="form-control form-control-sm level"
              type="number"
              min="0"
              step="10"
              placeholder="not counted"
              :value="String(r.level ?? '')"
              :aria-label="`Millilitres of ${r.name} on the shelf`"
              @done="shelf(r, $event)"
            />
          </td>
          <td class="num">
            <BButton
              variant="quiet"
              size="sm"
              class="me-1"
              :aria-expanded="editing === r.id"
              :aria-label="`Figures of ${r.name}`"
              @click="editing = editing === r.id ? null : r.id"
            >
              Figures
            </BButton>
            <BButton
              variant="quiet"
              size="sm"
              :aria-expanded="bottles === r.id"
              @click="bottles = bottles === r.id ? null : r.id"
            >
              {{ bottles === r.id ? 'Close' : 'Bottles' }}
            </BButton>
          </td>
        </tr>
      </tbody>
    </table>
    <p>
      <BButton variant="quiet" size="sm" @click="addNew('resin')">Add a resin</BButton>
    </p>
    <FiguresPanel v-if="editedResin" :key="editedResin.id" kind="resin" :item="editedResin" @gone="editing = null" />
    <BottlePanel v-if="counted" :key="counted.id" :resin="counted" />
  </div>
</template>

<style scoped>
.level {
  width: 110px;
  margin-left: auto;
  text-align: right;
}
.place {
  height: 100%;
  padding: 18px 28px;
}
table {
  max-width: 1100px;
}
</style>
