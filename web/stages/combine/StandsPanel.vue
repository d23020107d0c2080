<script setup lang="ts">
import { fixed, term } from '../../i18n'
import { figure, quantity } from '../../manner'
import FoldPanel from '../../shell/FoldPanel.vue'
import { computed } from 'vue'
import NumberField from '../../shell/NumberField.vue'
import { useAssembly } from '../../stores/assembly'
import { usePiece } from '../../stores/piece'
import ChoiceSelect from '../../shell/ChoiceSelect.vue'
import FaultNote from '../../shell/FaultNote.vue'

/** How far the whole can be tipped, all round, seen from above with the front below. */
const assembly = useAssembly(),
  store = usePiece()
const r = computed(() => assembly.balance)
const RIM = 40
const most = computed(() => Math.max(30, Math.ceil(Math.max(...(r.value?.tips.map((t) => t.angle) ?? [0])) / 10) * 10))
const at = (direction: number, angle: number): string => {
  const a = (direction * Math.PI) / 180,
    l = (Math.max(0, angle) / most.value) * RIM
  return `${(50 + Math.sin(a) * l).toFixed(2)},${(50 + Math.cos(a) * l).toFixed(2)}`
}
const curve = computed(() => r.value?.tips.map((t) => at(t.direction, t.angle)).join(' ') ?? '')
const wish = computed(() => store.piece?.tipWish ?? 15)
const KINDS = { resin: 1.12, filament: 1.24, metal: 7.8 } as const
function choose(id: string, name: keyof typeof KINDS): void {
  void assembly.setMaterial(id, { name, density: KINDS[name], infill: name === 'filament' ? 0.2 : 1 })
}
</script>

<template>
  <FoldPanel class="mb-3" open>
    <template #title>{{ $t('combine.standsPanel.balance') }}</template>
    <FaultNote :text="assembly.balanceProblem" class="mt-1" />
    <div v-if="r" class="d-flex gap-2 mt-2">
      <svg
        viewBox="0 0 100 100"
        class="polar"
        role="img"
        :aria-label="
          $t('combine.standsPanel.tipsOverFirstAt', {
            angle: fixed(r.weakest.angle, 0),
            direction: r.weakest.direction,
          })
        "
      >
        <circle cx="50" cy="50" :r="RIM" class="ring" />
        <circle cx="50" cy="50" :r="(wish / most) * RIM" class="wish" />
        <polygon :points="curve" class="curve" :class="{ weak: r.weakest.angle < wish }" />
        <line
          x1="50"
          y1="50"
          :x2="at(r.weakest.direction, most).split(',')[0]"
          :y2="at(r.weakest.direction, most).split(',')[1]"
          class="weakest"
        />
        <text x="50" y="99" text-anchor="middle">{{ $t('combine.standsPanel.front') }}</text>
      </svg>
      <dl class="facts flex-grow-1">
        <dt>{{ $t('combine.standsPanel.tipsOverAt') }}</dt>
        <dd>{{ figure(r.weakest.angle, 1) }}°</dd>
        <dt>{{ $t('combine.standsPanel.marginThere') }}</dt>
        <dd>{{ $t('combine.standsPanel.mm', { margin: fixed(r.weakest.margin, 1) }) }}</dd>
        <dt>{{ $t('combine.standsPanel.mass') }}</dt>
        <dd>{{ quantity(r.mass, 0, 'g') }}</dd>
        <dt>{{ $t('combine.standsPanel.energyToToppleIt') }}</dt>
        <dd>{{ $t('combine.standsPanel.mj', { energy: fixed(r.energy * 1000, 1) }) }}</dd>
      </dl>
    </div>
    <NumberField
      :model-value="wish"
      :label="$t('combine.standsPanel.shouldStandUpTo')"
      unit="°"
      :min="1"
      :max="80"
      :digits="0"
      @update:model-value="store.save({ tipWish: $event })"
    />
    <div v-for="p in assembly.placed" :key="p.part.id" class="d-flex gap-1 align-items-center mb-1">
      <span class="flex-grow-1 text-truncate">{{ p.part.name }}</span>
      <ChoiceSelect
        size="sm"
        class="what"
        :aria-label="$t('combine.standsPanel.isMadeOf', { name: p.part.name })"
        :model-value="assembly.materialOf(p.part.id).name"
        @update:model-value="choose(p.part.id, $event as keyof typeof KINDS)"
      >
        <option v-for="(_, k) in KINDS" :key="k" :value="k">{{ term('standMaterial', k) }}</option>
      </ChoiceSelect>
      <NumberField
        bare
        unit="%"
        :min="0"
        :max="100"
        :digits="0"
        :label="$t('combine.standsPanel.filledShareOfPercent', { name: p.part.name })"
        :model-value="assembly.materialOf(p.part.id).infill * 100"
        @update:model-value="assembly.setMaterial(p.part.id, { infill: $event / 100 })"
      />
      <span class="soft">{{ $t('combine.standsPanel.filled') }}</span>
    </div>
  </FoldPanel>
</template>

<style scoped>
.polar {
  width: 128px;
  height: 128px;
  flex: none;
}
.ring {
  fill: var(--paper-raised);
  stroke: var(--line);
}
.wish {
  fill: none;
  stroke: var(--ink-soft);
  stroke-dasharray: 2 2;
  stroke-width: 0.7;
}
.curve {
  fill: rgb(14 90 97 / 25%);
  stroke: var(--action);
}
.curve.weak {
  fill: rgb(192 124 0 / 22%);
  stroke: var(--warning);
}
.weakest {
  stroke: var(--problem);
  stroke-width: 0.8;
}
text {
  font-size: 8px;
  fill: var(--ink-soft);
}
.what {
  width: 104px;
}
.share {
  width: 64px;
}
</style>
