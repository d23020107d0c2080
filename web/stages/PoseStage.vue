<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref } from 'vue'
import { text, fixed } from '../i18n'
import { figure } from '../manner'
import { missing } from '../../core/findings/facts'
import { judge } from '../../core/findings/judge'
import { mirroredPose } from '../../core/pose/mirror'
import { useAttempt } from '../composables/useAttempt'
import { usePosePreview } from '../composables/usePosePreview'
import { useSurfaceMap } from '../composables/useSurfaceMap'
import FindingList from '../shell/FindingList.vue'
import StepList from '../shell/StepList.vue'
import { useAssembly } from '../stores/assembly'
import { useFindings } from '../stores/findings'
import { usePiece } from '../stores/piece'
import MapLegend from '../viewport/MapLegend.vue'
import { useViewport } from '../viewport/useViewport'
import PoseLibrary from './pose/PoseLibrary.vue'
import ReferencePanel from './pose/ReferencePanel.vue'
import SkinPanel from './pose/SkinPanel.vue'
import TurnPanel from './pose/TurnPanel.vue'
import { useJointSetting } from './pose/useJointSetting'
import { usePosing } from './pose/usePosing'
import FaultNote from '../shell/FaultNote.vue'

/** Joints set on the sculpt, turned, and what that does to the skin and to how it stands. */
const store = usePiece(),
  found = useFindings(),
  viewport = useViewport(),
  assembly = useAssembly()
const posing = usePosing()
const { joints, chosen, rigid, paint, changed, kept } = posing
const source = computed(() => store.meshBefore('pose'))
const { setting, begin, askNext, stop } = useJointSetting(posing, () => source.value)
const report = computed(() => store.report('pose')?.pose ?? null)
// What is kept is shown as it was computed in full; what is being tried, as a preview of the sculpt before the pose.
const brushing = ref<InstanceType<typeof SkinPanel> | null>(null)
const trying = computed(
  () => kept.value === null || changed.value || setting.value !== 'nothing' || (brushing.value?.brushing ?? false),
)
const preview = usePosePreview(
  () =>
    trying.value && setting.value === 'nothing' && !rigid.value && !brushing.value?.brushing
      ? { joints: joints.value, paint: paint.value }
      : null,
  () => store.part,
)
const judged = computed(() =>
  changed.value ? judge('pose', { pose: missing(text('stages.poseStage.thePoseToBe')) }) : found.byStage.pose,
)
const shownMesh = computed(() => (trying.value ? source.value : store.meshAfter('pose')))
viewport.describe(() => ({ mesh: shownMesh.value }))
viewport.describe(() => {
  const size = Math.max(1.2, (store.report('pose')?.measures.size[2] ?? 100) / 90)
  const at = setting.value === 'nothing' ? posing.bent.value : joints.value.map((j) => j.position)
  const markers = [
    ...at.map((point, i) => ({
      point,
      kind: i === chosen.value ? ('hand' as const) : posing.isHeld(i) ? ('note' as const) : ('hole' as const),
      radius: size,
      over: true,
    })),
    ...judged.value.findings.flatMap((f) => f.places.map((point) => ({ point, kind: f.level }))),
  ]
  return { markers }
})
const { fault, busy, attempt } = useAttempt()
const keep = (): Promise<void> =>
  attempt(() =>
    store.tryOut({
      kind: 'pose',
      joints: joints.value,
      rigid: rigid.value ? chosen.value : null,
      paint: paint.value,
    }),
  )
const stretched = ref(false)
const posed = computed(() => (changed.value ? null : store.meshAfter('pose')))
const { scale, problem } = useSurfaceMap(() =>
  stretched.value && posed.value && source.value && shownMesh.value === posed.value
    ? {
        check: { kind: 'stretchMap', others: [posed.value, source.value] },
        scale: () => ({ kind: 'sides', from: 0.6, to: 1.4 }),
      }
    : null,
)
const tips = computed(() => (changed.value ? preview.tip.value : (assembly.balance?.weakest.angle ?? null)))
</script>

