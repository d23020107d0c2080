<script setup lang="ts">
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import { BFormCheckbox } from 'bootstrap-vue-next/components/BFormCheckbox'
import { computed } from 'vue'
import { text, fixed } from '../../i18n'
import type { Angles } from '../../../core/pose/angles'
import NumberField from '../../shell/NumberField.vue'
import type { Posing } from './usePosing'

/** Turns the chosen joint, within what a body can, while held ones stay where they are. */
const props = defineProps<{ posing: Posing }>()

const { joints, chosen, angles, limited, strained, short, holds, rigid } = props.posing
const WAYS: readonly { key: keyof Angles; word: string; most: number }[] = [
  { key: 'forward', word: text('pose.turnPanel.forward'), most: 180 },
  { key: 'sideways', word: text('pose.turnPanel.toItsLeft'), most: 90 },
  { key: 'round', word: text('pose.turnPanel.twist'), most: 180 },
]
const unreached = computed(() =>
  holds.value.flatMap((h, i) =>
    (short.value[i] ?? 0) > 0.05 ? [{ name: joints.value[h.joint]?.name, by: short.value[i]! }] : [],
  ),
)
</script>

<template>
  <h2 class="mb-2">{{ $t('pose.turnPanel.turn', { name: joints[chosen]?.name }) }}</h2>
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
    <BFormInput
      type="range"
      :min="-way.most"
      :max="way.most"
      :aria-label="$t('pose.turnPanel.value', { word: way.word })"
      :model-value="angles[way.key]"
      @input="posing.turn({ [way.key]: Number(($event.target as HTMLInputElement).value) })"
    />
  </template>
  <BFormCheckbox v-model="limited">{{ $t('pose.turnPanel.stopAtTheLimits') }}</BFormCheckbox>
  <BFormCheckbox
    :model-value="posing.isHeld(chosen)"
    :disabled="!posing.canHold(chosen)"
    @update:model-value="posing.toggleHold(chosen)"
    >{{ $t('pose.turnPanel.staysInPlaceWhile', { name: joints[chosen]?.name }) }}</BFormCheckbox
  >
  <BFormCheckbox class="mb-2" v-model="rigid">{{ $t('pose.turnPanel.theWholePartFollows') }}</BFormCheckbox>
  <p v-for="s in strained" :key="`${s.joint}${s.way}`" class="small text-danger mb-1">
    {{ s.name }}
    {{
      s.way === 'backward'
        ? $t('pose.turnPanel.bendsTheWrongWay', { has: fixed(s.has, 0) })
        : $t('pose.turnPanel.wayByTheLimit', {
            way: s.way === 'bend',
            has: fixed(s.has, 0),
            may: s.may,
          })
    }}.
  </p>
  <p v-for="u in unreached" :key="u.name" class="small text-danger mb-1">
    {{
      $t('pose.turnPanel.isIsfiniteMmOut', {
        name: u.name,
        isFinite: Boolean(Number.isFinite(u.by)),
        by: fixed(u.by, 1),
      })
    }}
  </p>
</template>
