<script setup lang="ts">
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed } from 'vue'
import { text, term } from '../../i18n'
import type { CoatFact } from '../../../core/paint/coats/coatFacts'
import { AIRBRUSHED, BRUSHED } from '../../../core/paint/optics/film'
import type { Coat } from '../../../contract/scheme'
import type { PaintRecord } from '../../../contract/stock'
import { followsSpray, readOf } from '../../../core/paint/coats/technique'
import { TECHNIQUES } from '../../../core/defaults/paint'
import { NOZZLE } from '../../../core/paint/surface/sprayLight'
import type { Item } from '../../stores/stock'
import HandFields from './HandFields.vue'
import { directionText } from '../../shell/directionText'
import { useViewport } from '../../viewport/useViewport'
import ChoiceSelect from '../../shell/ChoiceSelect.vue'
import NumberField from '../../shell/NumberField.vue'
import { say } from '../../../core/words/say'
import { manner } from '../../manner'

const coat = defineModel<Coat>({ required: true })
const props = defineProps<{
  number: number
  paints: Item<PaintRecord>[]
  fact?: CoatFact
}>()
const viewport = useViewport()
const emit = defineEmits<{ remove: [] }>()
const set = (fields: Partial<Coat>): void => {
  coat.value = { ...coat.value, ...fields }
}
const value = (e: Event): string => (e.target as HTMLInputElement).value
const layers = (): number =>
  Math.max(1, Math.round(coat.value.film / (coat.value.tool === 'airbrush' ? AIRBRUSHED : BRUSHED)))
/** Share of the lamp's light below which a clear part looks painted over. */
const DIM = 0.1
const percent = (share: number): string =>
  share < 0.005 ? text('scheme.coatRow.lessThan1') : `${Math.round(100 * share)} %`
const MAP_WORDS = {
  spray: text('scheme.coatRow.sprayLight'),
  recess: text('scheme.coatRow.recesses'),
  ridge: text('scheme.coatRow.ridges'),
  exposure: text('scheme.coatRow.openSurfaces'),
} as const
/** What its share is read from on the sculpt, and what of that is judgement. */
const read = computed(() => {
  const { maps, judged } = readOf(coat.value)
  const measured = maps.map((m) => MAP_WORDS[m]).join(' and ')
  return [
    measured && text('scheme.coatRow.measured', { measured }),
    judged && text('scheme.coatRow.judged', { judged: say(judged, manner) }),
  ]
    .filter(Boolean)
    .join(' ')
})
const aimed = computed(() => followsSpray(coat.value))
const spotted = computed(() => ['stipple', 'chips', 'powder'].includes(coat.value.technique))
const technique = (chosen: unknown): void => {
  const t = chosen as Coat['technique']
  set({ technique: t, ...(t === 'airbrush' ? { tool: 'airbrush' as const } : {}) })
}
/** Sprayed from where one looks at it now. */
function aim(): void {
  const view = viewport.camera()
  if (view) set({ from: { ...view.from, spread: coat.value.from?.spread ?? NOZZLE } })
}
const mixed = (): string =>
  coat.value.mix.map((m) => `${m.drops} ${props.paints.find((p) => p.id === m.paintId)?.name ?? '?'}`).join(' + ')
</script>

