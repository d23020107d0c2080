<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { plainPaints } from '../../../contract/stockPaint'
import { hexToLab } from '../../../core/paint/colour'
import { UNDERCOATS, type UndercoatChoice } from '../../../core/paint/undercoat'
import type { UndercoatCost } from '../../../core/paint/undercoats'
import { newestOnly } from '../../composables/newest'
import { SCHOOLS } from '../../../core/plan/schools'
import { plainCoats } from '../../composables/paintedScheme'
import { useSlowPaintWork } from '../../composables/usePaintWork'
import { duration } from '../../shell/duration'
import { usePiece } from '../../stores/piece'
import { useScheme } from '../../stores/scheme'

/** What each undercoat costs over the whole scheme, in coats, hours and paint; the one in use is marked. */
const props = defineProps<{ undercoat: string }>(),
  emit = defineEmits<{ tint: [hex: string] }>()
const store = usePiece(),
  book = useScheme(),
  work = useSlowPaintWork()
const costs = shallowRef<UndercoatCost[]>([])
/** the tint that the scheme takes fewest coats over */
const best = ref<string | null>(null),
  open = ref(false)
const reckon = newestOnly(async () => {
  const s = book.scheme
  if (!s || !open.value) return
  const told = await work.undercoats(
    plainCoats(s.coats),
    plainPaints(book.paints),
    s.regions.map((r) => ({ id: r.id, target: r.target ? hexToLab(r.target) : null, area: book.areaOf(r.id) })),
    s.tint,
  )
  costs.value = told.costs
  best.value = told.best
})
watch([() => book.scheme, () => book.paints, open], () => void reckon(), { deep: true })
const bases = computed(() => costs.value[0]?.coats.length ?? 0)
const least = computed(() => Math.min(...costs.value.map((c) => c.total)))
const choiceOf = ({ undercoat }: UndercoatCost): UndercoatChoice => UNDERCOATS.find((u) => u === undercoat) ?? 'tinted'
const take = (undercoat: UndercoatChoice): void => {
  void store.save({ schools: { ...JSON.parse(JSON.stringify(store.piece!.schools)), undercoat } })
}
</script>

<template>
  <details class="mt-3" :open="open" @toggle="open = ($event.target as HTMLDetailsElement).open">
    <summary><h2 class="d-inline">What each undercoat would cost</h2></summary>
    <p v-if="open && bases === 0" class="soft small">Give the regions base coats first.</p>
    <table v-else-if="bases > 0" class="plain small mt-1">
      <thead>
        <tr>
          <th>Undercoat</th>
          <th class="num">Coats</th>
          <th class="num">At the bench</th>
          <th class="num">Paint</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="c in costs" :key="choiceOf(c)" :data-undercoat="choiceOf(c)">
          <td :class="{ 'fw-bold': c.undercoat === props.undercoat }">
            {{ SCHOOLS.undercoat.choices[choiceOf(c)] }}
            <template v-if="choiceOf(c) === 'tinted'">
              <input
                type="color"
                class="tint"
                :value="c.undercoat"
                aria-label="Colour of the primer"
                @change="emit('tint', ($event.target as HTMLInputElement).value)"
              />
              <button
                v-if="best && best !== c.undercoat"
                class="btn btn-sm btn-quiet tint"
                title="the colour over which these bases take fewest coats"
                @click="emit('tint', best)"
              >
                <i :style="{ background: best }" />fits best
              </button>
            </template>
          </td>
          <td class="num">
            {{ c.total }}<span v-if="c.coats.includes(null)" title="A region that twelve coats do not hide">+</span
            ><b v-if="c.total === least" title="fewest coats"> least</b>
          </td>
          <td class="num">{{ duration(c.handsOn) }}</td>
          <td class="num">{{ c.ml.toFixed(1) }} ml</td>
          <td class="num">
            <span v-if="c.undercoat === props.undercoat" class="soft">in use</span>
            <button v-else class="btn btn-sm btn-quiet" @click="take(choiceOf(c))">Take it</button>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="bases > 0" class="soft small mt-1 mb-0">
      Coats of each base until it hides, or comes within ΔE 2 of its target. White from above is meant to show through:
      it counts as half lit.
    </p>
  </details>
</template>

<style scoped>
.tint {
  vertical-align: middle;
  margin-left: 6px;
}
input.tint {
  width: 34px;
  height: 22px;
  padding: 0;
  border: 1px solid var(--line);
  border-radius: 3px;
}
.tint i {
  display: inline-block;
  width: 12px;
  height: 12px;
  margin-right: 5px;
  border-radius: 2px;
  vertical-align: -1px;
}
</style>
