<script setup lang="ts">
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
    <p v-if="fault" role="alert" class="problem small">{{ fault }}</p>
    <table class="plain">
      <tbody>
        <tr v-for="(d, i) in mix.drops" :key="i">
          <td><span class="swatch" :style="{ background: labToHex(d.lab) }" /></td>
          <td>
            {{ d.name }}<span v-if="d.lot" class="soft small ms-2">{{ d.lot }}</span>
          </td>
          <td class="num">{{ d.drops }}</td>
          <td class="num">
            <b>{{ batch.drops[i] }}</b>
          </td>
        </tr>
      </tbody>
      <tfoot>
        <tr class="soft small">
          <td />
          <td>drops: as noted, and for the area</td>
          <td class="num">{{ mix.drops.reduce((s, d) => s + d.drops, 0) }}</td>
          <td class="num">{{ batch.drops.reduce((s, d) => s + d, 0) }}</td>
        </tr>
      </tfoot>
    </table>
    <NumberField v-model="area" label="Area to cover" unit="mm²" :min="1" :max="1000000" :step="100" :digits="0" />
    <NumberField v-model="coats" label="Coats" :min="1" :max="12" :digits="0" />
    <p class="m-0">
      {{ ml.toFixed(2) }} ml are needed {{ mix.tool === 'airbrush' ? 'by airbrush' : 'by brush' }}; that many drops give
      <b class="num">{{ batch.ml.toFixed(2) }} ml</b>, with {{ thinner.toFixed(2) }} ml of thinner.
    </p>
    <p v-if="missing.length > 0" class="problem small mt-1">
      {{ missing.map((d) => d.name).join(', ') }} {{ missing.length === 1 ? 'is' : 'are' }} no longer in stock. Click
      “Mix it again”: mixes from the paints in stock are found for it.
    </p>
    <p v-else-if="changed.length > 0 && drift !== null" class="small mt-1 mb-0" :class="drift > 1 ? 'problem' : 'soft'">
      {{ changed.map((d) => d.name).join(', ') }} {{ changed.length === 1 ? 'is' : 'are' }} of another lot now: the same
      drops come out ΔE {{ drift.toFixed(1) }} off{{
        drift > 1 ? '. Click “Mix it again”: the mixes beside it make up for that.' : ', which passes unseen.'
      }}
    </p>
    <p v-if="mix.measured" class="soft small mt-1 mb-0">
      The pot was measured ΔE {{ deltaE00(mix.measured, mix.predicted).toFixed(1) }} from what was calculated.
    </p>
    <p v-if="mix.note" class="mt-1 mb-0">{{ mix.note }}</p>
    <img v-if="mix.photo" :src="`/api/blobs/${mix.photo}`" alt="Photo of the mix" />
    <SwatchPhoto v-if="reading" class="mt-2" @read="measured" />
    <div class="d-flex gap-2 mt-2">
      <BButton variant="primary" size="sm" @click="mixAgain">Mix it again</BButton>
      <BButton variant="quiet" size="sm" @click="reading = !reading">Measure the pot</BButton>
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
        Take out
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
