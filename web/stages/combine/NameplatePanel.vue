<script setup lang="ts">
import { fixed, term } from '../../i18n'
import { BFormTextarea } from 'bootstrap-vue-next/components/BFormTextarea'
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref, watch } from 'vue'
import type { OperationInput, OperationRecord } from '../../../contract/operations'
import { PRINTS } from '../../../core/findings/tooThin'
import NumberField from '../../shell/NumberField.vue'
import { usePiece } from '../../stores/piece'

/** A plate let into the side of the part on the table, with its text. */
const store = usePiece()
type Plate = Extract<OperationInput, { kind: 'nameplate' }>
const there = computed(() => {
  const op = store.step('nameplate')?.op
  return op?.kind === 'nameplate' ? op : null
})
const report = computed(() => store.report('nameplate')?.nameplate ?? null)
/** mm on the table per mm of the record: the size is set after the plate */
const factor = computed(() => {
  const op = store.step('scale')?.op
  return op?.kind === 'scale' ? op.factor : 1
})
const text = ref(''),
  face = ref<'serif' | 'sans'>('serif'),
  style = ref<'raised' | 'sunk'>('raised')
const letter = ref(4),
  relief = ref(0.6),
  recess = ref(0.8),
  around = ref(0)
const up = ref<number | null>(null)
watch(
  there,
  (op: Extract<OperationRecord, { kind: 'nameplate' }> | null) => {
    if (!op) return
    const k = factor.value
    text.value = op.text
    face.value = op.face
    style.value = op.style
    letter.value = op.letter * k
    relief.value = op.relief * k
    recess.value = op.recess * k
    around.value = op.around
    up.value = op.up === null ? null : op.up * k
  },
  { immediate: true },
)
const op = computed<Plate>(() => ({
  kind: 'nameplate',
  text: text.value,
  face: face.value,
  style: style.value,
  letter: letter.value / factor.value,
  relief: relief.value / factor.value,
  recess: recess.value / factor.value,
  around: around.value,
  up: up.value === null ? null : up.value / factor.value,
}))
const busy = ref(false)
async function letIn(): Promise<void> {
  busy.value = true
  await store.tryOut(op.value)
  busy.value = false
}
</script>

<template>
  <FoldPanel class="mb-3" :open="!!there">
    <template #title
      >{{
        there
          ? $t('combine.nameplatePanel.thisNameplate')
          : $t('combine.nameplatePanel.nameplateOn', { name: store.part?.name })
      }}
    </template>
    <label class="d-block my-2"
      ><span class="visually-hidden">{{ $t('combine.nameplatePanel.text') }}</span>
      <BFormTextarea
        v-model="text"
        size="sm"
        rows="2"
        maxlength="200"
        :placeholder="$t('combine.nameplatePanel.whatThePlateSays')"
        :aria-label="$t('combine.nameplatePanel.text')"
      ></BFormTextarea>
    </label>
    <div class="d-flex flex-wrap gap-1 mb-2">
      <BButton
        v-for="f in ['serif', 'sans'] as const"
        :key="f"
        :variant="face === f ? 'primary' : 'quiet'"
        size="sm"
        @click="face = f"
      >
        {{ term('letterFace', f) }}
      </BButton>
      <span class="mx-1"></span>
      <BButton
        v-for="s in ['raised', 'sunk'] as const"
        :key="s"
        :variant="style === s ? 'primary' : 'quiet'"
        size="sm"
        @click="style = s"
      >
        {{ term('letterStyle', s) }}
      </BButton>
    </div>
    <NumberField
      v-model="letter"
      :label="$t('combine.nameplatePanel.heightOfCapitals')"
      unit="mm"
      :step="0.5"
      :min="0.8"
      :max="100"
    />
    <NumberField
      v-model="relief"
      :label="style === 'raised' ? $t('combine.nameplatePanel.embossBy') : $t('combine.nameplatePanel.engraveBy')"
      unit="mm"
      :step="0.1"
      :min="0.1"
      :max="10"
    />
    <NumberField
      v-model="recess"
      :label="$t('combine.nameplatePanel.recessOfTheGround')"
      unit="mm"
      :step="0.1"
      :min="0"
      :max="20"
    />
    <NumberField
      v-model="around"
      :label="$t('combine.nameplatePanel.turnAroundTheBase')"
      unit="°"
      :step="5"
      :min="-180"
      :max="180"
      :digits="0"
    />
    <NumberField
      :model-value="up ?? 0"
      :label="$t('combine.nameplatePanel.aboveTheFoot')"
      unit="mm"
      :step="0.5"
      :min="0"
      :max="1000"
      :source="up === null ? $t('combine.nameplatePanel.whereItIsFlattest') : ''"
      @update:model-value="up = $event > 0 ? $event : null"
    />
    <dl v-if="report" class="facts">
      <dt>{{ $t('combine.nameplatePanel.plate') }}</dt>
      <dd>
        {{
          $t('combine.nameplatePanel.mm', {
            width: fixed(report.width * factor, 1),
            height: fixed(report.height * factor, 1),
          })
        }}
      </dd>
      <dt>{{ $t('combine.nameplatePanel.thinnestStroke') }}</dt>
      <dd :class="{ 'text-danger': report.stroke * factor < PRINTS }">
        {{
          $t('combine.nameplatePanel.mmStroke2', {
            stroke: fixed(report.stroke * factor, 2),
            stroke2: report.stroke * factor < PRINTS,
          })
        }}
      </dd>
    </dl>
    <div class="d-flex gap-1">
      <BButton variant="primary" size="sm" :disabled="busy || text.trim() === ''" @click="letIn">
        {{
          busy
            ? $t('combine.nameplatePanel.makingTheLetters')
            : there
              ? $t('combine.nameplatePanel.changeNameplate')
              : $t('combine.nameplatePanel.addNameplate')
        }}
      </BButton>
      <BButton v-if="there" variant="quiet" size="sm" @click="store.remove('nameplate')">{{
        $t('combine.nameplatePanel.removeNameplate')
      }}</BButton>
    </div>
  </FoldPanel>
</template>
