<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { ref, watch } from 'vue'
import { RouterLink } from 'vue-router'
import { z } from 'zod'
import type { Mark, PlateRecord } from '../../../contract/runs'
import type { PartRecord } from '../../../contract/pieces'
import type { Cause } from '../../../core/print/failure/cause'
import { api } from '../../api'
import { usePiece } from '../../stores/piece'
import { useRuns } from '../../stores/runs'
import { useOneChange } from './useOneChange'
import FaultNote from '../../shell/FaultNote.vue'

/** What most likely did it, by what was computed before; the one change that follows from the first. */
const props = defineProps<{ plate: PlateRecord; mark: Mark; part: PartRecord | null }>()
const piece = usePiece(),
  runs = useRuns()
const { make, canDo, done, fault } = useOneChange()
const causes = ref<Cause[]>([])
const schema = z.array(
  z.object({
    kind: z.string(),
    weight: z.number(),
    sentence: z.string(),
    words: z.string(),
    change: z.record(z.string(), z.unknown()),
  }),
)
watch(
  () => [props.mark.id, props.mark.kind, props.plate.version],
  async () => {
    const list = await api(schema, 'POST', `/plates/${props.plate.id}/causes`, props.mark).catch(() => [])
    causes.value = list as unknown as Cause[]
  },
  { immediate: true },
)
const stage = (c: Cause): 'stand' | 'core' => (c.change.kind === 'vent' ? 'core' : 'stand')
</script>

<template>
  <div class="causes">
    <ol>
      <li v-for="(c, i) in causes.slice(0, 3)" :key="c.kind" :class="{ first: i === 0 }" :data-cause="c.kind">
        <span
          class="weight"
          :style="{ '--share': c.weight }"
          :title="$t('print.causeList.ofTheWeightOf', { round: Math.round(100 * c.weight) })"
        />
        <span>{{ c.sentence }}</span>
        <div v-if="i === 0" class="mt-1">
          <b>{{ c.words }}</b>
          <BButton
            v-if="canDo(c.change)"
            variant="primary"
            size="sm"
            class="ms-2"
            @click="make(c.change, part, runs.runOf(plate).resinId)"
          >
            {{ $t('print.causeList.changeIt') }}
          </BButton>
          <RouterLink
            v-else-if="c.change.kind !== 'none'"
            class="ms-2"
            :to="`/pieces/${piece.piece!.id}/${stage(c)}`"
            >{{ $t('print.causeList.open') }}</RouterLink
          >
        </div>
      </li>
    </ol>
    <p v-if="done" role="status" class="soft small mb-0">{{ done }}</p>
    <FaultNote :text="fault" />
  </div>
</template>

<style scoped>
ol {
  list-style: none;
  padding: 0;
  margin: 4px 0;
}
li {
  font-size: 0.9rem;
  padding: 4px 0 4px 14px;
  position: relative;
  color: var(--ink-soft);
}
li.first {
  color: inherit;
}
.weight {
  position: absolute;
  left: 0;
  top: 8px;
  bottom: 8px;
  width: 5px;
  border-radius: 2px;
  background: linear-gradient(to top, var(--action) calc(100% * var(--share)), var(--paper-sunk) 0);
}
</style>
