<script setup lang="ts">
import { AIRBRUSHED, BRUSHED } from '../../../core/paint/film'
import { TECHNIQUES, type Coat } from '../../../contract/pieces'
import type { PaintRecord } from '../../../contract/stock'
import type { Item } from '../../stores/stock'

const coat = defineModel<Coat>({ required: true })
const props = defineProps<{
  number: number
  paints: Item<PaintRecord>[]
  fact?: { toHide: number | null; hex: string }
}>()
const emit = defineEmits<{ remove: [] }>()
const set = (fields: Partial<Coat>): void => {
  coat.value = { ...coat.value, ...fields }
}
const value = (e: Event): string => (e.target as HTMLInputElement).value
const layers = (): number =>
  Math.max(1, Math.round(coat.value.film / (coat.value.tool === 'airbrush' ? AIRBRUSHED : BRUSHED)))
const mixed = (): string =>
  coat.value.mix.map((m) => `${m.drops} ${props.paints.find((p) => p.id === m.paintId)?.name ?? '?'}`).join(' + ')
</script>

<template>
  <article class="coat">
    <div class="line">
      <b class="num">{{ number }}</b>
      <select
        class="form-select form-select-sm"
        :value="coat.technique"
        aria-label="Technique"
        @change="set({ technique: value($event) as Coat['technique'] })"
      >
        <option v-for="t in TECHNIQUES" :key="t">{{ t }}</option>
      </select>
      <select
        class="form-select form-select-sm"
        :value="coat.mix.length ? 'mix' : (coat.paintId ?? '')"
        aria-label="Paint"
        @change="set(value($event) === 'mix' ? {} : { paintId: value($event) || null, mix: [] })"
      >
        <option value="">choose a paint</option>
        <option v-if="coat.mix.length" value="mix">{{ mixed() }}</option>
        <option v-for="p in paints" :key="p.id" :value="p.id">{{ p.name }}</option>
      </select>
      <span class="swatch" :style="{ background: fact?.hex }" title="What this coat looks like over what lies below" />
      <button class="btn btn-sm btn-quiet" :aria-label="`Remove coat ${number}`" @click="emit('remove')">×</button>
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
      <select
        class="form-select form-select-sm w-auto"
        :value="coat.tool"
        aria-label="Tool"
        @change="set({ tool: value($event) as 'brush' })"
      >
        <option>brush</option>
        <option>airbrush</option>
      </select>
    </div>
    <p v-if="coat.technique === 'base' && fact" class="soft small m-0">
      {{ layers() }} {{ layers() === 1 ? 'coat' : 'coats' }} planned;
      <template v-if="fact.toHide === null">more than 12 would be needed to hide what lies below</template>
      <b v-else-if="fact.toHide > layers()">{{ fact.toHide }} needed to hide</b>
      <template v-else>{{ fact.toHide }} hide what lies below</template>
    </p>
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
  grid-template-columns: 1fr 1fr auto;
  margin: 5px 0 2px 20px;
  font-size: 0.82rem;
}
.second label {
  display: grid;
  grid-template-columns: auto 1fr 44px;
  gap: 5px;
  align-items: center;
}
</style>
