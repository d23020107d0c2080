<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { useResizeObserver } from '@vueuse/core'
import { onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { Focus } from 'lucide-vue-next'
import { text } from '../i18n'
import { useDerivations } from '../stores/derivations'
import { loadMesh } from './meshCache'
import { Scene } from './scene'
import { useGestures } from './useGestures'
import { useViewport } from './useViewport'
import { shownValue } from '../../core/words/manner'
import { figure, manner, unitName } from '../manner'
import { messageOf } from '../messageOf'

const viewport = useViewport()
const derivations = useDerivations()
const canvas = ref<HTMLCanvasElement | null>(null)
const frame = ref<HTMLElement | null>(null)
const scene = shallowRef<Scene | null>(null)
/** To be watched beside others: a shallow ref among several sources tells of a change whenever any of them is looked at. */
const drawn = (): Scene | null => scene.value
const turned = ref(0)
const marks = ref<{ mm: number; x: number; y: number }[]>([])
/** where each of several in a row stands */
const row = ref<{ x: number; y: number }[]>([])
const busy = ref(false)
const fault = ref('')
let serial = 0
let firstShown = false
/** mesh and faces that stand on the disc */
let shownKey = ''

onMounted(() => {
  let s: Scene
  try {
    s = new Scene(canvas.value!)
  } catch {
    fault.value = text('viewport.turntable.thisBrowserShowsNo')
    return
  }
  scene.value = s
  viewport.eyes = s.gaze
  s.onDraw = () => {
    turned.value = s.gaze.turned()
    row.value = s.rowTops()
    marks.value = s.rulerMarks.flatMap((m) => {
      const p = s.gaze.project(m.at)
      return p ? [{ mm: m.mm, ...p }] : []
    })
  }
  useResizeObserver(frame, () => {
    if (frame.value) s.resize(frame.value.clientWidth, frame.value.clientHeight)
  })
  onBeforeUnmount(() => {
    viewport.eyes = null
    viewport.shown = null
    s.dispose()
  })
})

/** Of the ruler's unit, without what the conversion left behind its decimals. */
const rulerText = (mm: number): string =>
  `${figure(Number(shownValue(mm, 'mm', manner).value.toFixed(6)))} ${unitName('mm')}`

watch(
  [() => viewport.scene.mesh, () => viewport.scene.bodyFaces, drawn],
  async ([hash, bodyFaces]) => {
    const s = scene.value
    // Where nobody says what is to stand there, what stands there stays.
    if (!s || hash === undefined) return
    const mine = ++serial
    const asked = `${hash} ${bodyFaces}`
    if (hash === null || asked === shownKey) {
      busy.value = false
      if (hash !== null) return
      shownKey = ''
      s.show(null, 0, true)
      viewport.shown = null
      return
    }
    busy.value = true
    fault.value = ''
    try {
      const d = await derivations.settled(hash, { kind: 'display', faces: 120_000, bodyFaces })
      if (mine !== serial) return
      const mesh = await loadMesh(d.meshHash!)
      if (mine !== serial) return
      const body = d.report!.bodyFaces
      const before = s.size.clone()
      viewport.shown = { mesh, hash: d.meshHash!, of: hash, bodyFaces: body }
      s.show(mesh, body, firstShown)
      shownKey = asked
      // A body of much the same size keeps the view; a new one is framed again.
      if (firstShown && Math.abs(Math.log(s.size.length() / before.length())) > 0.12) s.gaze.home()
      firstShown = true
      // A part is either carried about or tipped; both turn the same holder.
      s.setMotion(viewport.scene.motion, viewport.scene.along)
      if (viewport.scene.quaternion) s.tilt(viewport.scene.quaternion)
      s.showHandles(viewport.scene.mode === 'move')
      s.showPlane(viewport.scene.plane)
      s.mark(viewport.scene.markers)
      if (viewport.scene.colours) s.paint(viewport.scene.colours, viewport.scene.sheen, viewport.scene.glow)
      s.light(viewport.scene.lamp)
      // What was made of the body before it is made of this one.
      if (viewport.scene.beside.length > 0) s.beside(viewport.scene.beside)
      if (viewport.scene.positions) s.deform(viewport.scene.positions)
    } catch (e) {
      if (mine === serial) fault.value = messageOf(e)
    } finally {
      if (mine === serial) busy.value = false
    }
  },
  { immediate: true },
)
watch(
  () => viewport.scene.markers,
  (m) => scene.value?.mark(m),
)
watch([() => viewport.scene.colours, () => viewport.scene.sheen, () => viewport.scene.glow], ([c, sheen, glow]) =>
  scene.value?.paint(c, sheen, glow),
)
watch([() => viewport.scene.beside, drawn], ([list, s], [before]) => {
  s?.beside(list)
  if (list.length === 0 && before && before.length > 0) s?.gaze.home()
})
watch([() => viewport.scene.lamp, drawn], ([l, s]) => s?.light(l))
watch(
  () => viewport.scene.positions,
  (p) => scene.value?.deform(p),
)
watch(
  () => viewport.scene.quaternion,
  (q) => scene.value?.tilt(q),
)
let company = 0
/** how many stand beside the part at work */
let beside = 0
watch(
  [() => viewport.scene.companions.join(), drawn],
  async ([, s]) => {
    const mine = ++company
    if (!s) return
    try {
      const list = await Promise.all(
        viewport.scene.companions.map(async (hash) => {
          const d = await derivations.settled(hash, { kind: 'display', faces: 60_000 })
          return { hash, mesh: await loadMesh(d.meshHash!) }
        }),
      )
      if (mine !== company) return
      const before = s.size.clone()
      s.accompany(list)
      const grown = Math.log(s.size.length() / before.length())
      // Whichever came first, the first to stand beside the part at work is in the picture with it.
      if (Math.abs(grown) > 0.12 || (beside === 0 && grown > 0.01)) s.gaze.home()
      beside = list.length
    } catch (e) {
      if (mine === company) fault.value = messageOf(e)
    }
  },
  { immediate: true },
)
watch(
  () => viewport.scene.motion,
  (m) => scene.value?.setMotion(m, viewport.scene.along),
)
watch(
  () => viewport.scene.plane,
  (p) => scene.value?.showPlane(p),
)
watch([() => viewport.scene.line, drawn], ([l, s]) => s?.showLine(l))
watch([() => viewport.scene.guides, drawn], ([g, s]) => s?.showGuides(g))
watch([() => viewport.scene.cutOpen, drawn], ([open, s]) => s?.cutOpen(open))
watch([() => viewport.scene.liquid, drawn], ([l, s]) => s?.showLiquid(l))
watch(
  () => viewport.spot,
  (p) => {
    if (p) scene.value?.frameSpot(p)
  },
)
watch(
  () => viewport.scene.mode,
  (m) => {
    if (!scene.value) return
    scene.value.gaze.leftTurns(m === 'look' || m === 'pick')
    scene.value.showHandles(m === 'move')
  },
  { immediate: true },
)

const drag = useGestures(scene, canvas)
function turnBy(degrees: number): void {
  scene.value?.gaze.turnTo(turned.value + degrees)
}
</script>

<template>
  <div ref="frame" class="turntable" :aria-busy="busy">
    <img
      v-if="viewport.scene.backdrop"
      :src="viewport.scene.backdrop.url"
      alt=""
      class="backdrop"
      :class="{ matched: viewport.scene.backdrop.matrix }"
      :style="{
        opacity: viewport.scene.backdrop.opacity,
        transform: viewport.scene.backdrop.matrix ? `matrix(${viewport.scene.backdrop.matrix.join(',')})` : undefined,
      }"
    />
    <canvas
      ref="canvas"
      tabindex="0"
      :aria-label="$t('viewport.turntable.theSculptOnIts')"
      :class="{ crosshair: viewport.scene.mode !== 'look' }"
      @pointerdown.capture="drag.pointerdown"
      @pointermove="drag.pointermove"
      @pointerup="drag.pointerup"
      @pointercancel="drag.pointercancel"
      @keydown.left.prevent="turnBy(-15)"
      @keydown.right.prevent="turnBy(15)"
    />
    <span v-for="m in marks" :key="m.mm" class="graduation" :style="{ left: `${m.x}px`, top: `${m.y}px` }">{{
      m.mm > 0 ? rulerText(m.mm) : '0'
    }}</span>
    <b v-for="(p, i) in row" :key="i" class="name" :style="{ left: `${p.x}px`, top: `${p.y - 10}px` }">{{
      i === 0 ? $t('viewport.turntable.imported') : viewport.scene.beside[i - 1]?.name
    }}</b>
    <div class="reading">
      <span class="soft">{{
        turned === 0 ? $t('viewport.turntable.front') : $t('viewport.turntable.turned', { turned })
      }}</span>
      <BButton
        variant="quiet"
        size="sm"
        :title="$t('viewport.turntable.showTheWholeSculpt')"
        @click="scene?.gaze.home()"
      >
        <Focus :size="15" aria-hidden="true" /> {{ $t('viewport.turntable.resetView') }}
      </BButton>
    </div>
    <div v-if="viewport.scene.hint" class="hint" role="status">{{ viewport.scene.hint }}</div>
    <div v-if="fault" class="hint bad" role="alert">{{ fault }}</div>
    <div v-if="busy" class="busy soft">{{ $t('viewport.turntable.preparingTheView') }}</div>
  </div>
