<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, onBeforeUnmount, ref, shallowRef } from 'vue'
import { manner } from '../../manner'
import { text, type Fixed, fixed } from '../../i18n'
import { say } from '../../../core/words/say'
import { directionWords } from '../../../core/findings/trappedResin'
import { quaternionBetween } from '../../../core/math/vectors'
import type { TrapReport } from '../../../core/print/resin/trapped'
import { useCheck } from '../../composables/useCheck'
import { useDraining } from '../../composables/useDraining'
import { usePiece } from '../../stores/piece'
import type { Marker } from '../../viewport/annotations'
import type { Quaternion } from '../../viewport/sceneDescription'
import { useViewport } from '../../viewport/useViewport'

/** Poses that empty the part one after the other, and where a syringe of wash liquid goes; both shown on the sculpt. */
const props = defineProps<{ report: TrapReport }>()
const store = usePiece(),
  viewport = useViewport()
const ml = (v: number): Fixed => fixed(v / 1000, v < 1000 ? 2 : 1)
const rows = computed(() =>
  props.report.routine.map((s, i) => ({ ...s, n: i + 1, words: say(directionWords(s.down), manner) })),
)
const rinse = useCheck(
  () => store.meshAfter('drill'),
  () => {
    const op = store.step('drill')?.op
    return { kind: 'rinse', holes: op?.kind === 'drill' ? op.holes : [] }
  },
)
const flush = computed(() => rinse.report.value)
/** What an opening is called: by the number of the drilled hole that it is. */
const holeWord = (i: number): string => {
  const hole = flush.value?.openings[i]?.hole ?? null
  return hole === null ? text('hollow.drainPanel.anOpening') : text('hollow.drainPanel.hole', { hole: hole + 1 })
}
const share = computed(() => {
  const f = flush.value
  return f && f.swept + f.still > 0 ? f.swept / (f.swept + f.still) : 0
})
const playing = ref<'drain' | 'rinse' | null>(null)
const turned = shallowRef<Quaternion | null>(null),
  drops = shallowRef<Marker[]>([])
const open = ref(false)
function show(down: readonly [number, number, number]): void {
  turned.value = quaternionBetween(down, [0, 0, -1]) as Quaternion
}
viewport.describe(() => (open.value ? { cutOpen: true } : null))
viewport.describe(() => turned.value && { quaternion: turned.value })
viewport.describe(() => (playing.value ? { markers: drops.value } : null))

/** A ball of that volume, mm; a large one would hide what it lies in. */
const ball = (volume: number): number => Math.min(7, Math.cbrt((volume * 3) / (4 * Math.PI)))
/** Milliseconds a frame, and how many drops run along each stream. */
const FRAME = 70,
  DROPS = 8
const draining = useDraining(show)
let timer = 0
function begin(what: 'drain' | 'rinse'): void {
  end()
  drops.value = []
  playing.value = what
  open.value = true
}
function end(): void {
  if (playing.value === null) return
  clearInterval(timer)
  draining.stop()
  turned.value = null
  playing.value = null
}
onBeforeUnmount(end)
function playRinse(): void {
  if (playing.value === 'rinse') return end()
  const streams = flush.value?.streams ?? []
  begin('rinse')
  let tick = 0
  const draw = (): void => {
    drops.value = [
      ...(flush.value?.deadEnds ?? []).map((d) => ({
        point: d.at,
        kind: 'warning' as const,
        radius: ball(d.volume),
        over: true,
      })),
      ...streams.flatMap((s) =>
        Array.from({ length: DROPS }, (_, k) => ({
          point: s[(tick + Math.round((k * s.length) / DROPS)) % s.length]!,
          kind: 'note' as const,
          radius: 1.3,
          over: true,
        })),
      ),
    ]
    tick++
  }
  draw()
  timer = window.setInterval(draw, FRAME)
}
function playDrain(): void {
  if (playing.value === 'drain') return end()
  begin('drain')
  void draining.play(props.report.routine.map((r) => r.down))
}
</script>

