<script setup lang="ts">
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref } from 'vue'
import { text, fixed } from '../../i18n'
import { figure } from '../../manner'
import type { OperationInput } from '../../../contract/operations'
import type { LightRoute } from '../../../core/shape/lightRoute'
import { usePicking } from '../../composables/usePicking'
import NumberField from '../../shell/NumberField.vue'
import { useAssembly } from '../../stores/assembly'
import { useDerivations } from '../../stores/derivations'
import { usePiece } from '../../stores/piece'
import { useViewport } from '../../viewport/useViewport'
import FaultNote from '../../shell/FaultNote.vue'
import { ApiProblem } from '../../api'
import { messageOf } from '../../messageOf'

/** A channel for a wire from under the base to a lit part, and a bay for the battery with its lid. */
const store = usePiece(),
  assembly = useAssembly(),
  derivations = useDerivations(),
  viewport = useViewport(),
  picking = usePicking()
type Triple = [number, number, number]
const diameter = ref(2.5),
  wall = ref(1.2)
const from = ref<Triple | null>(null),
  to = ref<Triple | null>(null)
const route = ref<LightRoute | null>(null)
const busy = ref(''),
  fault = ref('')
viewport.describe(() => {
  const ends = [from.value, to.value].flatMap((point) => (point ? [{ point, kind: 'hand' as const, over: true }] : []))
  if (ends.length === 0 && !picking.asking.value) return null
  return { markers: ends, line: { points: route.value?.path ?? [], closed: false } }
})

function pick(): void {
  from.value = to.value = route.value = null
  picking.ask(text('combine.lightPanel.clickWhereTheLight'), (p) => {
    if (!to.value) {
      to.value = p.point
      picking.next(text('combine.lightPanel.nowClickWhereThe'))
    } else {
      from.value = p.point
      picking.stop()
      void find()
    }
  })
}
/** Straight up from the middle of the foot of whatever stands lowest. */
const foot = computed(() => {
  const lowest = assembly.placed
    .filter((p) => p.measures)
    .sort((a, b) => a.measures!.box.min[2] - b.measures!.box.min[2])[0]
  if (!lowest) return null
  const { min, max } = lowest.measures!.box
  return { part: lowest.part, at: [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2, min[2]] as Triple }
})
function middle(): void {
  if (!foot.value) return
  from.value = foot.value.at
  picking.stop()
  void find()
}
async function find(): Promise<void> {
  const meshes = assembly.placed.flatMap((p) => (p.mesh ? [p.mesh] : []))
  if (!from.value || !to.value || meshes.length === 0) return
  busy.value = text('combine.lightPanel.lookingForAWay')
  fault.value = ''
  route.value = null
  try {
    route.value = await derivations.reported(meshes[0]!, {
      kind: 'lightRoute',
      others: meshes.slice(1),
      from: from.value,
      to: to.value,
      diameter: diameter.value,
      wall: wall.value,
    })
  } catch (e) {
    fault.value = messageOf(e)
  }
  busy.value = ''
}
/** Every part that the way passes through is bored, in one step of undo. */
async function bore(): Promise<void> {
  const path = route.value?.path
  if (!path) return
  busy.value = 'Boring …'
  fault.value = ''
  const op: OperationInput = { kind: 'channel', path, diameter: diameter.value }
  const lists: { id: string; operations: ReturnType<typeof store.withOperation> }[] = []
  for (const p of assembly.placed) {
    if (!p.mesh) continue
    try {
      await derivations.tried(p.mesh, { ...op, diameter: diameter.value })
      lists.push({ id: p.part.id, operations: store.withOperation(p.part, op) })
    } catch (e) {
      // Parts beside the way stay as they are; anything else is worth a word.
      if (!(e instanceof ApiProblem && e.code === 'channel-misses')) fault.value = `${p.part.name}: ${messageOf(e)}`
    }
  }
  if (lists.length > 0 && fault.value === '') await store.arrange({ lists })
  leave()
  busy.value = ''
}
function leave(): void {
  from.value = to.value = route.value = null
  picking.stop()
}

/** Share of a mouth that counts as all of it. */
const WHOLE = 0.95
const mouth = (share: number): string =>
  share >= WHOLE ? 'open' : share === 0 ? 'closed' : text('combine.lightPanel.open', { value: fixed(100 * share, 0) })

const width = ref(26),
  depth = ref(26),
  height = ref(6)
