<script setup lang="ts">
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref } from 'vue'
import { text } from '../../i18n'
import type { FixingRecord } from '../../../core/operations/fix'
import type { OperationInput } from '../../../contract/operations'
import { useAttempt } from '../../composables/useAttempt'
import { useClearances } from '../../composables/useClearances'
import { usePicking } from '../../composables/usePicking'
import { usePlacing } from '../../composables/usePlacing'
import NumberField from '../../shell/NumberField.vue'
import { usePiece } from '../../stores/piece'
import ChoiceSelect from '../../shell/ChoiceSelect.vue'
import FaultNote from '../../shell/FaultNote.vue'

/** How the part on the table is held to another: made one with it, or kept apart with something between. */
const store = usePiece(),
  placing = usePlacing()
type Way = 'union' | 'blend' | 'subtract' | 'relieve' | 'key' | 'ball' | 'pin' | 'magnet'
const WAYS: Record<Way, { word: string; does: string }> = {
  union: { word: text('combine.joinPanel.merge2'), does: text('combine.joinPanel.thePartBecomesBody') },
  blend: { word: text('combine.joinPanel.blend'), does: text('combine.joinPanel.bothBecomeBodyWith') },
  subtract: { word: text('combine.joinPanel.subtract2'), does: text('combine.joinPanel.theShapeOfThe') },
  relieve: { word: text('combine.joinPanel.cutClearance2'), does: text('combine.joinPanel.thisPartIsCut') },
  key: { word: text('combine.joinPanel.key'), does: text('combine.joinPanel.aPegOnThis') },
  ball: { word: text('combine.joinPanel.ballJoint'), does: text('combine.joinPanel.aBallOnThis') },
  pin: { word: text('combine.joinPanel.wirePin'), does: text('combine.joinPanel.aHoleForA') },
  magnet: { word: text('combine.joinPanel.magnets'), does: text('combine.joinPanel.aPocketForA') },
}
const way = ref<Way>('union')
const other = ref('')
const target = computed(
  () => placing.others.value.find((p) => p.part.id === other.value) ?? placing.others.value[0] ?? null,
)
const fillet = ref(2),
  width = ref(6),
  length = ref(6)
const clearances = useClearances()
/** A pin and a magnet are pressed in, a key and a ball must come out again. */
const kind = computed(() => (way.value === 'pin' || way.value === 'magnet' ? 'press' : 'sliding'))
const process = computed(() => clearances.processOf(store.part?.id, target.value?.part.id))
const ownClearance = ref<number | null>(null)
const clearance = computed({
  get: () => ownClearance.value ?? clearances.drawn(process.value, kind.value),
  set: (v) => (ownClearance.value = v),
})
const makesOne = computed(() => way.value === 'union' || way.value === 'blend')
const isFixing = computed(() => ['key', 'ball', 'pin', 'magnet'].includes(way.value))
const { fault, busy, attempt } = useAttempt()
const picking = usePicking()

const join = (): Promise<void> => attempt(joinThem)
async function joinThem(): Promise<void> {
  const t = target.value
  if (!t?.mesh || !store.part) return
  const op: OperationInput = {
    kind: 'join',
    mode: way.value as 'union',
    others: [{ part: t.part.id, mesh: t.mesh }],
    fillet: fillet.value,
    clearance: clearance.value,
  }
  if (makesOne.value) {
    // Tried first; then the list changes and the other part goes, in one step of undo.
    const tried = await store.tryOnly(op)
    if (tried)
      await store.arrange({
        lists: [{ id: store.part.id, operations: store.withOperation(store.part, op) }],
        remove: [t.part.id],
      })
  } else await store.tryOut(op)
}
function pick(): void {
  picking.ask(text('combine.joinPanel.clickTheMiddleOf', { name: store.part?.name }), (p) => {
    if (p.companion !== null) return
    picking.stop()
    void attempt(() => fix(p.point, p.normal))
  })
}
async function fix(point: [number, number, number], normal: [number, number, number]): Promise<void> {
  const t = target.value,
    mine = store.part
  if (!t || !mine) return
  const fixing = (role: FixingRecord['role']): OperationInput => ({
    kind: 'fix',
    fixings: [
      {
        shape: way.value as FixingRecord['shape'],
        role,
        point,
        direction: normal,
        width: width.value,
        length: length.value,
        clearance: clearance.value,
      },
    ],
  })
  if ((await store.tryOnly(fixing('plug'))) && (await store.tryOnly(fixing('socket'), t.part)))
    await store.arrange({
      lists: [
        { id: mine.id, operations: store.withOperation(mine, fixing('plug')) },
        { id: t.part.id, operations: store.withOperation(t.part, fixing('socket')) },
      ],
    })
}
</script>

<template>
  <FoldPanel class="mb-3">
    <template #title>{{ $t('combine.joinPanel.joinToAnotherPart') }}</template>
    <ChoiceSelect
      :model-value="target?.part.id"
      size="sm"
      class="my-2"
      :aria-label="$t('combine.joinPanel.thePart')"
      @update:model-value="other = String($event)"
    >
      <option v-for="p in placing.others.value" :key="p.part.id" :value="p.part.id">{{ p.part.name }}</option>
    </ChoiceSelect>
    <div class="d-flex flex-wrap gap-1 mb-1">
      <BButton v-for="(w, k) in WAYS" :key="k" :variant="way === k ? 'primary' : 'quiet'" size="sm" @click="way = k">
        {{ w.word }}
      </BButton>
    </div>
    <p class="soft small mb-1">{{ WAYS[way].does }}</p>
    <NumberField
      v-if="way === 'blend'"
      v-model="fillet"
      :label="$t('combine.joinPanel.fillet')"
      unit="mm"
      :step="0.5"
      :min="0.2"
      :max="50"
    />
    <NumberField
      v-if="way === 'relieve' || isFixing"
      v-model="clearance"
      :label="$t('combine.joinPanel.clearancePerSide')"
      unit="mm"
      :step="0.05"
      :min="0"
      :max="2"
      :source="ownClearance === null ? clearances.source(process, kind) : ''"
    />
    <template v-if="isFixing">
      <NumberField
        v-model="width"
        :label="
          way === 'pin'
            ? $t('combine.joinPanel.wire')
            : way === 'key'
              ? $t('combine.joinPanel.width')
              : $t('combine.joinPanel.diameter')
        "
        unit="mm"
        :step="0.5"
        :min="0.4"
        :max="60"
      />
      <NumberField
        v-if="way !== 'ball'"
        v-model="length"
        :label="way === 'magnet' ? $t('combine.joinPanel.thickness') : $t('combine.joinPanel.lengthIntoEach')"
        unit="mm"
        :step="0.5"
        :min="0.5"
        :max="100"
      />
      <BButton
        variant="primary"
        size="sm"
        :disabled="busy || !target"
        @click="picking.asking.value ? picking.stop() : pick()"
      >
        {{
          picking.asking.value
            ? $t('combine.joinPanel.cancel')
            : busy
              ? $t('combine.joinPanel.addingTheJoint')
              : $t('combine.joinPanel.chooseThePlace')
        }}
      </BButton>
    </template>
    <BButton v-else variant="primary" size="sm" :disabled="busy || !target" @click="join">
      {{
        busy
          ? $t('combine.joinPanel.joining')
          : makesOne
            ? $t('combine.joinPanel.merge')
            : way === 'relieve'
              ? $t('combine.joinPanel.cutClearance')
              : $t('combine.joinPanel.subtract')
      }}
    </BButton>
    <FaultNote :text="fault" />
  </FoldPanel>
</template>
