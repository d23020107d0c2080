<script setup lang="ts">
import { BAlert } from 'bootstrap-vue-next/components/BAlert'
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed } from 'vue'
import { text } from '../../i18n'
import { figure, manner } from '../../manner'
import { labToHex } from '../../../core/paint/optics/colour'
import { UNSEEN } from '../../../core/paint/recipes/mixRank'
import type { Merit } from '../../../core/paint/recipes/recipe'
import { useMixing } from '../../stores/mixing'
import { useStock } from '../../stores/stock'
import { say } from '../../../core/words/say'

/** The best mixes for the target, each with what it is best at. */
const mixing = useMixing(),
  stock = useStock()
const MERIT: Record<Merit, string> = {
  simplest: text('mixing.recipeAnswers.simplestOfTheClosest'),
  closest: text('mixing.recipeAnswers.closest'),
  fewest: text('mixing.recipeAnswers.fewestPaints'),
  cheapest: text('mixing.recipeAnswers.cheapest'),
  open: text('mixing.recipeAnswers.fromOpenBottles'),
}
const here = (r: { drops: { paint: string; drops: number }[] }): boolean =>
  JSON.stringify(r.drops.map((d) => [d.paint, d.drops]).sort()) ===
  JSON.stringify(mixing.laid.map((d) => [d.id, d.drops]).sort())
const answer = computed(() => mixing.answer)
</script>

<template>
  <section :aria-label="$t('mixing.recipeAnswers.recipes')" class="mt-3">
    <h2 class="mb-1">
      {{
        mixing.solving
          ? $t('mixing.recipeAnswers.searchingForRecipes')
          : answer
            ? $t('mixing.recipeAnswers.recipesForTheTarget')
            : $t('mixing.recipeAnswers.setATargetColour')
      }}
    </h2>
    <BAlert v-if="answer && !answer.reached" :model-value="true" variant="danger" class="mb-2">{{
      answer.missing && say(answer.missing, manner)
    }}</BAlert>
    <article v-for="(r, i) in answer?.recipes ?? []" :key="i" class="recipe" :class="{ here: here(r) }">
      <span class="pair"
        ><i :style="{ background: mixing.target ? labToHex(mixing.target) : '' }" /><i :style="{ background: r.hex }"
      /></span>
      <div>
        <b v-if="r.merits.length > 0" class="merits">{{ r.merits.map((m) => MERIT[m]).join(', ') }}</b>
        <div>{{ r.drops.map((d) => `${d.drops} ${d.name}`).join(' + ') }}</div>
        <div class="soft small">
          {{
            r.hides === null
              ? $t('mixing.recipeAnswers.doesNotCoverIn')
              : $t('mixing.recipeAnswers.coversBlackInHides', { hides: r.hides })
          }}
        </div>
      </div>
      <span class="num"
        ><b :class="{ far: r.error > UNSEEN }">ΔE {{ figure(r.error, 1) }}</b
        ><br /><span class="soft small">{{
          r.price === null ? '' : $t('mixing.recipeAnswers.perMl', { money: stock.money(r.price) })
        }}</span></span
      >
      <BButton variant="quiet" size="sm" @click="mixing.setDrops(r.drops)">{{
        $t('mixing.recipeAnswers.use')
      }}</BButton>
    </article>
    <FoldPanel v-if="answer && answer.excluded.length > 0" class="soft small mt-1">
      <template #title>{{ $t('mixing.recipeAnswers.paintsLeftOut', { excluded: answer.excluded.length }) }}</template>
      <ul class="mb-0">
        <li v-for="(e, i) in answer.excluded" :key="i">{{ say(e, manner) }}</li>
      </ul>
    </FoldPanel>
  </section>
</template>

<style scoped>
.recipe {
  display: grid;
  grid-template-columns: auto 1fr auto auto;
  gap: 10px;
  align-items: center;
  padding: 4px 0;
  border-top: 1px solid var(--line);
  line-height: 1.25;
}
.merits::first-letter {
  text-transform: uppercase;
}
.merits {
  display: block;
}
.recipe.here {
  box-shadow: inset 3px 0 0 var(--action);
  padding-left: 8px;
}
.pair {
  display: grid;
  grid-template-columns: 22px 22px;
  height: 34px;
  border-radius: 3px;
  overflow: hidden;
  border: 1px solid rgba(0, 0, 0, 0.25);
}
.far {
  color: var(--warning);
}
</style>