async function bay(): Promise<void> {
  const f = foot.value
  if (!f) return
  busy.value = text('combine.lightPanel.makingTheBay')
  const op = {
    kind: 'bay',
    centre: [f.at[0], f.at[1]] as [number, number],
    width: width.value,
    depth: depth.value,
    height: height.value,
    lid: LID,
    ledge: LEDGE,
  } as const
  if (await store.tryOnly(op, f.part)) {
    // The lid is a body of its own, a little smaller than its rebate, and lies in it.
    const less = 2 * GAP
    await store.arrange({
      lists: [{ id: f.part.id, operations: store.withOperation(f.part, op) }],
      create: [
        {
          name: text('combine.lightPanel.lidOfTheBattery'),
          from: null,
          operations: [
            {
              kind: 'base',
              outline: 'rounded',
              side: 'plain',
              width: width.value + 2 * LEDGE - less,
              depth: depth.value + 2 * LEDGE - less,
              height: LID - GAP,
              corner: 2 + LEDGE - GAP,
            } as never,
            { kind: 'place', quaternion: [0, 0, 0, 1], shift: [f.at[0], f.at[1], f.at[2]], mirror: false },
          ],
        },
      ],
    })
  }
  busy.value = ''
}
const LID = 1.6,
  LEDGE = 1.5,
  GAP = 0.15
</script>

<template>
  <FoldPanel class="mb-3" @toggle="$event || leave()">
    <template #title>{{ $t('combine.lightPanel.aLightInside') }}</template>
    <NumberField
      v-model="diameter"
      :label="$t('combine.lightPanel.channel')"
      unit="mm"
      :step="0.5"
      :min="0.5"
      :max="40"
      :source="$t('combine.lightPanel.wireAndRoom')"
    />
    <NumberField
      v-model="wall"
      :label="$t('combine.lightPanel.wallAroundTheChannel')"
      unit="mm"
      :step="0.1"
      :min="0.2"
      :max="20"
      :source="$t('combine.lightPanel.printsReliablyFrom1')"
    />
    <div class="d-flex flex-wrap gap-1 mb-2">
      <BButton variant="quiet" size="sm" :disabled="busy !== ''" @click="picking.asking.value ? leave() : pick()">
        {{ picking.asking.value ? $t('combine.lightPanel.cancel') : $t('combine.lightPanel.chooseWhereTheLight') }}
      </BButton>
      <BButton v-if="picking.asking.value && to" variant="quiet" size="sm" @click="middle">
        {{ $t('combine.lightPanel.fromTheMiddleOf', { name: foot?.part.name }) }}
      </BButton>
    </div>
    <p v-if="busy" class="soft small mb-1">{{ busy }}</p>
    <FaultNote :text="fault" />
    <template v-if="route">
      <dl class="facts">
        <dt>{{ $t('combine.lightPanel.length') }}</dt>
        <dd>{{ $t('combine.lightPanel.mm', { route: fixed(route.length, 0) }) }}</dd>
        <dt>{{ $t('combine.lightPanel.thinnestWallLeft') }}</dt>
        <dd>
          {{
            route.wall === null
              ? $t('combine.lightPanel.tooShortToMeasure')
              : $t('combine.lightPanel.mm2', { wall: fixed(route.wall, 2) })
          }}
        </dd>
        <dt>{{ $t('combine.lightPanel.sharpestBend') }}</dt>
        <dd>{{ figure(route.bend, 0) }}°</dd>
        <dt>{{ $t('combine.lightPanel.openAtTheWires') }}</dt>
        <dd>{{ mouth(route.open[0]) }}</dd>
        <dt>{{ $t('combine.lightPanel.openAtTheLight') }}</dt>
        <dd>{{ mouth(route.open[1]) }}</dd>
      </dl>
      <p v-if="route.open[0] < WHOLE" class="small text-danger">
        {{ $t('combine.lightPanel.theWiresEndDoes') }}
      </p>
      <p v-if="route.open[1] < WHOLE" class="small soft">
        {{ $t('combine.lightPanel.theLightsEndStays') }}
      </p>
      <BButton variant="primary" size="sm" :disabled="busy !== ''" @click="bore">{{
        $t('combine.lightPanel.boreThroughAllParts')
      }}</BButton>
    </template>
    <h3 class="mt-3 mb-1">{{ $t('combine.lightPanel.batteryBayIn', { name: foot?.part.name }) }}</h3>
    <NumberField v-model="width" :label="$t('combine.lightPanel.widthInside')" unit="mm" :min="3" :max="300" />
    <NumberField v-model="depth" :label="$t('combine.lightPanel.depthInside')" unit="mm" :min="3" :max="300" />
    <NumberField
      v-model="height"
      :label="$t('combine.lightPanel.heightInside')"
      unit="mm"
      :step="0.5"
      :min="1"
      :max="200"
    />
    <BButton variant="primary" size="sm" :disabled="busy !== '' || !foot" @click="bay">{{
      $t('combine.lightPanel.bayWithALid')
    }}</BButton>
    <p class="soft small mt-2 mb-0">
      {{ $t('combine.lightPanel.aRemovableCellFrom') }}
    </p>
  </FoldPanel>
</template>
