<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref, shallowRef } from 'vue'
import { text } from '../../i18n'
import { usePlacing } from '../../composables/usePlacing'
import NumberField from '../../shell/NumberField.vue'
import { usePiece } from '../../stores/piece'
import { useViewport } from '../../viewport/useViewport'
import { STILL, type Motion } from '../../viewport/motion'
import type { Picked } from '../../viewport/scene'
import ChoiceSelect from '../../shell/ChoiceSelect.vue'

/** Where the part on the table stands: by hand, by number, or against what is there already. */
const store = usePiece(),
  viewport = useViewport(),
  placing = usePlacing()
const place = computed(() => {
  const box = placing.own.value?.measures?.box
  return box ? { x: (box.min[0] + box.max[0]) / 2, y: (box.min[1] + box.max[1]) / 2, z: box.min[2] } : null
})
const angle = ref(15)
const over = ref('')
const target = computed(() => over.value || placing.others.value[0]?.part.id || '')
const doing = ref<'nothing' | 'move' | 'face' | 'axis'>('nothing')
/** the place pressed on the part at work, of two */
const mine = shallowRef<Picked | null>(null)
const motion = shallowRef<Motion>(STILL),
  along = shallowRef<string[]>([])
viewport.describe(() => {
  if (doing.value === 'nothing') return null
  if (doing.value === 'move')
    return {
      mode: 'move',
      hint: text('combine.placePanel.dragThePartOver'),
      along: along.value,
      motion: motion.value,
      onMove: moved,
      markers: [],
    }
  const what = doing.value === 'face' ? text('combine.placePanel.theFace') : text('combine.placePanel.theRoundSurface')
  return {
    mode: 'pick',
    hint: mine.value
      ? text('combine.placePanel.nowClickOnThe', { what })
      : text('combine.placePanel.clickOnThatIs', { what, name: store.part?.name }),
    markers: mine.value ? [{ point: mine.value.point, kind: 'hand' }] : [],
    onPick: pressed,
  }
})

function move(): void {
  stop()
  doing.value = 'move'
  along.value = placing.others.value
    .filter((p) => placing.group.value.some((g) => g.id === p.part.id))
    .map((p) => p.mesh!)
}
function moved(by: Motion, ended: boolean): void {
  motion.value = by
  if (!ended || (Math.hypot(...by.shift) < 0.01 && Math.abs(by.quaternion[3]) > 1 - 1e-9)) return
  void placing.moveBy(by).then(() => {
    motion.value = STILL
  })
}
/** Two places, the first on this part, the second on another. */
function pair(way: 'face' | 'axis'): void {
  stop()
  doing.value = way
}
function pressed(p: Picked): void {
  if (p.companion === null) {
    mine.value = p
    return
  }
  const m = mine.value,
    way = doing.value
  if (!m) return
  stop()
  void (way === 'face' ? placing.faceToFace(m, p) : placing.axisToAxis(m.point, p.point, p.companion))
}
/** A part goes into this one's group, or out of it. */
function together(id: string): void {
  const groups = { ...store.piece!.groups }
  const own = store.part!.id
  const name = groups[own] ?? own
  if (groups[id] === name) delete groups[id]
  else {
    groups[own] = name
    groups[id] = name
  }
  const left = Object.keys(groups).filter((k) => groups[k] === name)
  if (left.length < 2) for (const k of left) delete groups[k]
  void store.save({ groups })
}
const goesAlong = (id: string): boolean => placing.group.value.some((g) => g.id === id)
function stop(): void {
  doing.value = 'nothing'
  mine.value = null
}
</script>

