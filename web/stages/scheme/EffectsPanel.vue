<script setup lang="ts">
import { manner, quantity } from '../../manner'
import FoldPanel from '../../shell/FoldPanel.vue'
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref } from 'vue'
import type { Scheme } from '../../../contract/scheme'
import { EFFECT_KINDS, type EffectKind } from '../../../core/defaults/plan'
import { say } from '../../../core/words/say'
import { effectPlan, EFFECTS } from '../../../core/plan/materials/effects'
import { duration } from '../../shell/duration'
import { useScheme } from '../../stores/scheme'
import NumberField from '../../shell/NumberField.vue'

/** What is built up on the region: how much of which stuff, in how many layers, and how long each sets. */
const props = defineProps<{ region: Scheme['regions'][number] }>()
const emit = defineEmits<{ changed: [] }>()
const book = useScheme()
const kind = ref<EffectKind>('earth')
const change = (effects: Scheme['effects']): void => {
  book.scheme!.effects = effects
  emit('changed')
}
const all = computed(() => book.scheme?.effects ?? [])
const own = computed(() =>
  all.value
    .filter((e) => e.regionId === props.region.id)
    .map((e) => ({ ...e, plan: effectPlan({ ...e, area: book.areaOf(props.region.id) }), way: EFFECTS[e.kind] })),
)
const add = (): void =>
  change([
    ...all.value,
    {
      id: crypto.randomUUID(),
      regionId: props.region.id,
      kind: kind.value,
      thickness: EFFECTS[kind.value].usual,
      coverage: 1,
    },
  ])
const set = (id: string, fields: Partial<Scheme['effects'][number]>): void =>
  change(all.value.map((e) => (e.id === id ? { ...e, ...fields } : e)))
</script>

<template>
  <FoldPanel class="my-2">
    <template #title
      ><h2 class="d-inline">{{ $t('scheme.effectsPanel.groundSnowWaterRust') }}</h2>
      <span v-if="own.length > 0" class="soft small ms-2">{{
        own.map((e) => say(e.way.name, manner)).join(', ')
      }}</span>
    </template>
    <div class="d-flex gap-2 my-2">
      <BFormSelect v-model="kind" size="sm" class="w-auto" :aria-label="$t('scheme.effectsPanel.effect')">
        <option v-for="k in EFFECT_KINDS" :key="k" :value="k">{{ say(EFFECTS[k].name, manner) }}</option>
      </BFormSelect>
      <BButton variant="quiet" size="sm" @click="add">{{
        $t('scheme.effectsPanel.applyTo', { name: region.name })
      }}</BButton>
    </div>
    <article v-for="e in own" :key="e.id" class="effect">
      <div class="d-flex justify-content-between align-items-baseline">
        <b>{{ e.way.name }}</b>
        <BButton
          variant="quiet"
          size="sm"
          :aria-label="$t('scheme.effectsPanel.remove', { name: say(e.way.name, manner) })"
          @click="change(all.filter((x) => x.id !== e.id))"
        >
          ×
        </BButton>
      </div>
      <div class="line">
        <label v-if="e.way.perMm"
          >{{ $t('scheme.effectsPanel.thickness')
          }}<NumberField
            bare
            unit="mm"
            :min="0.1"
            :max="50"
            :step="0.5"
            :model-value="e.thickness"
            :label="$t('scheme.effectsPanel.thicknessInMm', { name: say(e.way.name, manner) })"
            @update:model-value="set(e.id, { thickness: $event })"
        /></label>
        <label
          >{{ $t('scheme.effectsPanel.over')
          }}<NumberField
            bare
            unit="%"
            :min="1"
            :max="100"
            :digits="0"
            :model-value="100 * e.coverage"
            :label="$t('scheme.effectsPanel.shareOfTheRegion', { name: say(e.way.name, manner) })"
            @update:model-value="set(e.id, { coverage: $event / 100 })"
          />{{ $t('scheme.effectsPanel.ofIt') }}</label
        >
      </div>
      <p class="small m-0">
        <b class="num">{{ quantity(e.plan.amount, e.way.unit === 'g' ? 2 : 1, e.way.unit) }}</b>
        {{
          $t('scheme.effectsPanel.ofLayersLayersOf', {
            stuff: say(e.way.stuff, manner),
            layers: e.plan.layers,
            handsOn: duration(e.plan.handsOn),
            setting: e.way.setting === 'reaction',
            wait: duration(e.plan.wait),
          })
        }}
      </p>
      <p class="soft small m-0">{{ say(e.way.why, manner) }}</p>
    </article>
    <p v-if="own.length > 0" class="soft small mt-1 mb-0">
      {{ $t('scheme.effectsPanel.amountsAndTimesAre') }}
    </p>
  </FoldPanel>
</template>

<style scoped>
.effect {
  border-top: 1px solid var(--line);
  padding: 5px 0;
}
.line {
  display: flex;
  gap: 14px;
}
.line label {
  display: flex;
  gap: 6px;
  align-items: center;
}
.line input {
  width: 68px;
}
</style>
