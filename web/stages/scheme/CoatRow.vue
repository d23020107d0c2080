<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed } from 'vue'
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
const percent = (share: number): string => (share < 0.005 ? 'less than 1 %' : `${Math.round(100 * share)} %`)
const MAP_WORDS = { spray: 'spray light', recess: 'recesses', ridge: 'ridges', exposure: 'what lies open' } as const
/** What its share is read from on the sculpt, and what of that is judgement. */
const read = computed(() => {
  const { maps, judged } = readOf(coat.value)
  const measured = maps.map((m) => MAP_WORDS[m]).join(' and ')
  return [measured && `Measured: ${measured}.`, judged && `Judged: ${judged}.`].filter(Boolean).join(' ')
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
      <ChoiceSelect size="sm" :model-value="coat.technique" aria-label="Technique" @update:model-value="technique">
        <option v-for="t in TECHNIQUES" :key="t">{{ t }}</option>
      </ChoiceSelect>
      <ChoiceSelect
        size="sm"
        :model-value="coat.mix.length ? 'mix' : (coat.paintId ?? '')"
        aria-label="Paint"
        @update:model-value="set(String($event) === 'mix' ? {} : { paintId: String($event) || null, mix: [] })"
      >
        <option value="">choose a paint</option>
        <option v-if="coat.mix.length" value="mix">{{ mixed() }}</option>
        <option v-for="p in paints" :key="p.id" :value="p.id">{{ p.name }}</option>
      </ChoiceSelect>
      <span class="swatch" :style="{ background: fact?.hex }" title="What this coat looks like over what lies below" />
      <BButton variant="quiet" size="sm" :aria-label="`Remove coat ${number}`" @click="emit('remove')">×</BButton>
    </div>
    <div class="line second">
      <label
        >film<input
          type="range"
          class="form-range"
          min="1"
          max="120"
          :value="coat.film"
          aria-label="Dry film in micrometres"
          @input="set({ film: Number(value($event)) })"
        /><span class="num">{{ coat.film }} µm</span></label
      >
      <label
        >paint<input
          type="range"
          class="form-range"
          min="0.05"
          max="1"
          step="0.05"
          :value="coat.pigment"
          aria-label="Share of paint in the mix"
          @input="set({ pigment: Number(value($event)) })"
        /><span class="num">{{ Math.round(coat.pigment * 100) }} %</span></label
      >
    </div>
    <div v-if="spotted" class="line second">
      <label
        >covers<input
          type="range"
          class="form-range"
          min="0.02"
          max="0.95"
          step="0.01"
          :value="coat.coverage"
          aria-label="Share that is covered where it lies fully"
          @input="set({ coverage: Number(value($event)) })"
        /><span class="num">{{ Math.round(coat.coverage * 100) }} %</span></label
      >
      <label v-if="coat.technique !== 'powder'"
        >dots<input
          type="range"
          class="form-range"
          min="0.2"
          max="8"
          step="0.1"
          :value="coat.grain"
          aria-label="Size of dots in mm"
          @input="set({ grain: Number(value($event)) })"
        /><span class="num">{{ coat.grain }} mm</span></label
      >
    </div>
    <div v-if="aimed" class="aim">
      <span v-if="coat.from" class="soft"
        >sprayed from {{ directionText(coat.from.turn, coat.from.lift) }}, cone of
        <input
          type="number"
          class="form-control form-control-sm num d-inline"
          min="2"
          max="60"
          :value="coat.from.spread"
          aria-label="Half the angle of the cone in degrees"
          @change="set({ from: { ...coat.from, spread: Math.max(2, Math.min(60, Number(value($event)) || NOZZLE)) } })"
        />°</span
      >
      <span v-else class="soft">sprayed from above, as the undercoat’s light</span>
      <BButton variant="quiet" size="sm" @click="aim">From where I look</BButton>
      <BButton v-if="coat.from" variant="quiet" size="sm" @click="set({ from: null })">From above</BButton>
    </div>
    <div class="foot">
      <ChoiceSelect
        v-if="coat.technique !== 'airbrush'"
        size="sm"
        class="w-auto"
        :model-value="coat.tool"
        aria-label="Tool"
        @update:model-value="set({ tool: $event as 'brush' })"
      >
        <option>brush</option>
        <option>airbrush</option>
      </ChoiceSelect>
      <p v-if="fact && fact.through !== null" class="soft small m-0">
        <b v-if="fact.through < DIM">{{ percent(fact.through) }} of the light is left: it hides the lamp</b>
        <template v-else>{{ percent(fact.through) }} of the light behind is left</template>
      </p>
      <p v-else-if="coat.technique === 'base' && fact" class="soft small m-0">
        {{ layers() }} {{ layers() === 1 ? 'coat' : 'coats' }} planned;
        <template v-if="fact.toHide === null">more than 12 would be needed to hide what lies below</template>
        <b v-else-if="fact.toHide > layers()">{{ fact.toHide }} needed to hide</b>
        <template v-else>{{ fact.toHide }} hide what lies below</template>
      </p>
      <details v-if="read" class="soft small">
        <summary>
          {{ readOf(coat).hand.length > 0 ? 'where it lies; your own hand' : 'how we know where it lies' }}
        </summary>
        {{ read }}
        <HandFields :coat="coat" />
      </details>
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