<template>
  <section class="mb-3">
    <h2 class="mb-2">{{ $t('combine.placePanel.place', { name: store.part?.name }) }}</h2>
    <template v-if="place">
      <NumberField
        :model-value="place.x"
        :label="$t('combine.placePanel.rightOfTheMiddle')"
        unit="mm"
        :digits="2"
        @update:model-value="placing.shiftBy([$event - place.x, 0, 0])"
      />
      <NumberField
        :model-value="place.y"
        :label="$t('combine.placePanel.behindTheMiddle')"
        unit="mm"
        :digits="2"
        @update:model-value="placing.shiftBy([0, $event - place.y, 0])"
      />
      <NumberField
        :model-value="place.z"
        :label="$t('combine.placePanel.footAboveTheTable')"
        unit="mm"
        :digits="2"
        @update:model-value="placing.shiftBy([0, 0, $event - place.z])"
      />
    </template>
    <div class="d-flex flex-wrap gap-1 mt-1">
      <BButton :variant="doing === 'move' ? 'primary' : 'quiet'" size="sm" @click="doing === 'move' ? stop() : move()">
        {{ doing === 'move' ? $t('combine.placePanel.doneMoving') : $t('combine.placePanel.moveByHand') }}
      </BButton>
      <BButton variant="quiet" size="sm" @click="placing.rest(false)">{{
        $t('combine.placePanel.putOnTheTable')
      }}</BButton>
      <BButton variant="quiet" size="sm" @click="placing.mirror()">{{ $t('combine.placePanel.mirror') }}</BButton>
    </div>
    <div class="d-flex flex-wrap gap-1 mt-1 align-items-center">
      <NumberField
        v-model="angle"
        bare
        unit="°"
        :min="-360"
        :max="360"
        :step="5"
        :label="$t('combine.placePanel.turnBy')"
      />
      <BButton variant="quiet" size="sm" @click="placing.spin([0, 0, 1], angle)">{{
        $t('combine.placePanel.turn')
      }}</BButton>
      <BButton variant="quiet" size="sm" @click="placing.spin([1, 0, 0], -angle)">{{
        $t('combine.placePanel.leanBack')
      }}</BButton>
      <BButton variant="quiet" size="sm" @click="placing.spin([0, 1, 0], angle)">{{
        $t('combine.placePanel.leanRight')
      }}</BButton>
    </div>
    <div v-if="placing.others.value.length > 0" class="mt-2">
      <label class="soft small" for="against">{{ $t('combine.placePanel.against') }}</label>
      <ChoiceSelect
        id="against"
        :model-value="target"
        size="sm"
        class="mb-1"
        @update:model-value="over = String($event)"
      >
        <option v-for="p in placing.others.value" :key="p.part.id" :value="p.part.id">{{ p.part.name }}</option>
      </ChoiceSelect>
      <div class="d-flex flex-wrap gap-1">
        <BButton variant="quiet" size="sm" @click="placing.middleOver(target)">{{
          $t('combine.placePanel.centreOverIt')
        }}</BButton>
        <BButton variant="quiet" size="sm" @click="placing.rest(true)">{{
          $t('combine.placePanel.lowerOntoIt')
        }}</BButton>
        <BButton
          :variant="doing === 'face' ? 'primary' : 'quiet'"
          size="sm"
          @click="doing === 'face' ? stop() : pair('face')"
        >
          {{ doing === 'face' ? $t('combine.placePanel.cancel') : $t('combine.placePanel.faceToFace') }}
        </BButton>
        <BButton
          :variant="doing === 'axis' ? 'primary' : 'quiet'"
          size="sm"
          @click="doing === 'axis' ? stop() : pair('axis')"
        >
          {{ doing === 'axis' ? $t('combine.placePanel.cancel') : $t('combine.placePanel.axisToAxis') }}
        </BButton>
      </div>
      <p class="soft small mt-2 mb-1">{{ $t('combine.placePanel.movesTogetherWith') }}</p>
      <div class="d-flex flex-wrap gap-1">
        <BButton
          v-for="p in placing.others.value"
          :key="p.part.id"
          :variant="goesAlong(p.part.id) ? 'primary' : 'quiet'"
          size="sm"
          :aria-pressed="goesAlong(p.part.id)"
          :aria-label="$t('combine.placePanel.moveTogetherWith', { name: p.part.name })"
          @click="together(p.part.id)"
        >
          {{ p.part.name }}
        </BButton>
      </div>
    </div>
  </section>
</template>

<style scoped>
.degrees {
  width: 68px;
}
</style>
