<script setup lang="ts">
import { figure } from '../../manner'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, onMounted } from 'vue'
import { RouterLink } from 'vue-router'
import type { Scheme } from '../../../contract/scheme'
import { gcd, MAX_DROPS, MAX_PAINTS } from '../../../core/paint/recipes/mixRank'
import { useRules } from '../../composables/useRules'
import { useMixes } from '../../stores/mixes'
import { usePiece } from '../../stores/piece'
import { useScheme } from '../../stores/scheme'
import ChoiceSelect from '../../shell/ChoiceSelect.vue'
import ColourInput from '../../shell/ColourInput.vue'

/** The colour that a region is to come to, and mixes for it: found now, or noted before. */
const props = defineProps<{ region: Scheme['regions'][number] }>()
const emit = defineEmits<{ target: [hex: string]; take: [drops: { paint: string; drops: number }[]] }>()
const book = useScheme(),
  store = usePiece(),
  mixes = useMixes(),
  { rule } = useRules()
onMounted(() => void mixes.load().catch(() => undefined))
const answer = computed(() => book.answer(props.region.target))
/** Pages of the book that are of this region, or of none: what a coat can hold of them. */
const noted = computed(() =>
  (mixes.book ?? []).filter(
    (m) =>
      m.drops.length <= MAX_PAINTS &&
      (m.region === '' || m.region.toLowerCase() === props.region.name.toLowerCase()) &&
      lowest(m.drops).every((d) => d.drops <= MAX_DROPS),
  ),
)
function lowest(drops: readonly { paintId: string; drops: number }[]): { paint: string; drops: number }[] {
  const by = drops.map((d) => d.drops).reduce(gcd, 0)
  return drops.map((d) => ({ paint: d.paintId, drops: d.drops / by }))
}
const table = computed(() => ({
  path: '/stock/mixes',
  query: {
    target: props.region.target ?? undefined,
    piece: store.piece?.id,
    region: props.region.name,
    coat: 'base',
    undercoat: rule('undercoat'),
    tint: book.scheme?.tint,
  },
}))
</script>

<template>
  <section class="mt-3">
    <div class="d-flex justify-content-between align-items-baseline">
      <h2>{{ $t('scheme.mixFor.mixForAColour') }}</h2>
      <RouterLink :to="table">{{ $t('scheme.mixFor.openMixingTable') }}</RouterLink>
    </div>
    <div class="d-flex gap-2 align-items-center my-2">
      <ColourInput
        :value="region.target ?? '#a0705a'"
        :label="$t('scheme.mixFor.targetColour')"
        @chosen="emit('target', $event)"
      />
      <span class="soft">{{ region.target ?? $t('scheme.mixFor.chooseTheColourIt') }}</span>
    </div>
    <ul v-if="answer" class="list-unstyled mb-1">
      <li v-for="(r, i) in answer.recipes" :key="i" class="recipe">
        <span class="swatch" :style="{ background: region.target ?? '' }" /><span
          class="swatch"
          :style="{ background: r.hex }"
        />
        <span class="what">{{ r.drops.map((d) => `${d.drops} ${d.name}`).join(' + ') }}</span>
        <span class="num soft" :title="$t('scheme.mixFor.ciede2000DifferenceFromThe')"
          >ΔE {{ figure(r.error, 1) }}</span
        >
        <BButton variant="quiet" size="sm" @click="emit('take', r.drops)">{{ $t('scheme.mixFor.use') }}</BButton>
      </li>
    </ul>
    <p v-if="(answer?.excluded.length ?? 0) > 0" class="soft small">
      {{ $t('scheme.mixFor.leftOutPaintsThat', { excluded: answer!.excluded.length }) }}
    </p>
    <label v-if="noted.length > 0" class="d-flex gap-2 align-items-center small"
      ><span class="text-nowrap">{{ $t('scheme.mixFor.fromTheMixLog') }}</span
      ><ChoiceSelect
        :model-value="''"
        size="sm"
        :aria-label="$t('scheme.mixFor.aMixOfThe')"
        @update:model-value="
          (id) => {
            const m = noted.find((x) => x.id === id)
            if (m) emit('take', lowest(m.drops))
          }
        "
      >
        <option value="">{{ $t('scheme.mixFor.choose') }}</option>
        <option v-for="m in noted" :key="m.id" :value="m.id">{{ m.name }}</option>
      </ChoiceSelect></label
    >
  </section>
</template>

<style scoped>
.recipe {
  display: grid;
  grid-template-columns: auto auto 1fr auto auto;
  gap: 6px;
  align-items: center;
  padding: 4px 0;
  border-bottom: 1px solid var(--line);
  font-size: 0.88rem;
}
</style>