<template>
  <template v-if="store.part">
    <FindingList :judged="judged" :fixes="{}" @show="viewport.show" />
    <p v-if="tips !== null" class="mb-2">
      <span class="figure-sm">{{ tips < 0 ? $t('stages.poseStage.tipsOver') : `${figure(tips, 0)}°` }}</span>
      <span class="soft ms-1">
        {{ tips < 0 ? $t('stages.poseStage.asItStandsNow') : $t('stages.poseStage.untilItTipsOver')
        }}{{ changed ? $t('stages.poseStage.whileYouPoseIt') : '' }}</span
      >
    </p>
    <section v-if="report && !changed" class="sheet p-3 mb-3">
      <h3>{{ $t('stages.poseStage.afterPosing') }}</h3>
      <dl class="facts mt-1">
        <dt>{{ $t('stages.poseStage.facesTurnedOver') }}</dt>
        <dd>{{ report.flipped }}</dd>
        <dt>{{ $t('stages.poseStage.changeOfVolume') }}</dt>
        <dd>{{ figure(100 * report.volumeChange, 2) }} %</dd>
        <template v-for="j in report.joints" :key="j.name">
          <dt>{{ j.name }}, {{ figure(j.turned, 0) }}°</dt>
          <dd>{{ $t('stages.poseStage.stretched', { stretch: fixed(j.stretch, 2) }) }}</dd>
        </template>
      </dl>
      <BButton variant="quiet" size="sm" class="mt-1" :aria-pressed="stretched" @click="stretched = !stretched">
        {{ stretched ? $t('stages.poseStage.hideTheStretch') : $t('stages.poseStage.mapTheStretch') }}
      </BButton>
      <FaultNote :text="problem" />
    </section>
    <section class="mb-3">
      <h2 class="mb-2">{{ $t('stages.poseStage.joints') }}</h2>
      <div v-if="setting === 'nothing'" class="d-flex gap-1 flex-wrap mb-2">
        <BButton variant="quiet" size="sm" @click="begin('figure')">{{
          $t('stages.poseStage.landmarksOfAFigure')
        }}</BButton>
        <BButton variant="quiet" size="sm" @click="begin('free')">
          {{ joints.length > 0 ? $t('stages.poseStage.addJoints') : $t('stages.poseStage.chainOfJoints') }}
        </BButton>
      </div>
      <div v-else class="d-flex gap-1 mb-2">
        <BButton v-if="setting === 'figure'" variant="quiet" size="sm" @click="askNext">{{
          $t('stages.poseStage.notOnThisSculpt')
        }}</BButton>
        <BButton variant="primary" size="sm" @click="stop">{{ $t('stages.poseStage.doneAdding') }}</BButton>
      </div>
      <div v-if="joints.length > 0" class="joints scroll">
        <div v-for="(j, i) in joints" :key="i" class="joint" :class="{ here: i === chosen }">
          <BButton variant="card" class="name" :aria-pressed="i === chosen" @click="chosen = i">
            {{ j.name
            }}<span v-if="j.parent >= 0" class="soft"
              >{{ ' ' }}{{ $t('stages.poseStage.on', { name: joints[j.parent]?.name }) }}</span
            ><span v-if="posing.isHeld(i)" class="held">{{ $t('stages.poseStage.held') }}</span>
          </BButton>
          <BButton
            variant="quiet"
            size="sm"
            :aria-label="$t('stages.poseStage.remove', { name: j.name })"
            @click="posing.drop(i)"
            >×</BButton
          >
        </div>
      </div>
      <p v-else class="soft small">
        {{ $t('stages.poseStage.clickTheJointsOn') }}
      </p>
    </section>
    <section v-if="joints.length > 1 && setting === 'nothing'" class="mb-3">
      <TurnPanel :posing="posing" />
      <div class="d-flex flex-wrap gap-1">
        <BButton variant="primary" size="sm" :disabled="busy || !changed" @click="keep">
          {{ busy ? $t('stages.poseStage.bending') : $t('stages.poseStage.applyPose') }}
        </BButton>
        <BButton v-if="changed" variant="quiet" size="sm" @click="posing.reset()">{{
          $t('stages.poseStage.cancel')
        }}</BButton>
        <BButton variant="quiet" size="sm" @click="joints = mirroredPose(joints)">{{
          $t('stages.poseStage.mirrorThePose')
        }}</BButton>
      </div>
      <FaultNote :text="fault" />
      <PoseLibrary :posing="posing" />
      <SkinPanel ref="brushing" :posing="posing" class="mt-3" />
    </section>
    <ReferencePanel />
    <StepList :kinds="['pose']" />
  </template>
  <p v-else class="soft">{{ $t('stages.poseStage.addASculptUnder') }}</p>
  <Teleport v-if="scale" to="#middle">
    <MapLegend :title="$t('stages.poseStage.stretchedTo')" :scale="scale" unit="×" />
  </Teleport>
</template>

<style scoped>
.joints {
  max-height: 190px;
  border: 1px solid var(--line);
  border-radius: 4px;
}
.joint {
  display: flex;
  align-items: center;
  padding: 0 4px 0 0;
}
.joint.here {
  background: var(--paper-sunk);
}
.name {
  flex: 1;
  text-align: left;
  border: 0;
  background: none;
  padding: 5px 9px;
}
.held {
  margin-left: 6px;
  font-size: 0.76rem;
  border: 1px solid var(--note);
  color: var(--note);
  border-radius: 3px;
  padding: 0 4px;
}
</style>
