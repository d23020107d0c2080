<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
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
</script>

<template>
  <footer v-if="jobs.length > 0" class="strip" role="status">
    <div v-for="d in jobs.slice(0, 3)" :key="d.key" class="job">
      <span>{{ WORDS[d.kind] ?? d.kind }}</span>
      <BProgress class="bar" :value="d.progress" :max="1" :aria-label="WORDS[d.kind] ?? d.kind" />
      <span class="num soft percent">{{
        d.status === 'waiting' ? $t('shell.jobStrip.waiting') : `${Math.round(d.progress * 100)} %`
      }}</span>
      <BButton variant="quiet" size="sm" @click="derivations.cancel(d.key)">{{ $t('shell.jobStrip.cancel') }}</BButton>
    </div>
    <span v-if="jobs.length > 3" class="soft">{{ $t('shell.jobStrip.andMore', { jobs: jobs.length - 3 }) }}</span>
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
}
.percent {
  min-width: 3.2rem;
  white-space: nowrap;
}
</style>
