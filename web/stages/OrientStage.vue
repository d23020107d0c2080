<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { text } from '../i18n'
import { quaternionBetween } from '../../core/math/vectors'
import { orientedDabs } from '../../core/shape/orient'
import { usePrinterAndResin } from '../composables/usePrinterAndResin'
import { useScaling } from '../composables/useScaling'
import FindingList from '../shell/FindingList.vue'
import { doFix, type StageHandlers } from '../shell/fixHandlers'
import { useRequestedFix } from '../stores/requestedFix'
import { useDerivations } from '../stores/derivations'
import { useFindings } from '../stores/findings'
import { usePiece } from '../stores/piece'
import type { Picked } from '../viewport/scene'
import type { Quaternion } from '../viewport/sceneDescription'
import { useViewport } from '../viewport/useViewport'
import { provideStand, type Tool } from './orient/orientStage'
import SupportPanel from './orient/SupportPanel.vue'
import WaysPanel from './orient/WaysPanel.vue'
import FaultNote from '../shell/FaultNote.vue'
import { messageOf } from '../messageOf'

const store = usePiece(),
  found = useFindings(),
  viewport = useViewport(),
  derivations = useDerivations()
const stand = provideStand()
const ways = ref<InstanceType<typeof WaysPanel> | null>(null),
  supports = ref<InstanceType<typeof SupportPanel> | null>(null)
