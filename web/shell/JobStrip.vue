<script setup lang="ts">
import { computed } from 'vue'
import { useDerivations } from '../stores/derivations'

const derivations = useDerivations()
const WORDS: Record<string, string> = {
  import: 'reading the file', health: 'checking the mesh', display: 'preparing the view', repair: 'repairing', scale: 'scaling', hollow: 'hollowing', drill: 'drilling', orient: 'standing it up',
  support: 'growing supports', drainSites: 'looking for places to drill', orientations: 'trying ways up', thinness: 'feeling for thin spots', layers: 'reading the layers', slice: 'slicing', export: 'writing the file', surfaceMaps: 'mapping the surface',
}
const jobs = computed(() => derivations.busy.filter((d) => d.kind !== 'display'))
</script>

<template>
  <footer v-if="jobs.length > 0" class="strip" role="status">
    <div v-for="d in jobs.slice(0, 3)" :key="d.key" class="job">
      <span>{{ WORDS[d.kind] ?? d.kind }}</span>
      <span class="bar"><span :style="{ width: `${Math.round(d.progress * 100)}%` }" /></span>
      <span class="num soft percent">{{ d.status === 'waiting' ? 'waits' : `${Math.round(d.progress * 100)} %` }}</span>
      <button class="btn btn-sm btn-quiet" @click="derivations.cancel(d.key)">Cancel</button>
    </div>
    <span v-if="jobs.length > 3" class="soft">and {{ jobs.length - 3 }} more</span>
  </footer>
</template>

<style scoped>
.strip { display: flex; gap: 22px; align-items: center; padding: 5px 16px; background: var(--paper-sunk); border-top: 1px solid var(--line); font-size: 0.88rem; }
.job { display: flex; gap: 9px; align-items: center; }
.bar { width: 110px; height: 6px; background: #fff8; border-radius: 3px; overflow: hidden; }
.bar span { display: block; height: 100%; background: var(--action); transition: width 0.25s; }
.percent { min-width: 3.2rem; white-space: nowrap; }
</style>
