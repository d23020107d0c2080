<script setup lang="ts">
import { BAlert } from 'bootstrap-vue-next/components/BAlert'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed } from 'vue'
import { RouterLink } from 'vue-router'
import { PIECE_STAGES, type PieceStage } from '../../core/stages'
import { hasNoBody } from '../../core/operations/failed'
import { labelOf, operationOf } from '../../core/operations/registry'
import { say } from '../../core/words/say'
import { text } from '../i18n'
import { manner } from '../manner'
import { usePiece } from '../stores/piece'

/**
 * Operations of the part on the table that failed, from the stage where they were made onward: why, what is shown in their
 * place, and how one goes on.
 */
const props = defineProps<{ stage: PieceStage }>()
const store = usePiece()
const here = computed(() => PIECE_STAGES.indexOf(props.stage))
const failed = computed(() =>
  store.failed.flatMap(({ op, index, derivation }) => {
    const { stage } = operationOf(op.kind)!
    if (PIECE_STAGES.indexOf(stage) > here.value) return []
    return [
      {
        index,
        stage,
        label: say(labelOf(op), manner),
        why: derivation?.problem?.message ?? '',
        then: hasNoBody([op.kind])
          ? text('shell.failedSteps.nothingFollows')
          : text('shell.failedSteps.shownWithout', { part: store.part?.name }),
      },
    ]
  }),
)
</script>

<template>
  <BAlert
    v-for="f in failed"
    :key="f.index"
    :model-value="true"
    variant="danger"
    class="py-2 px-3"
    :data-failed="f.stage"
  >
    <strong>{{ $t('shell.failedSteps.failed', { operation: f.label }) }}</strong> {{ f.why }}
    <p class="small mt-1 mb-2">{{ f.then }}</p>
    <div class="d-flex gap-2">
      <BButton variant="light" size="sm" @click="store.removeAt(f.index)">{{
        $t('shell.failedSteps.removeIt')
      }}</BButton>
      <RouterLink v-if="props.stage !== f.stage" class="btn btn-light btn-sm" :to="f.stage">{{
        $t('shell.failedSteps.changeIt')
      }}</RouterLink>
    </div>
  </BAlert>
</template>
