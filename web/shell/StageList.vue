<script setup lang="ts">
import { BBadge } from 'bootstrap-vue-next/components/BBadge'
import { BLink } from 'bootstrap-vue-next/components/BLink'
import { RouterLink, useRoute } from 'vue-router'
import { text } from '../i18n'
import { useStages, type StageEntry } from '../composables/useStages'

const props = defineProps<{ pieceId: string }>()
const stages = useStages()
const route = useRoute()
const WORD: Record<StageEntry['state'], string> = {
  done: text('shell.stageList.done'),
  open: text('shell.stageList.open'),
  stale: text('shell.stageList.needsAttention'),
  waiting: text('shell.stageList.computing'),
}
</script>

<template>
  <nav class="list" :aria-label="$t('shell.stageList.stages')">
    <div class="scroll stages">
      <template v-for="l in stages" :key="l.length">
        <h3 class="length">{{ l.length }}</h3>
        <RouterLink
          v-for="k in l.entries"
          :key="k.name"
          :to="`/pieces/${props.pieceId}/${k.name}`"
          class="stage"
          :class="[k.state, { here: route.name === k.name }]"
        >
          <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true">
            <circle
              v-if="k.state === 'open'"
              cx="8"
              cy="8"
              r="5"
              fill="none"
              stroke="currentColor"
              stroke-width="1.6"
            />
            <circle v-else-if="k.state === 'done'" cx="8" cy="8" r="6" fill="currentColor" />
            <path
              v-else-if="k.state === 'waiting'"
              d="M8 2a6 6 0 0 1 0 12z M8 2a6 6 0 0 0 0 12"
              fill="currentColor"
              fill-opacity=".9"
              stroke="currentColor"
            />
            <path v-else d="M8 1.500 15 14H1z" fill="currentColor" />
          </svg>
          <span class="text"
            ><span class="title">{{ k.title }}</span
            ><span class="measure">{{ k.measure || WORD[k.state] }}</span></span
          >
          <BBadge
            v-if="k.problems + k.warnings > 0"
            class="count"
            :variant="k.problems > 0 ? 'danger' : 'warning'"
            :pill="k.problems === 0"
            :title="$t('shell.stageList.problemsWarnings', { problems: k.problems, warnings: k.warnings })"
            >{{ k.problems || k.warnings
            }}<span class="visually-hidden">{{
              k.problems > 0 ? $t('shell.stageList.problems') : $t('shell.stageList.warnings')
            }}</span></BBadge
          >
          <span class="visually-hidden">{{ WORD[k.state] }}</span>
        </RouterLink>
      </template>
    </div>
    <BLink :to="`/pieces/${props.pieceId}/bench`" class="btn btn-primary w-100">{{
      $t('shell.stageList.benchMode')
    }}</BLink>
  </nav>
</template>

<style scoped>
.list {
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 4px 12px 10px;
  height: 100%;
  min-height: 0;
  background: var(--paper-raised);
  border-right: 1px solid var(--line);
}
.stages {
  flex: 1;
  min-height: 0;
}
.length {
  font-size: 0.8rem;
  color: var(--ink-soft);
  font-weight: 550;
  margin: 12px 0 4px 30px;
}
.stage {
  position: relative;
  display: grid;
  grid-template-columns: 18px 1fr auto;
  gap: 10px;
  align-items: center;
  padding: 5px 6px;
  border-radius: 5px;
  text-decoration: none;
  color: inherit;
}
.stage::before {
  content: '';
  position: absolute;
  left: 14px;
  top: -9px;
  height: 18px;
  width: 1px;
  background: var(--line);
}
.length + .stage::before {
  display: none;
}
.stage svg {
  position: relative;
  color: var(--ink-soft);
  background: var(--paper-raised);
  border-radius: 8px;
}
.stage.done svg {
  color: var(--fine);
}
.stage.stale svg {
  color: var(--warning);
}
.stage.waiting svg {
  color: var(--action);
}
.stage.here {
  background: var(--paper-sunk);
}
.stage.here svg {
  background: transparent;
}
/* Square for problems, round for warnings: told apart without colour. */
.count {
  min-width: 20px;
}
.text {
  display: flex;
  flex-direction: column;
  line-height: 1.2;
  min-width: 0;
}
.title {
  font-weight: 560;
}
.here .title {
  font-weight: 700;
}
.measure {
  font-size: 0.82rem;
  color: var(--ink-soft);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