</template>

<style scoped>
.turntable {
  position: relative;
  width: 100%;
  height: 100%;
  min-height: 0;
  overflow: hidden;
  background: radial-gradient(ellipse at 50% 38%, var(--studio-light) 0, var(--studio) 58%, var(--studio-edge) 100%);
}
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  display: block;
  touch-action: none;
}
canvas.crosshair {
  cursor: crosshair;
}
.backdrop {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  object-fit: contain;
  pointer-events: none;
}
.backdrop.matched {
  inset: auto;
  left: 0;
  top: 0;
  width: auto;
  height: auto;
  max-width: none;
  transform-origin: 0 0;
}
.graduation {
  position: absolute;
  transform: translate(-50%, 0);
  font-size: 0.78rem;
  color: var(--ink-soft);
  pointer-events: none;
  white-space: nowrap;
}
.name {
  position: absolute;
  transform: translate(-50%, -100%);
  max-width: 200px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  pointer-events: none;
}
.reading {
  position: absolute;
  left: 14px;
  top: 10px;
  display: flex;
  gap: 10px;
  align-items: center;
  font-size: 0.85rem;
}
.reading > span {
  background: color-mix(in srgb, var(--paper-raised) 82%, transparent);
  border-radius: 4px;
  padding: 2px 7px;
}
.hint {
  position: absolute;
  left: 50%;
  top: 12px;
  transform: translateX(-50%);
  background: var(--action);
  color: var(--white);
  padding: 5px 12px;
  border-radius: 5px;
  font-size: 0.88rem;
  max-width: 88%;
}
.hint.bad {
  background: var(--problem);
}
.busy {
  position: absolute;
  right: 14px;
  bottom: 12px;
  font-size: 0.85rem;
}
</style>
