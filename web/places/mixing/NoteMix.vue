<script setup lang="ts">
import { term, fixed } from '../../i18n'
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, onMounted, ref } from 'vue'
import { z } from 'zod'
import { mixFields } from '../../../contract/mixes'
import { pieceSummary } from '../../../contract/pieces'
import { TECHNIQUES } from '../../../core/defaults/paint'
import { labOfPaint } from '../../../core/paint/recipes/stockPaint'
import { DROP } from '../../../core/paint/coats/batch'
import { api, apiPages } from '../../api'
import { useAttempt } from '../../composables/useAttempt'
import { useFieldFaults } from '../../composables/useFieldFaults'
import { preparePhoto } from '../../shell/photo'
import { useMixes } from '../../stores/mixes'
import { useMixing } from '../../stores/mixing'
import { useStock } from '../../stores/stock'
import FaultNote from '../../shell/FaultNote.vue'
import NumberField from '../../shell/NumberField.vue'
import FileButton from '../../shell/FileButton.vue'
import TextField from '../../shell/TextField.vue'

/** Puts the mix on the table into the book: what it is for, how much was made, and a photo. */
const mixing = useMixing(),
  mixes = useMixes(),
  stock = useStock()
const emit = defineEmits<{ noted: [id: string] }>()
const { fault, busy, attempt } = useAttempt()
const pieces = ref<{ id: string; name: string }[]>([])
onMounted(async () => {
  pieces.value = await apiPages(pieceSummary, '/pieces?limit=200').catch(() => [])
})
/** What is typed in this form; the rest is the mix itself. */
const about = mixFields.pick({ name: true, region: true })
const faults = useFieldFaults()
const batches = ref(1),
  kept = ref(0),
  photo = ref<File | null>(null)
const ml = computed(() => batches.value * mixing.total * DROP)
const note = (): Promise<void> =>
  attempt(async () => {
    const drawn = mixing.drawn
    if (!drawn || !faults.read(about, mixing.about)) return
    const hash = photo.value
      ? (await api(z.object({ hash: z.string() }), 'POST', '/blobs', await preparePhoto(photo.value))).hash
      : null
    const by = new Map(stock.paints.map((p) => [p.id, p]))
    const made = await mixes.note({
      name: mixing.about.name,
      pieceId: mixing.about.pieceId,
      region: mixing.about.region,
      coat: mixing.about.coat,
      tool: mixing.tool,
      target: mixing.target ? [...mixing.target] : null,
      predicted: [...drawn.lab],
      drops: mixing.laid.flatMap((d) => {
        const p = by.get(d.id)
        return p
          ? [{ paintId: d.id, name: p.name, lot: p.lots[0]?.lot ?? '', lab: [...labOfPaint(p)], drops: d.drops }]
          : []
      }),
      batches: batches.value,
      kept: kept.value,
      mixedOn: stock.today(),
      photo: hash,
    })
    mixing.about.name = ''
    photo.value = null
    emit('noted', made.id)
  })
</script>

<template>
  <form
    v-if="mixing.total > 0"
    class="sheet p-3 mt-3"
    :aria-label="$t('mixing.noteMix.saveTheMix')"
    @submit.prevent="note"
  >
    <h3 class="mb-2">{{ $t('mixing.noteMix.addToMixLog') }}</h3>
    <FaultNote :text="fault" />
    <div class="fields">
      <TextField
        v-model="mixing.about.name"
        :label="$t('mixing.noteMix.name')"
        :fault="faults.of('name')"
        @update:model-value="faults.mend('name')"
      />
      <label
        ><span class="soft small">{{ $t('mixing.noteMix.piece') }}</span
        ><BFormSelect v-model="mixing.about.pieceId" size="sm">
          <option :value="null">{{ $t('mixing.noteMix.noneYet') }}</option>
          <option v-for="p in pieces" :key="p.id" :value="p.id">{{ p.name }}</option>
        </BFormSelect></label
      >
      <TextField
        v-model="mixing.about.region"
        :label="$t('mixing.noteMix.region')"
        :fault="faults.of('region')"
        @update:model-value="faults.mend('region')"
      />
      <label
        ><span class="soft small">{{ $t('mixing.noteMix.coat') }}</span
        ><BFormSelect v-model="mixing.about.coat" size="sm">
          <option v-for="t in TECHNIQUES" :key="t" :value="t">{{ term('technique', t) }}</option>
        </BFormSelect></label
      >
      <NumberField
        v-model="batches"
        :label="$t('mixing.noteMix.numberOfTimesMixed')"
        :min="0.5"
        :step="0.5"
        :max="1000"
      />
      <NumberField
        v-model="kept"
        :label="$t('mixing.noteMix.reservedForTouchUps')"
        unit="ml"
        :min="0"
        :step="0.1"
        :max="1000"
      />
    </div>
    <div class="d-flex gap-3 align-items-center mt-2">
      <FileButton accept="image/*" :label="$t('mixing.noteMix.photo')" @files="photo = $event[0] ?? null">{{
        photo ? photo.name : $t('mixing.noteMix.photo')
      }}</FileButton>
      <span class="soft flex-grow-1">{{
        $t('mixing.noteMix.dropsAboutMl', { total: mixing.total * batches, ml: fixed(ml, 2) })
      }}</span>
      <BButton type="submit" variant="primary" size="sm" :disabled="busy || !mixing.drawn">{{
        $t('mixing.noteMix.saveMix')
      }}</BButton>
    </div>
  </form>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 6px 12px;
}
</style>
