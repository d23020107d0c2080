<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { BTableSimple, BTbody, BTd, BTh, BThead, BTr } from 'bootstrap-vue-next/components/BTable'
import FoldPanel from '../../shell/FoldPanel.vue'
import { computed, ref } from 'vue'
import { text, fixed } from '../../i18n'
import { figure, unitName } from '../../manner'
import { doesNotFit } from '../../../core/findings/doesNotFit'
import { SURVIVES } from '../../../core/findings/tooThin'
import { plateCount } from '../../../core/print/slice/plateCount'
import { plateSize, printSeconds, resinUse } from '../../../core/print/slice/printer'
import type { Measures } from '../../../core/mesh/measure'
import { useCheck } from '../../composables/useCheck'
import { useDetailLimits } from '../../composables/useDetailLimits'
import { usePrinterAndResin } from '../../composables/usePrinterAndResin'
import { useAssembly } from '../../stores/assembly'
import { useFindings } from '../../stores/findings'
import { useStock } from '../../stores/stock'

/** The sizes that come into question side by side, each measured as if it were set. */
const props = defineProps<{ base: Measures; ownStature: number; stature: number; factor: number; applied: number }>()
const emit = defineEmits<{ choose: [factor: number] }>()
const found = useFindings(),
  stock = useStock()
const { resin, printer } = usePrinterAndResin()
const RATIOS = [4, 6, 9, 12, 16]
const own = computed(() => props.stature / (props.ownStature * props.factor))
const ratios = computed(() =>
  [...RATIOS.filter((r) => Math.abs(r / own.value - 1) > 0.02), own.value].sort((a, b) => a - b),
)
const factorAt = (ratio: number): number => props.stature / ratio / props.ownStature
const open = ref(false)
const assembly = useAssembly()
const limits = useDetailLimits()
// Detail is weighed only while the table is open: it takes a look at every vertex for every size.
const detail = useCheck(
  () => (open.value ? found.taken : null),
  () => ({ kind: 'detail', factors: ratios.value.map(factorAt), ...limits.value }),
)
const survives = (f: number): string => {
  const s = detail.report.value?.shares.find((x) => Math.abs(x.factor / f - 1) < 1e-9)
  return s ? `${figure(100 * s.survives, 0)} %` : detail.measuring.value ? '…' : ''
}
/** All parts grow together; each lies on the plate as it stands, with 4 mm round it. */
const MARGIN = 4
const boxes = computed(() => assembly.placed.flatMap((p) => (p.measures ? [p.measures.size] : [])))
function plates(k: number): string {
  if (!printer.value || boxes.value.length === 0) return ''
  const footprints = boxes.value.map((s) => [s[0] * k + MARGIN, s[1] * k + MARGIN] as const)
  const n = plateCount(footprints, plateSize(printer.value))
  return n === null ? 'none' : String(n)
}
const rows = computed(() =>
  ratios.value.map((ratio) => {
    const f = factorAt(ratio)
    const size = props.base.size.map((s) => s * f) as [number, number, number]
    const ml = resinUse(props.base.volume * f ** 3, props.base.area * f ** 2)
    return {
      ratio,
      f,
      now: ratio === own.value,
      stature: props.ownStature * f,
      detail: survives(f),
      plates: plates(f / props.applied),
      ml,
      height: size[2],
      thinnest: found.thinnessAt(f)?.thinnest ?? null,
      grams: ((props.base.volume * f ** 3) / 1000) * (resin.value?.density ?? 1.12),
      price: stock.money((ml / 1000) * (resin.value?.pricePerLitre ?? 0)),
      hours:
        printer.value && resin.value
          ? figure(printSeconds(printer.value, resin.value, Math.ceil(size[2] / printer.value.layerHeight)) / 3600, 1)
          : '',
      fits: stock.printers.filter((p) => doesNotFit(size, p).length === 0).map((p) => p.name),
    }
  }),
)
type Row = (typeof rows.value)[number]
const LINES: { word: string; of: (r: Row) => string }[] = [
  { word: text('scale.ratioTable.heightMm', { unit: unitName('mm') }), of: (r) => figure(r.height, 0, 'mm') },
  { word: text('scale.ratioTable.statureMm', { unit: unitName('mm') }), of: (r) => figure(r.stature, 0, 'mm') },
  {
    word: text('scale.ratioTable.thinnestMm', { unit: unitName('mm') }),
    of: (r) => (r.thinnest === null ? '…' : figure(r.thinnest, 2, 'mm')),
  },
  { word: text('scale.ratioTable.detailKept'), of: (r) => r.detail },
  { word: text('scale.ratioTable.solidG', { unit: unitName('g') }), of: (r) => figure(r.grams, 0, 'g') },
  { word: text('scale.ratioTable.resinMl', { unit: unitName('ml') }), of: (r) => figure(r.ml, 0, 'ml') },
  { word: text('scale.ratioTable.resin'), of: (r) => r.price },
  { word: text('scale.ratioTable.uprightH'), of: (r) => r.hours },
  { word: text('scale.ratioTable.plates'), of: (r) => r.plates },
  {
    word: text('scale.ratioTable.printers'),
    of: (r) =>
      r.fits.length === 0
        ? 'none'
        : text('scale.ratioTable.of', { fits: r.fits.length, printers: stock.printers.length }),
  },
]
</script>

<template>
  <FoldPanel class="mb-3" @toggle="open = $event">
    <template #title>{{ $t('scale.ratioTable.compareSizes') }}</template>
    <div class="wide">
      <BTableSimple class="mt-1 mb-0" small>
        <BThead>
          <BTr>
            <BTh>1 :</BTh>
            <BTh v-for="r in rows" :key="r.ratio" class="num" :class="{ now: r.now }">
              <BButton
                variant="card"
                class="pick"
                :title="$t('scale.ratioTable.try1', { ratio: fixed(r.ratio, 1) })"
                @click="emit('choose', r.f)"
              >
                {{ figure(Number(r.ratio.toFixed(1))) }}
              </BButton>
            </BTh>
          </BTr>
        </BThead>
        <BTbody>
          <BTr v-for="line in LINES" :key="line.word">
            <BTh scope="row">{{ line.word }}</BTh>
            <BTd
              v-for="r in rows"
              :key="r.ratio"
              class="num"
              :class="{
                now: r.now,
                thin: line.word === 'thinnest, mm' && r.thinnest !== null && r.thinnest < SURVIVES,
              }"
              :title="line.word === 'printers' ? r.fits.join(', ') : undefined"
            >
              {{ line.of(r) }}
            </BTd>
          </BTr>
        </BTbody>
      </BTableSimple>
    </div>
  </FoldPanel>
</template>

<style scoped>
table {
  font-size: 0.82rem;
}
th[scope='row'] {
  font-weight: 500;
  white-space: nowrap;
}
.wide {
  overflow-x: auto;
}
.now {
  background: var(--paper-sunk);
}
.thin {
  color: var(--problem);
  font-weight: 650;
}
.pick {
  border: 0;
  background: none;
  padding: 0;
  color: var(--action);
  text-decoration: underline;
}
</style>
