<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed } from 'vue'
import { X } from 'lucide-vue-next'
import type { OperationRecord } from '../../contract/operations'
import { usePiece } from '../stores/piece'
import { labelOf } from '../../core/operations/registry'
import { say } from '../../core/words/say'
import { manner } from '../manner'

/** What was done to the part on the table, in order, each to be taken back alone. */
const props = defineProps<{ kinds: readonly OperationRecord['kind'][] }>()
const store = usePiece()
const steps = computed(() =>
  (store.part?.steps ?? []).map((s, index) => ({ ...s, index })).filter((s) => props.kinds.includes(s.op.kind)),
)
</script>

<template>
  <section v-if="steps.length > 0" class="mb-3">
    <h3 class="mb-1">{{ $t('shell.stepList.operationsOn', { name: store.part?.name }) }}</h3>
    <ol class="steps">
      <li v-for="s in steps" :key="s.index">
        <span
          >{{ say(labelOf(s.op), manner)
          }}<span v-if="s.derivation?.status === 'failed'" class="failed" role="alert"
            >: {{ s.derivation.problem?.message }}</span
          ></span
        >
        <BButton
          variant="quiet"
          size="sm"
          :aria-label="$t('shell.stepList.remove', { op: say(labelOf(s.op), manner) })"
          :title="$t('shell.stepList.removeThisOperation')"
          @click="store.removeAt(s.index)"
        >
          <X :size="14" aria-hidden="true" />
        </BButton>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.steps {
  margin: 0;
  padding-left: 1.3em;
}
.steps li > span:first-child {
  display: inline-block;
  width: calc(100% - 34px);
}
.failed {
  color: var(--problem);
}
</style>
