<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, reactive, ref, watch } from 'vue'
import { printer as printerSchema, type PrinterRecord } from '../../../contract/stock'
import { writeStl } from '../../../core/formats/stl'
import { corrections, gauge, gaugeNominal, type Measured } from '../../../core/print/slice/calibrationPrint'
import { saveFile } from '../../shell/downloadFile'
import NumberField from '../../shell/NumberField.vue'
import { useStock, type Item } from '../../stores/stock'

/** What a printer does to what is drawn: printed once as a gauge, measured, and taken off every print from then on. */
const props = defineProps<{ printer: Item<PrinterRecord> }>()
const stock = useStock()
// A printer of an earlier day has no figures yet.
const now = computed(() => printerSchema.parse(props.printer).compensation)
const m = reactive<Measured>({ ...gaugeNominal })
const form = reactive({ bleedLayers: 0, mirrorX: false, mirrorY: false, greys: 256 })
watch(
  now,
  (c) => {
    Object.assign(form, {
      bleedLayers: c.bleedLayers > 0 ? c.bleedLayers : props.printer.bottomLayers,
      mirrorX: c.mirrorX,
      mirrorY: c.mirrorY,
      greys: c.greys,
    })
  },
  { immediate: true },
)
const LENGTHS: { key: keyof Measured; word: string; where: string }[] = [
  { key: 'slabX', word: 'Slab, along x', where: 'over its foot' },
  { key: 'slabY', word: 'Slab, along y', where: 'over its foot' },
  { key: 'postX', word: 'Post, along x', where: '' },
  { key: 'postY', word: 'Post, along y', where: '' },
  { key: 'slotX', word: 'Slot, along x', where: 'inside' },
  { key: 'slotY', word: 'Slot, along y', where: 'inside' },
  { key: 'slabZ', word: 'Slab, thick', where: '' },
  { key: 'height', word: 'Plate to post’s top', where: '' },
  { key: 'footX', word: 'Foot, along x', where: 'at the very plate' },
]
const measured = computed(() => LENGTHS.some((l) => m[l.key] !== gaugeNominal[l.key]))
const found = computed(() => corrections({ ...m }))
const fault = ref(''),
  kept = ref(false)
const download = (): void => saveFile('calibration-gauge.stl', writeStl(gauge()).slice(), 'model/stl')
async function save(calibrated: boolean): Promise<void> {
  fault.value = ''
  kept.value = false
  if (calibrated && !found.value.ok) return
  try {
    await stock.change('printer', props.printer.id, {
      compensation: {
        ...now.value,
        ...(calibrated && found.value.ok
          ? { scale: found.value.value.scale, growth: found.value.value.growth, bleed: found.value.value.bleed }
          : {}),
        ...form,
      },
    })
    kept.value = true
  } catch (e) {
    fault.value = e instanceof Error ? e.message : String(e)
  }
}
const percent = (s: number): string => {
  const v = (Math.abs(s - 1) * 100).toFixed(2)
  return `${v === '0.00' ? '' : s < 1 ? '−' : '+'}${v} %`
}
const signed = (v: number): string => `${v < 0 ? '−' : ''}${Math.abs(v).toFixed(3)}`
</script>

<template>
  <section class="sheet p-3 mb-4 panel">
    <div>
      <h3 class="mb-1">{{ printer.name }} as it prints</h3>
      <p class="soft small">
        Print the gauge flat on the plate with the usual settings and no correction, wash and cure it as always, then
        measure it. What the printer adds or loses is taken off every layer from then on.
      </p>
      <BButton variant="quiet" size="sm" class="mb-2" @click="download">Gauge as STL, 40 × 30 × 20 mm</BButton>
      <dl class="facts">
        <dt>size kept, x, y, z</dt>
        <dd>{{ now.scale.map(percent).join(', ') }}</dd>
        <dt>light spreads past an edge</dt>
        <dd>{{ signed(now.growth) }} mm</dd>
        <dt>first layers bleed</dt>
        <dd>{{ signed(now.bleed) }} mm, {{ now.bleedLayers }} layers</dd>
      </dl>
      <label class="d-flex gap-2 align-items-center mt-2"
        ><input v-model="form.mirrorX" type="checkbox" class="form-check-input m-0" />panel mirrors left and
        right</label
      >
      <label class="d-flex gap-2 align-items-center"
        ><input v-model="form.mirrorY" type="checkbox" class="form-check-input m-0" />panel mirrors front and
        back</label
      >
      <NumberField
        v-model="form.greys"
        label="Greys it shows"
        :step="1"
        :min="2"
        :max="256"
        source="2 is black and white"
      />
      <NumberField
        v-model="form.bleedLayers"
        label="Layers that bleed"
        :step="1"
        :min="0"
        :max="200"
        source="its first layers"
      />
      <BButton variant="quiet" size="sm" @click="save(false)">Keep these</BButton>
    </div>
    <div>
      <NumberField
        v-for="l in LENGTHS"
        :key="l.key"
        v-model="m[l.key]"
        :label="l.word"
        unit="mm"
        :step="0.01"
        :min="0"
        :max="100"
        :source="`${l.where ? `${l.where}, ` : ''}drawn ${gaugeNominal[l.key]}`"
      />
    </div>
    <div>
      <template v-if="measured && found.ok">
        <p class="mb-1">
          <span class="figure">{{ signed(found.value.growth) }}</span>
          <span class="soft"> mm of light past each edge</span>
        </p>
        <dl class="facts">
          <dt>along x</dt>
          <dd>{{ percent(found.value.scale[0]) }}</dd>
          <dt>along y</dt>
          <dd>{{ percent(found.value.scale[1]) }}</dd>
          <dt>upward</dt>
          <dd>{{ percent(found.value.scale[2]) }}</dd>
          <dt>first layers, per side</dt>
          <dd>{{ signed(found.value.bleed) }} mm</dd>
          <dt>lengths missed by</dt>
          <dd>{{ found.value.residual.toFixed(3) }} mm</dd>
        </dl>
        <p class="soft small">
          Six lengths, three unknowns, by least squares.
          <template v-if="found.value.residual > 0.04"
            >They agree badly: measure again, or look for a warp, before this is used.</template
          >
        </p>
        <BButton variant="primary" @click="save(true)">Correct every print by this</BButton>
      </template>
      <p v-else-if="measured && !found.ok" role="alert" class="text-danger">{{ found.problem.message }}</p>
      <p v-else class="soft">Type what the caliper says; the corrections appear here.</p>
      <p v-if="kept" role="status" class="soft small mt-2 mb-0">Kept. Layers are sliced so from now on.</p>
      <p v-if="fault" role="alert" class="text-danger small mb-0">{{ fault }}</p>
    </div>
  </section>
</template>

<style scoped>
.panel {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 24px;
}
</style>
