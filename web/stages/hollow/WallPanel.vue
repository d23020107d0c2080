<script setup lang="ts">
import FoldPanel from '../../shell/FoldPanel.vue'
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, reactive, ref, watch } from 'vue'
import { text, fixed, term } from '../../i18n'
import type { OperationInput } from '../../../contract/operations'
import { loadDefaults, type WallLoad } from '../../../core/fit/wallLoad'
import { usePrinterAndResin } from '../../composables/usePrinterAndResin'
import NumberField from '../../shell/NumberField.vue'
import { useDerivations } from '../../stores/derivations'
import { usePiece } from '../../stores/piece'
import type { Picked } from '../../viewport/scene'
import { useViewport } from '../../viewport/useViewport'
import FaultNote from '../../shell/FaultNote.vue'
import { messageOf } from '../../messageOf'

/** The wall, where it is thicker because a brush or a load says so, and what stiffens the cavity. */
const props = defineProps<{ wall: number; voxel: number; opening: number; source: string }>()
const emit = defineEmits<{ change: [values: { wall: number; voxel: number; opening: number }] }>()
const store = usePiece(),
  viewport = useViewport(),
  derivations = useDerivations()
const { resin } = usePrinterAndResin()
type BrushSpot = { point: [number, number, number]; radius: number }
const op = computed(() => {
  const o = store.step('hollow')?.op
  return o?.kind === 'hollow' ? o : null
})
const dabs = ref<BrushSpot[]>([]),
  by = ref(1.5),
  radius = ref(8)
const fill = reactive<{ kind: 'none' | 'bars' | 'gyroid'; spacing: number; thickness: number }>({
  kind: 'none',
  spacing: 15,
  thickness: 2,
})
watch(
  op,
  (o) => {
    if (!o) return
    dabs.value = o.thicker?.dabs.map((d) => ({ ...d })) ?? []
    by.value = o.thicker?.by ?? by.value
    fill.kind = o.fill?.kind ?? 'none'
    if (o.fill) Object.assign(fill, o.fill)
  },
  { immediate: true },
)
const wanted = computed<OperationInput>(() => ({
  kind: 'hollow',
  wall: props.wall,
  voxel: props.voxel,
  opening: props.opening,
  ...(dabs.value.length > 0 ? { thicker: { dabs: dabs.value, by: by.value } } : {}),
  ...(fill.kind === 'none'
    ? {}
    : { fill: { kind: fill.kind, spacing: fill.spacing, thickness: Math.min(fill.thickness, fill.spacing / 2.1) } }),
}))

const brushing = ref(false)
function brush(): void {
  brushing.value = true
}
viewport.describe(() => {
  // Spots that the part was hollowed with are not in the way of what else is set on it.
  if (!brushing.value && JSON.stringify(dabs.value) === JSON.stringify(op.value?.thicker?.dabs ?? [])) return null
  return {
    markers: dabs.value.map((d) => ({ point: d.point, kind: 'hand' as const, radius: d.radius / 4, over: true })),
  }
})
viewport.describe(() =>
  brushing.value ? { mode: 'brush', hint: text('hollow.wallPanel.brushOverTheSurface'), onPick: brushed } : null,
)
function brushed(p: Picked): void {
  if (p.companion !== null) return
  if (dabs.value.some((d) => Math.hypot(...d.point.map((v, k) => v - p.point[k]!)) < radius.value / 3)) return
  dabs.value = [...dabs.value, { point: p.point, radius: radius.value }]
}
function stop(): void {
  brushing.value = false
}
function forget(): void {
  dabs.value = []
}

/** What it is asked to bear, to be changed by whoever knows who will handle it. */
const bears = reactive({ push: loadDefaults.push, handling: loadDefaults.handling, allow: loadDefaults.allow })
const load = ref<WallLoad | null>(null),
  asking = ref(false),
  fault = ref('')
async function byLoad(): Promise<void> {
  const mesh = store.meshBefore('hollow')
  if (!mesh) return
  asking.value = true
  fault.value = ''
  try {
    load.value = await derivations.reported(mesh, {
      kind: 'wallLoad',
      ...bears,
      wall: props.wall,
      density: resin.value?.density ?? loadDefaults.density,
    })
    const { places } = load.value
    if (places.length > 0) {
      // The whole ring at that height: full strength out to its farthest skin.
      dabs.value = places.map((p) => ({ point: p.point, radius: 2 * p.reach + 1 }))
      by.value = Number(Math.max(...places.map((p) => (p.wall ?? p.reach) - props.wall)).toFixed(1))
    }
  } catch (e) {
    fault.value = messageOf(e)
  } finally {
    asking.value = false
  }
}
const verdict = computed(() => {
  const l = load.value
  if (!l) return ''
  const { stress, height } = l.planned
  const worst = text('hollow.wallPanel.theHighestStressIs', {
    height: fixed(height, 0),
    stress: fixed(stress, 1),
    allow: bears.allow,
  })
  if (l.places.length === 0) return text('hollow.wallPanel.theWallIsStrong', { worst })
  const even = l.places.filter((p) => p.wall === null).length
  return even > 0
    ? text('hollow.wallPanel.evenSolidItBends', { worst })
    : text('hollow.wallPanel.theWallThereBecomes', { worst, wall: fixed(props.wall + by.value, 1) })
})
function hollow(): void {
  stop()
  void store.apply(wanted.value)
}
</script>

