<script setup lang="ts">
import { computed } from 'vue'
import { directionWords } from '../../../core/findings/trappedResin'
import type { TrapReport } from '../../../core/print/trapped'
import { useViewport, type Quaternion } from '../../viewport/useViewport'
import { quaternionBetween } from '../../../core/mesh/transform'

/** Poses that empty the part one after the other; pressing one turns the sculpt into it. */
const props = defineProps<{ report: TrapReport }>()
const viewport = useViewport()
const ml = (v: number): string => (v / 1000).toFixed(v < 1000 ? 2 : 1)
const rows = computed(() => props.report.routine.map((s, i) => ({ ...s, n: i + 1, words: directionWords(s.down) })))
function show(down: readonly [number, number, number]): void {
  viewport.quaternion = quaternionBetween(down, [0, 0, -1]) as Quaternion
}
</script>

<template>
  <section class="sheet p-3 mb-3">
    <h3 class="mb-1">Draining</h3>
    <dl class="facts">
      <dt>cavities hold</dt>
      <dd>{{ ml(report.cavity) }} ml</dd>
      <dt>stays as it hangs</dt>
      <dd>{{ ml(report.trapped) }} ml</dd>
    </dl>
    <p class="soft small mt-2 mb-1">To empty it, hold it in turn:</p>
    <ol class="routine">
      <li v-for="r in rows" :key="r.n">
        <button class="btn btn-sm btn-quiet" @click="show(r.down)">{{ r.words }}</button>
        <span class="soft ms-2">{{ ml(r.left) }} ml left</span>
      </li>
    </ol>
    <button class="btn btn-sm btn-quiet" :disabled="!viewport.quaternion" @click="viewport.quaternion = null">
      Stand it up again
    </button>
    <p class="soft small mt-2 mb-0">
      Nitrile gloves, eye protection, ventilation. Nothing down the drain: the resin’s safety data sheet and local rules
      say where it goes.
    </p>
  </section>
</template>

<style scoped>
.routine {
  padding-left: 20px;
  margin-bottom: 6px;
}
.routine li {
  margin-bottom: 4px;
}
</style>
