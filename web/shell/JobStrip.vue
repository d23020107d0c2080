<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed } from 'vue'
import { useDerivations } from '../stores/derivations'

const derivations = useDerivations()
const WORDS: Record<string, string> = {
  import: 'reading the file',
  health: 'checking the mesh',
  display: 'preparing the view',
  repair: 'repairing',
  base: 'making the base',
  trim: 'trimming',
  surface: 'making a surface of the points',
  rebuild: 'rebuilding the skin',
  calibrate: 'calibrating',
  smooth: 'smoothing',
  simplify: 'taking faces off',
  pose: 'bending the skin',
  inward: 'finding the middle',
  measures: 'measuring',
  place: 'placing',
  join: 'joining',
  cut: 'cutting',
  fix: 'setting keys and pins',
  floor: 'looking for the floor',
  scan: 'scanning',
  fit: 'measuring the fit',
  gapMap: 'mapping the gap',
  difference: 'comparing',
  balance: 'weighing',
  keySites: 'looking for room for keys',
  nameplate: 'lettering',
  thicken: 'thickening',
  channel: 'boring the channel',
  bay: 'making the battery bay',
  thicknessMap: 'mapping the thickness',
  detail: 'weighing the detail',
  detailMap: 'mapping the detail',
  stretchMap: 'mapping the stretch',
  restingPlaces: 'following the regions',
  axis: 'finding the axis',
  skinLine: 'drawing the line taut',
  cutPlanes: 'trying cuts',
  lightRoute: 'looking for a way for the light',
  rest: 'setting it down',
  scale: 'scaling',
  hollow: 'hollowing',
  drill: 'drilling',
  orient: 'standing it up',
  support: 'growing supports',
  focal: 'noting what is to stay clean',
  coveredDabs: 'finding what joints cover',
  presupported: 'looking for supports in it',
  stepsMap: 'mapping the steps',
  plug: 'making a plug',
  guide: 'making a drilling guide',
  holeNear: 'feeling for the cavity',
  drainSites: 'looking for places to drill',
  ventSite: 'looking for a vent',
  orientations: 'trying ways up',
  wallLoad: 'finding what its walls carry',
  coreChoices: 'weighing solid against hollow',
  trapped: 'draining it',
  rinse: 'rinsing it',
  thinness: 'feeling for thin spots',
  layers: 'reading the layers',
  archive: 'reading layers',
  slice: 'slicing',
  nest: 'nesting the plates',
  plate: 'setting up the plate',
  export: 'writing the file',
  outlines: 'writing the outlines',
  cusps: 'measuring the layers’ steps',
  access: 'looking what a brush reaches',
  surfaceMaps: 'mapping the surface',
}
const jobs = computed(() => derivations.busy.filter((d) => d.kind !== 'display'))
</script>

<template>
  <footer v-if="jobs.length > 0" class="strip" role="status">
    <div v-for="d in jobs.slice(0, 3)" :key="d.key" class="job">
      <span>{{ WORDS[d.kind] ?? d.kind }}</span>
      <span class="bar"><span :style="{ width: `${Math.round(d.progress * 100)}%` }" /></span>
      <span class="num soft percent">{{ d.status === 'waiting' ? 'waits' : `${Math.round(d.progress * 100)} %` }}</span>
      <BButton variant="quiet" size="sm" @click="derivations.cancel(d.key)">Cancel</BButton>
    </div>
    <span v-if="jobs.length > 3" class="soft">and {{ jobs.length - 3 }} more</span>
  </footer>
</template>

<style scoped>
.strip {
  display: flex;
  gap: 22px;
  align-items: center;
  padding: 5px 16px;
  background: var(--paper-sunk);
  border-top: 1px solid var(--line);
  font-size: 0.88rem;
}
.job {
  display: flex;
  gap: 9px;
  align-items: center;
}
.bar {
  width: 110px;
  height: 6px;
  background: #fff8;
  border-radius: 3px;
  overflow: hidden;
}
.bar span {
  display: block;
  height: 100%;
  background: var(--action);
  transition: width 0.25s;
}
.percent {
  min-width: 3.2rem;
  white-space: nowrap;
}
</style>
