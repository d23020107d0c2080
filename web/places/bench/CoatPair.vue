<script setup lang="ts">
import type { PlanStepRecord } from '../../../contract/plan'
import { useCoatPictures } from '../../composables/useCoatPictures'

/** The region before and after the coat of a step, where it lays one. */
const props = defineProps<{ step: PlanStepRecord; steps: readonly PlanStepRecord[] }>()
const pictures = useCoatPictures(
  () => props.step,
  () => props.steps,
)
</script>

<template>
  <div v-if="pictures" class="pictures">
    <figure v-for="(url, when) in pictures" :key="when">
      <img :src="url" :alt="$t('bench.coatPair.theRegionThisCoat', { when })" />
      <figcaption>{{ when }}</figcaption>
    </figure>
  </div>
</template>

<style scoped>
.pictures {
  position: absolute;
  right: 0;
  top: 50%;
  transform: translateY(-50%);
  display: flex;
  gap: 12px;
}
figure {
  margin: 0;
  text-align: center;
  font-size: 1.2rem;
}
img {
  background: var(--picture-ground);
  border-radius: 8px;
  width: 216px;
}
@media (max-width: 1100px) {
  .pictures {
    position: static;
    transform: none;
  }
}
</style>
