<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { BDropdown } from 'bootstrap-vue-next/components/BDropdown'
import { BProgress } from 'bootstrap-vue-next/components/BProgress'
import { computed } from 'vue'
import { text } from '../i18n'
import { useDerivations } from '../stores/derivations'

const derivations = useDerivations()
const WORDS: Record<string, string> = {
  import: text('shell.jobStrip.readingTheFile'),
  health: text('shell.jobStrip.checkingTheMesh'),
  display: text('shell.jobStrip.preparingTheView'),
  repair: text('shell.jobStrip.repairing'),
  base: text('shell.jobStrip.makingTheBase'),
  trim: text('shell.jobStrip.trimming'),
  surface: text('shell.jobStrip.makingASurfaceOf'),
  rebuild: text('shell.jobStrip.rebuildingTheSurface'),
  calibrate: text('shell.jobStrip.calibrating'),
  smooth: text('shell.jobStrip.smoothing'),
  simplify: text('shell.jobStrip.reducingFaces'),
  pose: text('shell.jobStrip.bendingTheSurface'),
  inward: text('shell.jobStrip.findingTheMiddle'),
  measures: text('shell.jobStrip.measuring'),
  place: text('shell.jobStrip.placing'),
  join: text('shell.jobStrip.joining'),
  cut: text('shell.jobStrip.cutting'),
  fix: text('shell.jobStrip.settingKeysAndPins'),
  floor: text('shell.jobStrip.findingTheFloor'),
  scan: text('shell.jobStrip.scanning'),
  fit: text('shell.jobStrip.measuringTheFit'),
  gapMap: text('shell.jobStrip.mappingTheGap'),
  difference: text('shell.jobStrip.comparing'),
  balance: text('shell.jobStrip.calculatingTheBalance'),
  keySites: text('shell.jobStrip.findingRoomForKeys'),
  nameplate: text('shell.jobStrip.makingTheLetters'),
  thicken: text('shell.jobStrip.thickening'),
  channel: text('shell.jobStrip.boringTheChannel'),
  bay: text('shell.jobStrip.makingTheBatteryBay'),
  thicknessMap: text('shell.jobStrip.mappingTheThickness'),
  detail: text('shell.jobStrip.measuringTheDetail'),
  detailMap: text('shell.jobStrip.mappingTheDetail'),
  stretchMap: text('shell.jobStrip.mappingTheStretch'),
  restingPlaces: text('shell.jobStrip.transferringTheRegions'),
  axis: text('shell.jobStrip.findingTheAxis'),
  skinLine: text('shell.jobStrip.findingTheShortestLine'),
  cutPlanes: text('shell.jobStrip.tryingCuts'),
  lightRoute: text('shell.jobStrip.findingAPathFor'),
  rest: text('shell.jobStrip.puttingItDown'),
  scale: text('shell.jobStrip.scaling'),
  hollow: text('shell.jobStrip.hollowing'),
  drill: text('shell.jobStrip.drilling'),
  orient: text('shell.jobStrip.orienting'),
  support: text('shell.jobStrip.generatingSupports'),
  focal: text('shell.jobStrip.markingWhatMustStay'),
  coveredDabs: text('shell.jobStrip.findingWhatJointsCover'),
  presupported: text('shell.jobStrip.findingSupportsInThe'),
  stepsMap: text('shell.jobStrip.mappingLayerSteps'),
  plug: text('shell.jobStrip.makingAPlug'),
  guide: text('shell.jobStrip.makingADrillingGuide'),
  holeNear: text('shell.jobStrip.measuringTheWall'),
  drainSites: text('shell.jobStrip.findingPlacesForHoles'),
  ventSite: text('shell.jobStrip.findingAVent'),
  orientations: text('shell.jobStrip.tryingOrientations'),
  wallLoad: text('shell.jobStrip.calculatingTheLoadOn'),
  coreChoices: text('shell.jobStrip.comparingSolidWithHollow'),
  trapped: text('shell.jobStrip.simulatingDraining'),
  rinse: text('shell.jobStrip.simulatingRinsing'),
  thinness: text('shell.jobStrip.findingThinSpots'),
  layers: text('shell.jobStrip.readingTheLayers'),
  archive: text('shell.jobStrip.readingLayers'),
  slice: text('shell.jobStrip.slicing'),
  nest: text('shell.jobStrip.nestingThePlates'),
  plate: text('shell.jobStrip.preparingThePlate'),
  export: text('shell.jobStrip.writingTheFile'),
  outlines: text('shell.jobStrip.writingTheOutlines'),
  cusps: text('shell.jobStrip.measuringTheLayersSteps'),
  access: text('shell.jobStrip.calculatingWhatABrush'),
  surfaceMaps: text('shell.jobStrip.analysingTheSurface'),
}
const jobs = computed(() => derivations.busy.filter((d) => d.kind !== 'display'))
/** What runs before what waits. */
const first = computed(() => jobs.value.find((d) => d.status === 'running') ?? jobs.value[0] ?? null)
type Job = (typeof jobs.value)[number]
const others = computed(() => jobs.value.filter((d) => d !== first.value))
const nameOf = (d: Job): string => WORDS[d.kind] ?? d.kind
const farOf = (d: Job): string =>
  d.status === 'waiting' ? text('shell.jobStrip.waiting') : `${Math.round(d.progress * 100)} %`
</script>

<template>
  <!-- Over the foot of the page: nothing under a hand moves when a job begins or ends. -->
  <div v-if="first" class="job-strip" role="status">
    <span class="what text-truncate">{{ nameOf(first) }}</span>
    <BProgress class="bar" :value="first.progress" :max="1" :aria-label="nameOf(first)" />
    <span class="num soft percent">{{ farOf(first) }}</span>
    <BButton variant="quiet" size="sm" @click="derivations.cancel(first.key)">{{
      $t('shell.jobStrip.cancel')
    }}</BButton>
    <BDropdown v-if="others.length > 0" size="sm" variant="quiet">
      <template #button-content>{{ $t('shell.jobStrip.andMore', { jobs: others.length }) }}</template>
      <li v-for="d in others" :key="d.key" class="job">
        <span class="what text-truncate">{{ nameOf(d) }}</span>
        <span class="num soft percent">{{ farOf(d) }}</span>
        <BButton variant="quiet" size="sm" @click="derivations.cancel(d.key)">{{
          $t('shell.jobStrip.cancel')
        }}</BButton>
      </li>
    </BDropdown>
  </div>
</template>

<style scoped>
.job-strip {
  position: fixed;
  /* The middle between the list of stages and the panel at the right. */
  left: calc(50vw - 76px);
  bottom: 10px;
  transform: translateX(-50%);
  display: flex;
  gap: 9px;
  align-items: center;
  padding: 4px 8px 4px 14px;
  font-size: 0.88rem;
  background: var(--paper-raised);
  border: 1px solid var(--line);
  border-radius: 6px;
  z-index: 15;
}
.what {
  max-width: 190px;
}
.bar {
  width: 90px;
  height: 6px;
  flex: none;
}
.percent {
  min-width: 3.2rem;
  white-space: nowrap;
}
.job {
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 9px;
  align-items: center;
  min-width: 290px;
  padding: 3px 12px;
}
@media (max-width: 1200px) {
  .bar {
    display: none;
  }
}
</style>
