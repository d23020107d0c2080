<script setup lang="ts">
import { BTableSimple, BTbody, BTd, BTh, BThead, BTr } from 'bootstrap-vue-next/components/BTable'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, onMounted, ref } from 'vue'
import { text } from '../i18n'
import { figure, unitName } from '../manner'
import { plateSize } from '../../core/print/slice/printer'
import { resin as resinSchema } from '../../contract/stock'
import { shelfLevel } from '../../core/stock/lots'
import { useStock } from '../stores/stock'
import BottlePanel from './stock/BottlePanel.vue'
import CalibrationPanel from './stock/CalibrationPanel.vue'
import DevicePanel from './stock/DevicePanel.vue'
import FiguresPanel from './stock/FiguresPanel.vue'
import RecordPanel from './stock/RecordPanel.vue'
import StockNav from './stock/StockNav.vue'
import ChoiceSelect from '../shell/ChoiceSelect.vue'
import FaultNote from '../shell/FaultNote.vue'
import NumberField from '../shell/NumberField.vue'
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
const layer = (p: (typeof stock.printers)[number], v: string): Promise<void> =>
  guard(async () => {
    await stock.change('printer', p.id, { layerHeight: Number(v) })
  })
const shelf = (r: (typeof stock.resins)[number], level: number | null): Promise<void> =>
  guard(async () => {
    await stock.change('resin', r.id, { level })
  })
</script>

<template>
  <div class="place scroll">
    <StockNav />
    <FaultNote :text="fault" />
    <h2>{{ $t('places.stockPlace.printers') }}</h2>
    <div class="table-responsive mb-2">
      <BTableSimple class="plain">
        <BThead>
          <BTr>
            <BTh>{{ $t('places.stockPlace.name') }}</BTh>
            <BTh class="num">{{ $t('places.stockPlace.plateMm', { unit: unitName('mm') }) }}</BTh>
            <BTh class="num">{{ $t('places.stockPlace.heightMm', { unit: unitName('mm') }) }}</BTh>
            <BTh class="num">{{ $t('places.stockPlace.pixels') }}</BTh>
            <BTh class="num">{{ $t('places.stockPlace.pitchM') }}</BTh>
            <BTh class="num">{{ $t('places.stockPlace.layerMm') }}</BTh>
            <BTh class="num">{{ $t('places.stockPlace.motionPerLayerS') }}</BTh>
            <BTh />
          </BTr>
        </BThead>
        <BTbody>
          <BTr v-for="p in stock.printers" :key="p.id">
            <BTd>{{ p.name }}</BTd>
            <BTd class="num">
              {{
                plateSize(p)
                  .map((v) => figure(v, 0, 'mm'))
                  .join(' × ')
              }}
            </BTd>
            <BTd class="num">{{ figure(p.height, undefined, 'mm') }}</BTd>
            <BTd class="num">{{ p.pixelsX }} × {{ p.pixelsY }}</BTd>
            <BTd class="num">{{ figure(p.pitchX * 1000, 1) }}</BTd>
            <BTd class="num">
              <ChoiceSelect
                size="sm"
                class="d-inline-block w-auto"
                :model-value="p.layerHeight"
                :aria-label="$t('places.stockPlace.layerHeightOf', { name: p.name })"
                @update:model-value="layer(p, String($event))"
              >
                <option v-for="h in [0.025, 0.03, 0.04, 0.05, 0.08, 0.1]" :key="h" :value="h">{{ h }}</option>
              </ChoiceSelect>
            </BTd>
            <BTd class="num">{{ figure(p.liftTime + p.retractTime + p.restTime, 1) }}</BTd>
            <BTd class="num">
              <BButton
                variant="quiet"
                size="sm"
                class="me-1"
                :aria-expanded="editing === p.id"
                :aria-label="$t('places.stockPlace.figuresOf', { name: p.name })"
                @click="editing = editing === p.id ? null : p.id"
              >
                {{ $t('places.stockPlace.figures') }}
              </BButton>
              <BButton
                variant="quiet"
                size="sm"
                :aria-expanded="calibrating === p.id"
                @click="calibrating = calibrating === p.id ? null : p.id"
              >
                {{ calibrating === p.id ? $t('places.stockPlace.close') : $t('places.stockPlace.calibrate') }}
              </BButton>
            </BTd>
          </BTr>
        </BTbody>
      </BTableSimple>
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
      <BTableSimple class="plain">
        <BThead>
          <BTr>
            <BTh>{{ $t('places.stockPlace.name') }}</BTh>
            <BTh class="num">{{ $t('places.stockPlace.densityGMl') }}</BTh>
            <BTh class="num">{{ $t('places.stockPlace.pricePerLitre') }}</BTh>
            <BTh class="num">{{ $t('places.stockPlace.exposureS') }}</BTh>
            <BTh class="num">{{ $t('places.stockPlace.firstLayersS') }}</BTh>
            <BTh class="num">{{ $t('places.stockPlace.peelPressureKpa') }}</BTh>
            <BTh class="num">{{ $t('places.stockPlace.greenStrengthMpa') }}</BTh>
            <BTh class="num">{{ $t('places.stockPlace.inStockMl', { unit: unitName('ml') }) }}</BTh>
            <BTh />
          </BTr>
        </BThead>
        <BTbody>
          <BTr v-for="r in stock.resins" :key="r.id">
            <BTd>{{ r.name }}{{ r.clear ? $t('places.stockPlace.clear') : '' }}</BTd>
            <BTd class="num">{{ r.density }}</BTd>
            <BTd class="num">{{ stock.money(r.pricePerLitre) }}</BTd>
            <BTd class="num">{{ r.exposure }}</BTd>
            <BTd class="num">{{ r.bottomExposure }}</BTd>
            <BTd class="num">{{ figure(r.peelPressure / 1000, 1) }}</BTd>
            <BTd class="num">{{ figure(r.greenStrength / 1e6, 1) }}</BTd>
            <BTd class="num">
              <span v-if="r.bottles?.length">{{ figure(shelfLevel(resinSchema.parse(r))!, 0, 'ml') }}</span>
              <NumberField
                v-else
                bare
                optional
                :min="0"
                :max="1e6"
                :step="10"
                :digits="0"
                unit="ml"
                :placeholder="$t('places.stockPlace.notCounted')"
                :model-value="r.level ?? null"
                :label="$t('places.stockPlace.millilitresOfInStock', { name: r.name })"
                @update:model-value="shelf(r, $event)"
              />
            </BTd>
            <BTd class="num">
              <BButton
                variant="quiet"
                size="sm"
                class="me-1"
                :aria-expanded="editing === r.id"
                :aria-label="$t('places.stockPlace.figuresOf', { name: r.name })"
                @click="editing = editing === r.id ? null : r.id"
              >
                {{ $t('places.stockPlace.figures') }}
              </BButton>
              <BButton
                variant="quiet"
                size="sm"
                :aria-expanded="bottles === r.id"
                @click="bottles = bottles === r.id ? null : r.id"
              >
                {{ bottles === r.id ? $t('places.stockPlace.close') : $t('places.stockPlace.bottles') }}
              </BButton>
            </BTd>
          </BTr>
        </BTbody>
      </BTableSimple>
    </div>
    <p>
      <BButton variant="quiet" size="sm" @click="addNew('resin')">{{ $t('places.stockPlace.addAResin') }}</BButton>
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
