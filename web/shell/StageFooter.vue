<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink } from 'vue-router'
import { measuredOf } from '../../core/findings/judge'
import { PIECE_STAGES, type PieceStage } from '../../core/stages'
import { text } from '../i18n'
import { useStages } from '../composables/useStages'
import { useFindings } from '../stores/findings'

/** The foot of a stage: what is still open here, and the way to the next one. */
const props = defineProps<{ pieceId: string; stage: PieceStage }>()
const stages = useStages(),
  found = useFindings()
const entries = computed(() => stages.value.flatMap((l) => l.entries))
const here = computed(() => entries.value.find((k) => k.name === props.stage))
const next = computed(() => {
  const name = PIECE_STAGES[PIECE_STAGES.indexOf(props.stage) + 1]
  return entries.value.find((k) => k.name === name) ?? null
})
const open = computed(() => {
  const { problems = 0, warnings = 0 } = here.value ?? {}
  if (problems + warnings > 0)
    return text('shell.stageFooter.open', { problems, warnings, both: problems > 0 && warnings > 0 })
  const { measured, of } = measuredOf(found.byStage[props.stage])
  return measured < of ? text('shell.stageFooter.notChecked', { open: of - measured }) : ''
})
</script>

<template>
  <footer class="stage-foot">
    <span class="soft small">{{ open }}</span>
    <RouterLink v-if="next" class="btn btn-quiet btn-sm" :to="`/pieces/${pieceId}/${next.name}`">{{
      $t('shell.stageFooter.next', { stage: next.title })
    }}</RouterLink>
  </footer>
</template>

<style scoped>
.stage-foot {
  position: sticky;
  bottom: 0;
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
  margin: 0 -16px;
  padding: 8px 16px;
  background: var(--paper-raised);
  border-top: 1px solid var(--line);
  z-index: 2;
}
</style>