const fault = ref('')
const supportOp = computed(() => {
  const o = store.step('support')?.op
  return o?.kind === 'support' ? o : null
})
const orientOp = computed(() => {
  const o = store.step('orient')?.op
  return o?.kind === 'orient' ? o : null
})
const report = computed(() => store.report('support')?.support ?? null)
const { printer } = usePrinterAndResin()
/** Tools that work on the sculpt as it is in the hand, before it is stood up. */
const POSING: readonly Tool[] = ['tilt', 'face', 'keepUp', 'focal']
const posing = computed(() => stand.draft !== null || POSING.includes(stand.tool))
const UPRIGHT: Quaternion = [0, 0, 0, 1]
const BRUSHES: readonly Tool[] = ['focal', 'bar', 'more']
const HINTS: Record<Tool, string> = {
  none: '',
  tilt: text('stages.orientStage.dragTheSculptTo'),
  face: text('stages.orientStage.clickTheFaceThat'),
  keepUp: text('stages.orientStage.clickTheSideThat'),
  focal: text('stages.orientStage.brushWhereNoSupport'),
  add: text('stages.orientStage.clickOnTheSurface'),
  remove: text('stages.orientStage.clickNearATip'),
  clear: text('stages.orientStage.clickWhereAllTips'),
  regrade: text('stages.orientStage.clickNearATip2'),
  move: text('stages.orientStage.dragATipAlong'),
  drop: text('stages.orientStage.clickALoosePiece'),
  bar: text('stages.orientStage.brushWhereNoSupports'),
  more: text('stages.orientStage.brushWhereSupportsAre'),
}
viewport.describe(() => {
  const brushing = BRUSHES.includes(stand.tool)
  const dabs = brushing
    ? stand.dabs.map((d) => ({ point: d.point, kind: 'hand' as const, radius: d.radius / 4, over: true }))
    : []
  if (posing.value) {
    const drafted = stand.draft ?? orientOp.value?.quaternion ?? UPRIGHT
    return { mesh: store.meshBefore('orient'), quaternion: stand.tool === 'focal' ? UPRIGHT : drafted, markers: dabs }
  }
  return {
    mesh: store.meshAfter('support') ?? store.meshBefore('support'),
    bodyFaces: report.value?.bodyFaces,
    markers: [
      ...(report.value?.tips ?? []).map((t) => ({
        point: [...t.point] as [number, number, number],
        kind:
          t.utilisation > 1
            ? ('problem' as const)
            : t.byHand
              ? ('hand' as const)
              : t.focal
                ? ('warning' as const)
                : ('tip' as const),
        radius: t.grade === 'post' ? 0.9 : 0.6,
      })),
      ...found.byStage.orient.findings.flatMap((f) => f.places.map((point) => ({ point, kind: f.level }))),
      ...dabs,
      ...(stand.held ? [{ point: stand.slid ?? stand.held, kind: 'warning' as const, radius: 1.2, over: true }] : []),
    ],
  }
})
viewport.describe(() => ({
  mode:
    stand.tool === 'tilt' ? 'tilt' : stand.tool === 'none' ? 'look' : BRUSHES.includes(stand.tool) ? 'brush' : 'pick',
  hint: HINTS[stand.tool],
  onTilt: (q) => {
    stand.draft = q
  },
  onPick: pressed,
  onGrab: (p) => supports.value?.grab(p.point) ?? false,
  onSlide: (p, ended) => supports.value?.slide(p.point, ended),
}))
function pressed(p: Picked): void {
  if (stand.tool === 'face') {
    stand.draft = quaternionBetween(p.normal, [0, 0, -1]) as Quaternion
    stand.tool = 'none'
  } else if (stand.tool === 'keepUp') {
    stand.keep = [...p.normal]
    stand.tool = 'none'
  } else if (BRUSHES.includes(stand.tool)) {
    const near = stand.dabs.some((d) => Math.hypot(...d.point.map((v, k) => v - p.point[k]!)) < stand.radius / 2)
    if (!near) stand.dabs.push({ point: p.point, radius: stand.radius })
  } else supports.value?.pressed(p.point)
}
/** Adds a hole where the cup closes first, to the holes there are. */
async function vent(place: [number, number, number]): Promise<void> {
  const mesh = store.meshBefore('drill')
  if (!mesh) return
  fault.value = ''
  try {
    const { site } = await derivations.reported(mesh, {
      kind: 'ventSite',
      point: place,
      quaternion: orientOp.value?.quaternion ?? [0, 0, 0, 1],
      shift: [...(report.value?.shift ?? [0, 0, 0])] as [number, number, number],
      diameter: 3,
    })
    const drill = store.step('drill')?.op
    await store.apply({
      kind: 'drill',
      holes: [
        ...(drill?.kind === 'drill' ? drill.holes : []),
        { point: [...site.point], direction: [...site.direction], diameter: site.diameter },
      ],
    })
  } catch (e) {
    fault.value = messageOf(e)
  }
}
const scaling = useScaling()
const needsPrinter = (): string | null => (printer.value ? null : text('stages.orientStage.theSearchNeedsA'))
const fixes: StageHandlers<'orient'> = {
  support: ({ closer }) => supports.value?.denser(closer),
  leaveSupported: () => supports.value?.leaveAsIs(),
  reorient: { run: () => ways.value?.search(), unless: needsPrinter },
  quarterTurn() {
    ways.value?.spin([0, 0, 1], 90)
    return ways.value?.setDown()
  },
  scale: ({ factor }) => scaling.by(factor),
  ventCup: {
    run: ({ place }) => vent(place),
    unless: () => (store.counted('hollow') ? null : text('stages.orientStage.onlyAHollowPart')),
  },
}
// What was pressed at Plates is done here, once the panels are there.
onMounted(() => {
  const fix = useRequestedFix().taken('orient')
  if (fix) void doFix(fixes, fix)
})
/** The focal dabs on the body as it stands before supports lift it. */
const focalStanding = computed(() => {
  const focal = store.step('focal')?.op,
    offset = store.report('orient')?.offset
  if (focal?.kind !== 'focal' || !offset || !orientOp.value) return []
  return orientedDabs(focal.dabs, orientOp.value.quaternion, offset)
})
</script>

<template>
  <FindingList v-if="orientOp || supportOp" :judged="found.byStage.orient" :fixes="fixes" @show="viewport.show" />
  <p v-else>
    <span class="figure-sm me-2">{{ $t('stages.orientStage.noOrientationYet') }}</span>
    <span class="soft">{{ $t('stages.orientStage.keepSupportsAwayFrom') }}</span>
  </p>
  <FaultNote :text="fault || found.layersProblem" />
  <WaysPanel ref="ways" :limit="supportOp?.limit ?? 40" :lift="supportOp?.lift ?? 5" />
  <SupportPanel ref="supports" :focal="focalStanding" />
</template>