<template>
  <section class="mb-3">
    <h2 class="mb-2">{{ $t('hollow.wallPanel.wall') }}</h2>
    <NumberField
      :model-value="wall"
      :label="$t('hollow.wallPanel.wall')"
      unit="mm"
      :step="0.1"
      :min="0.4"
      :max="20"
      :source="source"
      @update:model-value="emit('change', { wall: $event, voxel, opening })"
    />
    <FoldPanel class="mb-1" @toggle="$event || stop()">
      <template #title
        >{{ $t('hollow.wallPanel.thickerInPlaces')
        }}<span v-if="dabs.length > 0" class="soft">{{
          $t('hollow.wallPanel.mmMoreAtBrushed', { by, dabs: dabs.length })
        }}</span>
      </template>
      <NumberField v-model="by" :label="$t('hollow.wallPanel.thickerBy')" unit="mm" :step="0.5" :min="0.1" :max="50" />
      <NumberField
        v-model="radius"
        :label="$t('hollow.wallPanel.brush')"
        unit="mm"
        :step="1"
        :min="0.5"
        :max="200"
        :source="$t('hollow.wallPanel.radius')"
      />
      <div class="d-flex flex-wrap gap-1">
        <BButton :variant="brushing ? 'primary' : 'quiet'" size="sm" @click="brushing ? stop() : brush()">
          {{ brushing ? $t('hollow.wallPanel.doneBrushing') : $t('hollow.wallPanel.brush') }}
        </BButton>
        <BButton variant="quiet" size="sm" :disabled="asking" @click="byLoad">
          {{ asking ? $t('hollow.wallPanel.calculatingTheLoad') : $t('hollow.wallPanel.findTheHighestLoad') }}
        </BButton>
        <BButton v-if="dabs.length > 0" variant="quiet" size="sm" @click="forget">{{
          $t('hollow.wallPanel.removeAll')
        }}</BButton>
      </div>
      <FoldPanel class="mt-1">
        <template #title
          ><span class="soft small">{{ $t('hollow.wallPanel.loadsItMustCarry') }}</span></template
        >
        <NumberField
          v-model="bears.push"
          :label="$t('hollow.wallPanel.pushAtTheTop')"
          unit="N"
          :step="0.5"
          :min="0"
          :max="100"
          :source="$t('hollow.wallPanel.default')"
        />
        <NumberField
          v-model="bears.handling"
          :label="$t('hollow.wallPanel.ownWeightTimes')"
          unit="×"
          :step="1"
          :min="0"
          :max="20"
          :source="$t('hollow.wallPanel.handlingDefault')"
        />
        <NumberField
          v-model="bears.allow"
          :label="$t('hollow.wallPanel.curedResinIsAllowed')"
          unit="MPa"
          :step="1"
          :min="1"
          :max="60"
          :source="$t('hollow.wallPanel.defaultItBreaksAt')"
        />
      </FoldPanel>
      <p v-if="verdict" role="status" class="soft small mb-0 mt-1">{{ verdict }}</p>
      <FaultNote :text="fault" />
    </FoldPanel>
    <FoldPanel class="mb-1">
      <template #title
        >{{ $t('hollow.wallPanel.cavity') }}<span class="soft">: {{ term('fill', fill.kind) }}</span>
      </template>
      <label class="d-flex align-items-center gap-2 mb-1"
        ><span>{{ $t('hollow.wallPanel.infill') }}</span>
        <BFormSelect v-model="fill.kind" size="sm" class="w-auto">
          <option value="none">{{ $t('hollow.wallPanel.none') }}</option>
          <option value="bars">{{ $t('hollow.wallPanel.barsAt35') }}</option>
          <option value="gyroid">{{ $t('hollow.wallPanel.gyroid') }}</option>
        </BFormSelect></label
      >
      <template v-if="fill.kind !== 'none'">
        <NumberField
          v-model="fill.spacing"
          :label="$t('hollow.wallPanel.spacing')"
          unit="mm"
          :step="1"
          :min="3"
          :max="100"
        />
        <NumberField
          v-model="fill.thickness"
          :label="$t('hollow.wallPanel.thickness')"
          unit="mm"
          :step="0.2"
          :min="0.4"
          :max="20"
        />
      </template>
      <NumberField
        :model-value="voxel"
        :label="$t('hollow.wallPanel.voxel')"
        unit="mm"
        :step="0.1"
        :min="0.1"
        :max="3"
        :source="$t('hollow.wallPanel.default')"
        @update:model-value="emit('change', { wall, voxel: $event, opening })"
      />
      <NumberField
        :model-value="opening"
        :label="$t('hollow.wallPanel.closeGapsUnder')"
        unit="mm"
        :step="0.1"
        :min="0.2"
        :max="10"
        :source="$t('hollow.wallPanel.radiusDefault')"
        @update:model-value="emit('change', { wall, voxel, opening: $event })"
      />
    </FoldPanel>
    <BButton variant="primary" class="mt-1" :disabled="!store.meshBefore('hollow')" @click="hollow">
      {{ op ? $t('hollow.wallPanel.hollowAgain') : $t('hollow.wallPanel.hollow') }}
    </BButton>
  </section>
</template>