<template>
  <article class="coat">
    <div class="line">
      <b class="num">{{ number }}</b>
      <ChoiceSelect
        size="sm"
        :model-value="coat.technique"
        :aria-label="$t('scheme.coatRow.technique')"
        @update:model-value="technique"
      >
        <option v-for="t in TECHNIQUES" :key="t" :value="t">{{ term('technique', t) }}</option>
      </ChoiceSelect>
      <ChoiceSelect
        size="sm"
        :model-value="coat.mix.length ? 'mix' : (coat.paintId ?? '')"
        :aria-label="$t('scheme.coatRow.paint')"
        @update:model-value="set(String($event) === 'mix' ? {} : { paintId: String($event) || null, mix: [] })"
      >
        <option value="">{{ $t('scheme.coatRow.chooseAPaint') }}</option>
        <option v-if="coat.mix.length" value="mix">{{ mixed() }}</option>
        <option v-for="p in paints" :key="p.id" :value="p.id">{{ p.name }}</option>
      </ChoiceSelect>
      <span class="swatch" :style="{ background: fact?.hex }" :title="$t('scheme.coatRow.whatThisCoatLooks')" />
      <BButton
        variant="quiet"
        size="sm"
        :aria-label="$t('scheme.coatRow.removeCoat', { number })"
        @click="emit('remove')"
        >×</BButton
      >
    </div>
    <div class="line second">
      <label
        >{{ $t('scheme.coatRow.film')
        }}<BFormInput
          type="range"
          min="1"
          max="120"
          :model-value="coat.film"
          :aria-label="$t('scheme.coatRow.dryFilmInMicrometres')"
          @input="set({ film: Number(value($event)) })"
        /><span class="num">{{ coat.film }} µm</span></label
      >
      <label
        >{{ $t('scheme.coatRow.paint2')
        }}<BFormInput
          type="range"
          min="0.05"
          max="1"
          step="0.05"
          :model-value="coat.pigment"
          :aria-label="$t('scheme.coatRow.shareOfPaintIn')"
          @input="set({ pigment: Number(value($event)) })"
        /><span class="num">{{ Math.round(coat.pigment * 100) }} %</span></label
      >
    </div>
    <div v-if="spotted" class="line second">
      <label
        >{{ $t('scheme.coatRow.coverage')
        }}<BFormInput
          type="range"
          min="0.02"
          max="0.95"
          step="0.01"
          :model-value="coat.coverage"
          :aria-label="$t('scheme.coatRow.shareThatIsCovered')"
          @input="set({ coverage: Number(value($event)) })"
        /><span class="num">{{ Math.round(coat.coverage * 100) }} %</span></label
      >
      <label v-if="coat.technique !== 'powder'"
        >{{ $t('scheme.coatRow.dots')
        }}<BFormInput
          type="range"
          min="0.2"
          max="8"
          step="0.1"
          :model-value="coat.grain"
          :aria-label="$t('scheme.coatRow.sizeOfDotsIn')"
          @input="set({ grain: Number(value($event)) })"
        /><span class="num">{{ $t('scheme.coatRow.mm', { grain: coat.grain }) }}</span></label
      >
    </div>
    <div v-if="aimed" class="aim">
      <span v-if="coat.from" class="soft"
        >{{ $t('scheme.coatRow.sprayedFromConeOf', { turn: directionText(coat.from.turn, coat.from.lift) }) }}
        <NumberField
          bare
          unit="°"
          :min="2"
          :max="60"
          :digits="0"
          :model-value="coat.from.spread"
          :label="$t('scheme.coatRow.halfTheAngleOf')"
          @update:model-value="set({ from: { ...coat.from, spread: $event } })"
      /></span>
      <span v-else class="soft">{{ $t('scheme.coatRow.sprayedFromAboveAs') }}</span>
      <BButton variant="quiet" size="sm" @click="aim">{{ $t('scheme.coatRow.fromTheCurrentView') }}</BButton>
      <BButton v-if="coat.from" variant="quiet" size="sm" @click="set({ from: null })">{{
        $t('scheme.coatRow.fromAbove')
      }}</BButton>
    </div>
    <div class="foot">
      <ChoiceSelect
        v-if="coat.technique !== 'airbrush'"
        size="sm"
        class="w-auto"
        :model-value="coat.tool"
        :aria-label="$t('scheme.coatRow.tool')"
        @update:model-value="set({ tool: $event as 'brush' })"
      >
        <option value="brush">{{ $t('scheme.coatRow.brush') }}</option>
        <option value="airbrush">{{ $t('scheme.coatRow.airbrush') }}</option>
      </ChoiceSelect>
      <p v-if="fact && fact.through !== null" class="soft small m-0">
        <b v-if="fact.through < DIM">{{ $t('scheme.coatRow.ofTheLightPasses', { through: percent(fact.through) }) }}</b>
        <template v-else>{{ $t('scheme.coatRow.ofTheLightFrom', { through: percent(fact.through) }) }}</template>
      </p>
      <p v-else-if="coat.technique === 'base' && fact" class="soft small m-0">
        {{ $t('scheme.coatRow.valuePlanned', { value: layers() }) }}
        <template v-if="fact.toHide === null">{{ $t('scheme.coatRow.moreThan12Would') }}</template>
        <b v-else-if="fact.toHide > layers()">{{ $t('scheme.coatRow.neededToCover', { toHide: fact.toHide }) }}</b>
        <template v-else>{{ $t('scheme.coatRow.coverWhatIsBelow', { toHide: fact.toHide }) }}</template>
      </p>
      <FoldPanel v-if="read" class="soft small">
        <template #title
          >{{
            readOf(coat).hand.length > 0 ? $t('scheme.coatRow.whereItGoesYour') : $t('scheme.coatRow.howItsPlaceIs')
          }}
        </template>
        {{ read }}
        <HandFields :coat="coat" />
      </FoldPanel>
    </div>
  </article>
</template>

<style scoped>
.coat {
  border-top: 1px solid var(--line);
  padding: 7px 0;
}
.line {
  display: grid;
  grid-template-columns: 14px 92px 1fr auto auto;
  gap: 6px;
  align-items: center;
}
.second {
  grid-template-columns: 1fr 1fr;
  margin: 5px 0 2px 20px;
  font-size: 0.82rem;
}
.foot {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  align-items: baseline;
  margin: 3px 0 2px 20px;
}
.foot details[open] {
  flex-basis: 100%;
}
.aim {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  margin: 3px 0 2px 20px;
  font-size: 0.82rem;
}
.aim input {
  width: 58px;
}
.second label {
  display: grid;
  grid-template-columns: auto 1fr 44px;
  gap: 5px;
  align-items: center;
}
</style>
