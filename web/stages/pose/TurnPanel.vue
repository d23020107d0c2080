<script setup lang="ts">
import { computed } from 'vue'
import type { Angles } from '../../../core/pose/angles'
import NumberField from '../../shell/NumberField.vue'
import type { Posing } from './usePosing'

/** Turns the chosen joint, within what a body can, while held ones stay where they are. */
const props = defineProps<{ posing: Posing }>()

const { joints, chosen, angles, limited, strained, short, holds, rigid } = props.posing
const WAYS: readonly { key: keyof Angles; word: string; most: number }[] = [
  { key: 'forward', word: 'Forward', most: 180 },
  { key: 'sideways', word: 'To its left', most: 90 },
  { key: 'round', word: 'Round', most: 180 },
]
const unreached = computed(() =>
  holds.value.flatMap((h, i) =>
    (short.value[i] ?? 0) > 0.05 ? [{ name: joints.value[h.joint]?.name, by: short.value[i]! }] : [],
  ),
)
</script>

<template>
  <h2 class="mb-2">Turn {{ joints[chosen]?.name }}</h2>
  <template v-for="way in WAYS" :key="way.key">
    <NumberField
      :model-value="angles[way.key]"
      :label="way.word"
      unit="°"
      :step="5"
      :min="-way.most"
      :max="way.most"
      :digits="1"
      @update:model-value="posing.turn({ [way.key]: $event })"
    />
    <input
      type="range"
      class="form-range"
      :min="-way.most"
      :max="way.most"
      :aria-label="`${way.word}, by hand`"
      :value="angles[way.key]"
      @input="posing.turn({ [way.key]: Number(($event.target as HTMLInputElement).value) })"
    />
  </template>
  <label class="d-flex gap-2 align-items-center"
    ><input v-model="limited" type="checkbox" /> stop where a body’s joint would</label
  >
  <label class="d-flex gap-2 align-items-center"
    ><input
      type="checkbox"
      :checked="posing.isHeld(chosen)"
      :disabled="!posing.canHold(chosen)"
      @change="posing.toggleHold(chosen)"
    />
    {{ joints[chosen]?.name }} stays where it is while the rest moves</label
  >
  <label class="d-flex gap-2 align-items-center mb-2"
    ><input v-model="rigid" type="checkbox" /> the whole part follows this joint, unbent</label
  >
  <p v-for="s in strained" :key="`${s.joint}${s.way}`" class="small text-danger mb-1">
    {{ s.name }}
    {{
      s.way === 'backward'
        ? `bends ${s.has.toFixed(0)}° the wrong way`
        : `${s.way === 'bend' ? 'is bent' : 'is twisted'} by ${s.has.toFixed(0)}°; ${s.may}° is what a body can`
    }}.
  </p>
  <p v-for="u in unreached" :key="u.name" class="small text-danger mb-1">
    {{ u.name }} is
    {{ Number.isFinite(u.by) ? `${u.by.toFixed(1)} mm out of reach` : 'not held: too few joints above it' }}.
  </p>
</template>
