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
  rebuild: text('shell.jobStrip.rebuildingTheSkin'),
  calibrate: text('shell.jobStrip.calibrating'),
  smooth: text('shell.jobStrip.smoothing'),
  simplify: text('shell.jobStrip.takingFacesOff'),
  pose: text('shell.jobStrip.bendingTheSkin'),
  inward: text('shell.jobStrip.findingTheMiddle'),
  measures: text('shell.jobStrip.measuring'),
  place: text('shell.jobStrip.placing'),
  join: text('shell.jobStrip.joining'),
  cut: text('shell.jobStrip.cutting'),
  fix: text('shell.jobStrip.settingKeysAndPins'),
  floor: text('shell.jobStrip.lookingForTheFloor'),
  scan: text('shell.jobStrip.scanning'),
  fit: text('shell.jobStrip.measuringTheFit'),
  gapMap: text('shell.jobStrip.mappingTheGap'),
  difference: text('shell.jobStrip.comparing'),
  balance: text('shell.jobStrip.weighing'),
  keySites: text('shell.jobStrip.lookingForRoomFor'),
  nameplate: text('shell.jobStrip.lettering'),
  thicken: text('shell.jobStrip.thickening'),
  channel: text('shell.jobStrip.boringTheChannel'),
  bay: text('shell.jobStrip.makingTheBatteryBay'),
  thicknessMap: text('shell.jobStrip.mappingTheThickness'),
  detail: text('shell.jobStrip.weighingTheDetail'),
  detailMap: text('shell.jobStrip.mappingTheDetail'),
  stretchMap: text('shell.jobStrip.mappingTheStretch'),
  restingPlaces: text('shell.jobStrip.followingTheRegions'),
  axis: text('shell.jobStrip.findingTheAxis'),
  skinLine: text('shell.jobStrip.drawingTheLineTaut'),
  cutPlanes: text('shell.jobStrip.tryingCuts'),
  lightRoute: text('shell.jobStrip.lookingForAWay'),
  rest: text('shell.jobStrip.settingItDown'),
  scale: text('shell.jobStrip.scaling'),
  hollow: text('shell.jobStrip.hollowing'),
  drill: text('shell.jobStrip.drilling'),
  orient: text('shell.jobStrip.standingItUp'),
  support: text('shell.jobStrip.growingSupports'),
  focal: text('shell.jobStrip.notingWhatIsTo'),
  coveredDabs: text('shell.jobStrip.findingWhatJointsCover'),
  presupported: text('shell.jobStrip.lookingForSupportsIn'),
  stepsMap: text('shell.jobStrip.mappingTheSteps'),
  plug: text('shell.jobStrip.makingAPlug'),
  guide: text('shell.jobStrip.makingADrillingGuide'),
  holeNear: text('shell.jobStrip.feelingForTheCavity'),
  drainSites: text('shell.jobStrip.lookingForPlacesTo'),
  ventSite: text('shell.jobStrip.lookingForAVent'),
  orientations: text('shell.jobStrip.tryingWaysUp'),
  wallLoad: text('shell.jobStrip.findingWhatItsWalls'),
  coreChoices: text('shell.jobStrip.weighingSolidAgainstHollow'),
  trapped: text('shell.jobStrip.drainingIt'),
  rinse: text('shell.jobStrip.rinsingIt'),
  thinness: text('shell.jobStrip.feelingForThinSpots'),
  layers: text('shell.jobStrip.readingTheLayers'),
  archive: text('shell.jobStrip.readingLayers'),
  slice: text('shell.jobStrip.slicing'),
  nest: text('shell.jobStrip.nestingThePlates'),
  plate: text('shell.jobStrip.settingUpThePlate'),
  export: text('shell.jobStrip.writingTheFile'),
  outlines: text('shell.jobStrip.writingTheOutlines'),
  cusps: text('shell.jobStrip.measuringTheLayersSteps'),
  access: text('shell.jobStrip.lookingWhatABrush'),
  surfaceMaps: text('shell.jobStrip.mappingTheSurface'),
}
const jobs = computed(() => derivations.busy.filter((d) => d.kind !== 'display'))
</script>

<template>
  <footer v-if="jobs.length > 0" class="strip" role="status">
    <div v-for="d in jobs.slice(0, 3)" :key="d.key" class="job">
      <span>{{ WORDS[d.kind] ?? d.kind }}</span>
      <BProgress class="bar" :value="d.progress" :max="1" :aria-label="WORDS[d.kind] ?? d.kind" />
      <span class="num soft percent">{{
        d.status === 'waiting' ? $t('shell.jobStrip.waits') : `${Math.round(d.progress * 100)} %`
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
