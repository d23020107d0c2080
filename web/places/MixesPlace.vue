<script setup lang="ts">
import { BAlert } from 'bootstrap-vue-next/components/BAlert'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, onMounted, ref } from 'vue'
import { useRoute } from 'vue-router'
import { text } from '../i18n'
import { figure } from '../manner'
import { labOfPaint } from '../../core/paint/recipes/stockPaint'
import { hexToLab, labToHex, parseHex, toHex } from '../../core/paint/optics/colour'
import { UNSEEN } from '../../core/paint/recipes/mixRank'
import { UNDERCOATS } from '../../core/defaults/paint'
import { BINDER } from '../../core/paint/recipes/recipe'
import { useAttempt } from '../composables/useAttempt'
import LabField from '../shell/LabField.vue'
import { useMixing } from '../stores/mixing'
import { useStock } from '../stores/stock'
import DropLine from './mixing/DropLine.vue'
import MixBook from './mixing/MixBook.vue'
import MixResult from './mixing/MixResult.vue'
import NoteMix from './mixing/NoteMix.vue'
import RecipeAnswers from './mixing/RecipeAnswers.vue'
import TonesPanel from './mixing/TonesPanel.vue'
import SwatchPhoto from './paints/SwatchPhoto.vue'
import StockNav from './stock/StockNav.vue'
import ChoiceSelect from '../shell/ChoiceSelect.vue'
import FaultNote from '../shell/FaultNote.vue'

/** The mixing table: drops laid out and dragged, what they come to beside a target, and the book of all mixes. */
const mixing = useMixing(),
  stock = useStock(),
  route = useRoute()
const { fault, attempt } = useAttempt()
const page = ref<string | null>(null),
  reading = ref(false)
onMounted(() =>
  attempt(async () => {
    await stock.load()
    const { target, piece, region, coat, undercoat, tint } = route.query
    // Sent here from a region of a scheme.
    if (typeof target === 'string' && parseHex(target)) mixing.target = hexToLab(target)
    const primed = UNDERCOATS.find((u) => u === undercoat)
    if (primed) mixing.undercoat = primed
    const colour = typeof tint === 'string' ? parseHex(tint) : null
    if (colour) mixing.tint = toHex(colour)
    if (typeof region === 'string')
      mixing.about = {
        name: region,
        pieceId: typeof piece === 'string' ? piece : null,
        region,
        coat: typeof coat === 'string' ? coat : 'base',
      }
  }),
)
const byId = computed(() => new Map(stock.paints.map((p) => [p.id, p])))
const hexOf = (id: string): string => {
  const p = byId.value.get(id)
  return p ? labToHex(labOfPaint(p)) : '#888888'
}
const free = computed(() =>
  stock.paints.filter((p) => BINDER[p.kind] !== undefined && !mixing.drops.some((d) => d.id === p.id)),
)
function addPaint(id: unknown): void {
  if (typeof id === 'string' && id !== '') mixing.set(id, 1)
}
const binders = computed(
  () => new Set(mixing.laid.flatMap((d) => BINDER[byId.value.get(d.id)?.kind ?? 'varnish'] ?? [])),
)
const verdict = computed(() => {
  const e = mixing.error
  return e === null
    ? ''
    : e < 1
      ? text('places.mixesPlace.notDistinguishable')
      : e <= UNSEEN
        ? text('places.mixesPlace.hardlyVisible')
        : e < 5
          ? text('places.mixesPlace.visibleSideBySide')
          : text('places.mixesPlace.anotherColour')
})
</script>

<template>
  <div class="beside">
    <div class="middle scroll">
      <StockNav />
      <FaultNote :text="fault" />
      <div class="table-top">
        <div class="target">
          <span class="soft small">{{ $t('places.mixesPlace.target') }}</span>
          <LabField
            :lab="mixing.target"
            :label="$t('places.mixesPlace.targetColour')"
            :empty="$t('places.mixesPlace.noneYetLA')"
            @change="mixing.target = $event"
          />
          <BButton variant="quiet" size="sm" class="mt-1" :aria-pressed="reading" @click="reading = !reading">
            {{ $t('places.mixesPlace.readFromAPhoto') }}
          </BButton>
        </div>
        <div class="match" :style="{ background: mixing.target ? labToHex(mixing.target) : 'var(--paper-sunk)' }">
          <div v-if="mixing.drawn" :style="{ background: mixing.drawn.hex }" />
        </div>
        <div class="off">
          <span class="figure" data-role="error">{{ mixing.error === null ? '–' : figure(mixing.error, 1) }}</span>
          <span class="soft small">{{ $t('places.mixesPlace.e00ToTheTarget') }}<br />{{ verdict }}</span>
        </div>
      </div>
      <SwatchPhoto
        v-if="reading"
        class="mb-2"
        @read="
          (lab) => {
            mixing.target = lab
            reading = false
          }
        "
      />
      <section :aria-label="$t('places.mixesPlace.drops')" class="mb-2">
        <DropLine
          v-for="d in mixing.drops"
          :key="d.id"
          :name="byId.get(d.id)?.name ?? $t('places.mixesPlace.noLongerInStock')"
          :hex="hexOf(d.id)"
          :drops="d.drops"
          @set="mixing.set(d.id, $event)"
          @away="mixing.putAway(d.id)"
        />
        <div class="d-flex gap-3 align-items-center mt-1">
          <span v-if="stock.workshop && stock.paints.length === 0" class="soft"
            >{{ $t('places.mixesPlace.noPaintIsIn') }}
            <RouterLink to="/stock/paints">{{ $t('places.mixesPlace.addPaints') }}</RouterLink>
            {{ $t('places.mixesPlace.toMixThem') }}</span
          >
          <ChoiceSelect
            v-else
            size="sm"
            class="w-auto"
            :model-value="''"
            :aria-label="$t('places.mixesPlace.addAPaint')"
            @update:model-value="addPaint"
          >
            <option value="">{{ $t('places.mixesPlace.addAPaint2') }}</option>
            <option v-for="p in free" :key="p.id" :value="p.id">
              {{ p.name }}{{ p.opened ? $t('places.mixesPlace.open') : '' }}
            </option>
          </ChoiceSelect>
          <span v-if="stock.paints.length > 0" class="soft">{{
            $t('places.mixesPlace.dropsDrops', {
              total: mixing.total,
              drops: mixing.drops.length === 0,
            })
          }}</span>
        </div>
        <BAlert v-if="binders.size > 1" :model-value="true" variant="danger" class="mt-2 mb-0">
          {{ $t('places.mixesPlace.paintsBoundByDo', { value: [...binders].join(' and ') }) }}
        </BAlert>
      </section>
      <MixResult />
      <TonesPanel />
      <NoteMix @noted="page = $event" />
    </div>
    <aside class="side scroll">
      <RecipeAnswers class="mt-0 mb-3" />
      <MixBook v-model:open="page" />
    </aside>
  </div>
</template>

<style scoped>
.middle {
  padding: 14px 20px;
}
.table-top {
  display: grid;
  grid-template-columns: 220px 1fr 190px;
  gap: 16px;
  align-items: stretch;
  margin-bottom: 8px;
}
.match {
  border-radius: 6px;
  border: 1px solid rgba(0, 0, 0, 0.2);
  min-height: 64px;
  display: grid;
  place-items: center;
}
.match > div {
  width: 62%;
  height: 62%;
}
.off {
  display: flex;
  gap: 10px;
  align-items: center;
  line-height: 1.2;
}
</style>
