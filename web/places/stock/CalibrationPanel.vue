<script setup lang="ts">
import { BAlert } from 'bootstrap-vue-next/components/BAlert'
import { BFormCheckbox } from 'bootstrap-vue-next/components/BFormCheckbox'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, reactive, ref, watch } from 'vue'
import { text, fixed, type Fixed } from '../../i18n'
import { printer as printerSchema, type PrinterRecord } from '../../../contract/stock'
import { writeStl } from '../../../core/formats/stl'
import { corrections, gauge, gaugeNominal, type Measured } from '../../../core/print/slice/calibrationPrint'
import { saveFile } from '../../shell/downloadFile'
import NumberField from '../../shell/NumberField.vue'
import { useStock, type Item } from '../../stores/stock'
import FaultNote from '../../shell/FaultNote.vue'
import { say } from '../../../core/words/say'
import { figure, manner, unitName } from '../../manner'
import { messageOf } from '../../messageOf'

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
  { key: 'slabX', word: text('stock.calibrationPanel.slabAlongX'), where: text('stock.calibrationPanel.overItsFoot') },
  { key: 'slabY', word: text('stock.calibrationPanel.slabAlongY'), where: text('stock.calibrationPanel.overItsFoot') },
  { key: 'postX', word: text('stock.calibrationPanel.postAlongX'), where: '' },
  { key: 'postY', word: text('stock.calibrationPanel.postAlongY'), where: '' },
  { key: 'slotX', word: text('stock.calibrationPanel.slotAlongX'), where: 'inside' },
  { key: 'slotY', word: text('stock.calibrationPanel.slotAlongY'), where: 'inside' },
  { key: 'slabZ', word: text('stock.calibrationPanel.slabThick'), where: '' },
  { key: 'height', word: text('stock.calibrationPanel.plateToPostsTop'), where: '' },
  {
    key: 'footX',
    word: text('stock.calibrationPanel.footAlongX'),
    where: text('stock.calibrationPanel.atThePlate'),
  },
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
    fault.value = messageOf(e)
  }
}
const percent = (s: number): string => {
  const v = figure(Math.abs(s - 1) * 100, 2)
  return `${v === '0.00' ? '' : s < 1 ? '−' : '+'}${v} %`
}
const signed = (v: number): Fixed => fixed(v, 3)
</script>

<template>
  <section class="sheet p-3 mb-4 panel">
    <div>
      <h3 class="mb-1">{{ $t('stock.calibrationPanel.calibrationOf', { name: printer.name }) }}</h3>
      <p class="soft small">
        {{ $t('stock.calibrationPanel.printTheGaugeFlat') }}
      </p>
      <BButton variant="quiet" size="sm" class="mb-2" @click="download">{{
        $t('stock.calibrationPanel.gaugeAsStl40')
      }}</BButton>
      <dl class="facts">
        <dt>{{ $t('stock.calibrationPanel.sizeCorrectionXY') }}</dt>
        <dd>{{ now.scale.map(percent).join(', ') }}</dd>
        <dt>{{ $t('stock.calibrationPanel.lightSpreadsPastAn') }}</dt>
        <dd>{{ $t('stock.calibrationPanel.mm', { growth: signed(now.growth) }) }}</dd>
        <dt>{{ $t('stock.calibrationPanel.firstLayersSpreadBy') }}</dt>
        <dd>{{ $t('stock.calibrationPanel.mmLayers', { bleed: signed(now.bleed), bleedLayers: now.bleedLayers }) }}</dd>
      </dl>
      <BFormCheckbox class="mt-2" v-model="form.mirrorX">{{
        $t('stock.calibrationPanel.panelMirrorsLeftAnd')
      }}</BFormCheckbox>
      <BFormCheckbox v-model="form.mirrorY">{{ $t('stock.calibrationPanel.panelMirrorsFrontAnd') }}</BFormCheckbox>
      <NumberField
        v-model="form.greys"
        :label="$t('stock.calibrationPanel.greyLevels')"
        :step="1"
        :min="2"
        :max="256"
        :source="$t('stock.calibrationPanel.n2IsBlackAnd')"
      />
      <NumberField
        v-model="form.bleedLayers"
        :label="$t('stock.calibrationPanel.layersThatSpread')"
        :step="1"
        :min="0"
        :max="200"
        :source="$t('stock.calibrationPanel.itsFirstLayers')"
      />
      <BButton variant="quiet" size="sm" @click="save(false)">{{ $t('stock.calibrationPanel.save') }}</BButton>
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
        :source="
          $t('stock.calibrationPanel.whereNominal', {
            where: Boolean(l.where),
            where2: l.where,
            gaugeNominal: gaugeNominal[l.key],
          })
        "
      />
    </div>
    <div>
      <template v-if="measured && found.ok">
        <p class="mb-1">
          <span class="figure">{{ figure(found.value.growth, 3, 'mm') }}</span>
          <span class="soft">{{ ' ' }}{{ $t('stock.calibrationPanel.mmOfLightPast', { unit: unitName('mm') }) }}</span>
        </p>
        <dl class="facts">
          <dt>{{ $t('stock.calibrationPanel.alongX') }}</dt>
          <dd>{{ percent(found.value.scale[0]) }}</dd>
          <dt>{{ $t('stock.calibrationPanel.alongY') }}</dt>
          <dd>{{ percent(found.value.scale[1]) }}</dd>
          <dt>{{ $t('stock.calibrationPanel.upward') }}</dt>
          <dd>{{ percent(found.value.scale[2]) }}</dd>
          <dt>{{ $t('stock.calibrationPanel.firstLayersPerSide') }}</dt>
          <dd>{{ $t('stock.calibrationPanel.mm2', { bleed: signed(found.value.bleed) }) }}</dd>
          <dt>{{ $t('stock.calibrationPanel.remainingError') }}</dt>
          <dd>{{ $t('stock.calibrationPanel.mm3', { residual: fixed(found.value.residual, 3) }) }}</dd>
        </dl>
        <p class="soft small">
          {{ $t('stock.calibrationPanel.sixLengthsThreeUnknowns') }}
          <template v-if="found.value.residual > 0.04">{{
            $t('stock.calibrationPanel.theLengthsContradictEach')
          }}</template>
        </p>
        <BButton variant="primary" @click="save(true)">{{ $t('stock.calibrationPanel.applyCorrection') }}</BButton>
      </template>
      <BAlert v-else-if="measured && !found.ok" :model-value="true" variant="danger">{{
        say(found.problem.message, manner)
      }}</BAlert>
      <p v-else class="soft">{{ $t('stock.calibrationPanel.enterWhatTheCaliper') }}</p>
      <p v-if="kept" role="status" class="soft small mt-2 mb-0">
        {{ $t('stock.calibrationPanel.savedLayersAreCorrected') }}
      </p>
      <FaultNote :text="fault" />
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
