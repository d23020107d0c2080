<script setup lang="ts">
import { fixed } from '../../i18n'
import { BAlert } from 'bootstrap-vue-next/components/BAlert'
import { BTableSimple, BTbody, BTd, BTfoot, BTr } from 'bootstrap-vue-next/components/BTable'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref, shallowRef, watch } from 'vue'
import type { MixRecord } from '../../../contract/mixes'
import { labOfPaint } from '../../../core/paint/recipes/stockPaint'
import { batchOf, paintFor, thinnerFor } from '../../../core/paint/coats/batch'
import { deltaE00, labToHex, type Triple } from '../../../core/paint/optics/colour'
import { useAttempt } from '../../composables/useAttempt'
import { usePaintWork } from '../../composables/usePaintWork'
import NumberField from '../../shell/NumberField.vue'
import { useMixes } from '../../stores/mixes'
import { useMixing } from '../../stores/mixing'
import { useStock } from '../../stores/stock'
import SwatchPhoto from '../paints/SwatchPhoto.vue'
import FaultNote from '../../shell/FaultNote.vue'

/** One page of the mix book: what went into it, how to mix it again, and how far off the bottles of today are. */
const props = defineProps<{ mix: MixRecord }>()
const emit = defineEmits<{ gone: [] }>()
const mixes = useMixes(),
  mixing = useMixing(),
  stock = useStock(),
  work = usePaintWork()
const { fault, attempt } = useAttempt()
const area = ref(2000),
  coats = ref(2),
  reading = ref(false)
const by = computed(() => new Map(stock.paints.map((p) => [p.id, p])))
const missing = computed(() => props.mix.drops.filter((d) => !by.value.has(d.paintId)))
/** the same drops from the bottles in use today */
const today = shallowRef<Triple | null>(null)
watch(
  [() => props.mix, () => mixing.paints],
  async ([m, paints]) => {
    const drops = m.drops.map((d) => ({ id: d.paintId, drops: d.drops }))
    today.value = missing.value.length > 0 ? null : await work.labOf(drops, paints)
  },
  { immediate: true },
)
const drift = computed(() => (today.value ? deltaE00(props.mix.predicted, today.value) : null))
const changed = computed(() =>
  props.mix.drops.filter((d) => {
    const p = by.value.get(d.paintId)
    return p && deltaE00(labOfPaint(p), d.lab) > 0.3
  }),
)
const ml = computed(() => paintFor(area.value, coats.value, props.mix.tool))
const batch = computed(() =>
  batchOf(
    props.mix.drops.map((d) => d.drops),
    ml.value,
  ),
)
const thinner = computed(() =>
  thinnerFor(
    batch.value.ml,
    props.mix.drops.map((d) => ({ drops: d.drops, share: by.value.get(d.paintId)?.thinning[props.mix.tool] ?? 1 })),
  ),
)
function mixAgain(): void {
  mixing.setDrops(props.mix.drops.map((d) => ({ paint: d.paintId, drops: d.drops })))
  // What was really in the pot is what has to be met.
  mixing.target = [...(props.mix.measured ?? props.mix.predicted)]
  mixing.tool = props.mix.tool
  mixing.about = { name: props.mix.name, pieceId: props.mix.pieceId, region: props.mix.region, coat: props.mix.coat }
}
const measured = (lab: Triple): Promise<void> =>
  attempt(async () => {
    reading.value = false
    await mixes.change(props.mix, { measured: [...lab] })
  })
</script>

<template>
  <div class="page">
    <FaultNote :text="fault" />
    <BTableSimple class="plain">
      <BTbody>
        <BTr v-for="(d, i) in mix.drops" :key="i">
          <BTd><span class="swatch" :style="{ background: labToHex(d.lab) }" /></BTd>
          <BTd>
            {{ d.name }}<span v-if="d.lot" class="soft small ms-2">{{ d.lot }}</span>
          </BTd>
          <BTd class="num">{{ d.drops }}</BTd>
          <BTd class="num">
            <b>{{ batch.drops[i] }}</b>
          </BTd>
        </BTr>
      </BTbody>
      <BTfoot>
        <BTr class="soft small">
          <BTd />
          <BTd>{{ $t('mixing.mixPage.dropsAsSavedAnd') }}</BTd>
          <BTd class="num">{{ mix.drops.reduce((s, d) => s + d.drops, 0) }}</BTd>
          <BTd class="num">{{ batch.drops.reduce((s, d) => s + d, 0) }}</BTd>
        </BTr>
      </BTfoot>
    </BTableSimple>
    <NumberField
      v-model="area"
      :label="$t('mixing.mixPage.areaToCover')"
      unit="mm²"
      :min="1"
      :max="1000000"
      :step="100"
      :digits="0"
    />
    <NumberField v-model="coats" :label="$t('mixing.mixPage.coats')" :min="1" :max="12" :digits="0" />
    <p class="m-0">
      {{ $t('mixing.mixPage.mlAreNeededTool', { ml: fixed(ml, 2), tool: mix.tool === 'airbrush' }) }}
      <b class="num">{{ $t('mixing.mixPage.ml', { ml: fixed(batch.ml, 2) }) }}</b>{{
        $t('mixing.mixPage.withMlOfThinner', { thinner: fixed(thinner, 2) })
      }}
    </p>
    <BAlert v-if="missing.length > 0" :model-value="true" variant="danger" class="mt-1">
      {{
        $t('mixing.mixPage.missing2NoLongerIn', {
          missing: missing.map((d) => d.name).join(', '),
          missing2: missing.length,
        })
      }}
    </BAlert>
    <p
      v-else-if="changed.length > 0 && drift !== null"
      class="small mt-1 mb-0"
      :class="drift > 1 ? 'alert alert-danger' : 'soft'"
    >
      {{
        $t('mixing.mixPage.changed2OfAnotherLot', {
          changed: changed.map((d) => d.name).join(', '),
          changed2: changed.length,
          drift: fixed(drift, 1),
          drift2: drift,
        })
      }}
    </p>
    <p v-if="mix.measured" class="soft small mt-1 mb-0">
      {{ $t('mixing.mixPage.thePotWasMeasured', { measured: fixed(deltaE00(mix.measured, mix.predicted), 1) }) }}
    </p>
    <p v-if="mix.note" class="mt-1 mb-0">{{ mix.note }}</p>
    <img v-if="mix.photo" :src="`/api/blobs/${mix.photo}`" :alt="$t('mixing.mixPage.photoOfTheMix')" />
    <SwatchPhoto v-if="reading" class="mt-2" @read="measured" />
    <div class="d-flex gap-2 mt-2">
      <BButton variant="primary" size="sm" @click="mixAgain">{{ $t('mixing.mixPage.mixItAgain') }}</BButton>
      <BButton variant="quiet" size="sm" @click="reading = !reading">{{ $t('mixing.mixPage.measureThePot') }}</BButton>
      <BButton
        variant="quiet"
        size="sm"
        class="ms-auto"
        @click="
          attempt(async () => {
            await mixes.remove(mix.id)
            emit('gone')
          })
        "
      >
        {{ $t('mixing.mixPage.deleteMix') }}
      </BButton>
    </div>
  </div>
</template>

<style scoped>
.page {
  padding: 4px 0 10px;
}
img {
  width: 100%;
  max-height: 180px;
  object-fit: cover;
  border-radius: 4px;
  margin-top: 6px;
}
</style>