<template>
  <section class="sheet p-3 mb-3">
    <h3 class="mb-1">{{ $t('hollow.drainPanel.draining') }}</h3>
    <dl class="facts">
      <dt>{{ $t('hollow.drainPanel.cavitiesHold') }}</dt>
      <dd>{{ $t('hollow.drainPanel.ml', { cavity: ml(report.cavity) }) }}</dd>
      <dt>{{ $t('hollow.drainPanel.staysInsideWhileIt') }}</dt>
      <dd>{{ $t('hollow.drainPanel.ml2', { trapped: ml(report.trapped) }) }}</dd>
    </dl>
    <p class="soft small mt-2 mb-1">{{ $t('hollow.drainPanel.toEmptyItHold') }}</p>
    <ol class="routine">
      <li v-for="r in rows" :key="r.n">
        <BButton variant="quiet" size="sm" @click="show(r.down)">{{ r.words }}</BButton>
        <span class="soft ms-2">{{ $t('hollow.drainPanel.mlLeft', { left: ml(r.left) }) }}</span>
      </li>
    </ol>
    <div class="d-flex gap-1 flex-wrap">
      <BButton variant="quiet" size="sm" :aria-pressed="playing === 'drain'" @click="playDrain">
        {{
          playing === 'drain'
            ? draining.playing.value
              ? $t('hollow.drainPanel.stop')
              : $t('hollow.drainPanel.close')
            : $t('hollow.drainPanel.play')
        }}
      </BButton>
      <BButton variant="quiet" size="sm" :aria-pressed="open" @click="open = !open">
        {{ open ? $t('hollow.drainPanel.showTheOutside') : $t('hollow.drainPanel.showASection') }}
      </BButton>
      <BButton variant="quiet" size="sm" :disabled="!turned" @click="turned = null">{{
        $t('hollow.drainPanel.resetView')
      }}</BButton>
    </div>
    <p v-if="draining.left.value !== null" class="figure-sm mt-2 mb-0" role="status">
      {{ $t('hollow.drainPanel.ml3', { left: ml(draining.left.value) }) }}
      <span class="soft">{{ $t('hollow.drainPanel.insideNow') }}</span>
    </p>
    <template v-if="flush">
      <h3 class="mt-3 mb-1">{{ $t('hollow.drainPanel.rinsing') }}</h3>
      <p v-if="flush.enter < 0" class="mb-1">
        {{ $t('hollow.drainPanel.nothingCanBeFlushed', { openings: flush.openings.length }) }}
      </p>
      <template v-else>
        <p class="mb-1">
          {{
            $t('hollow.drainPanel.withASyringeInto', {
              enter: holeWord(flush.enter),
              round: Math.round(100 * share),
              swept: ml(flush.swept + flush.still),
            })
          }}<template v-if="flush.deadEnds.length > 0">{{
            $t('hollow.drainPanel.mlDoNotMove', { still: ml(flush.still) })
          }}</template
          >{{ $t('hollow.drainPanel.useAtLeastMl', { ml: ml(3 * (flush.swept + flush.still)) }) }}
        </p>
        <div class="d-flex gap-1 flex-wrap">
          <BButton variant="quiet" size="sm" :aria-pressed="playing === 'rinse'" @click="playRinse">
            {{ playing === 'rinse' ? $t('hollow.drainPanel.stop') : $t('hollow.drainPanel.showTheFlow') }}
          </BButton>
          <BButton
            v-for="(d, i) in flush.deadEnds.slice(0, 3)"
            :key="i"
            variant="quiet"
            size="sm"
            @click="viewport.show(d.at)"
          >
            {{ $t('hollow.drainPanel.noFlowMl', { i: i + 1, volume: ml(d.volume) }) }}
          </BButton>
        </div>
      </template>
    </template>
    <p class="soft small mt-2 mb-0">
      {{ $t('hollow.drainPanel.nitrileGlovesEyeProtection') }}
    </p>
  </section>
</template>

<style scoped>
.routine {
  padding-left: 20px;
  margin-bottom: 6px;
}
.routine li {
  margin-bottom: 4px;
}
</style>
