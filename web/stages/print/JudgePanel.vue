<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { text, fixed } from '../../i18n'
import { figure } from '../../manner'
import { MARK_KINDS, type Mark, type PlateRecord } from '../../../contract/runs'
import NumberField from '../../shell/NumberField.vue'
import { usePiece } from '../../stores/piece'
import { useRuns } from '../../stores/runs'
import type { Picked } from '../../viewport/scene'
import { useViewport } from '../../viewport/useViewport'
import CauseList from './CauseList.vue'
import { FAULTS } from './faultWords'
import { useJudging } from './useJudging'
import { useReprint } from './useReprint'
import FaultNote from '../../shell/FaultNote.vue'

/** The parts of a plate on the turntable, one after the other: what is wrong where, why, and what is printed again. */
const props = defineProps<{ plate: PlateRecord }>()
const piece = usePiece(),
  runs = useRuns(),
  viewport = useViewport()
const j = useJudging(() => props.plate)
const { part, own, weighed } = j
const again = useReprint()
const router = useRouter()
const kind = ref<Mark['kind'] | null>(null)
const open = ref<string | null>(null)
const RESULTS = [
  ['good', 'good'],
  ['usable', text('print.judgePanel.usable')],
  ['failed', 'failed'],
] as const
const device = computed(() => runs.deviceOf(props.plate))
const canTell = computed(() => device.value?.card.standIn === true && device.value.state?.job === props.plate.id)
/** the part as it is now, whose supports can be changed; null when it is gone */
const living = computed(() => piece.piece?.partList.find((p) => p.id === part.value.partId) ?? null)
/** As one counts them, whatever their order on the plate. */
const inOrder = computed(() =>
  props.plate.parts.map((p, i) => [p, i] as const).sort(([a], [b]) => a.name.localeCompare(b.name) || a.copy - b.copy),
)
const failed = computed(() => props.plate.outcomes.filter((o) => o.result === 'failed').length)
viewport.describe(() => ({
  stands: true,
  mesh: part.value.mesh,
  markers: own.value.map((m) => ({
    point: m.point,
    kind:
      m.id === open.value
        ? ('hand' as const)
        : m.kind === 'missing' || m.kind === 'torn'
          ? ('problem' as const)
          : ('warning' as const),
    over: true,
  })),
}))
viewport.describe(() =>
  kind.value
    ? { mode: 'pick', hint: text('print.judgePanel.clickThere', { hint: FAULTS[kind.value].hint }), onPick: pressed }
    : null,
)
function pressed(p: Picked): void {
  if (!kind.value) return
  j.put(kind.value, p.point)
  open.value = j.marks.value.at(-1)!.id
  kind.value = null
}
/** The piece comes onto the table; its own stage is keyed by it. */
function orientAgain(id: string): void {
  piece.partIndex = Math.max(0, piece.piece?.partList.findIndex((p) => p.id === id) ?? 0)
  void router.push(`/pieces/${piece.piece!.id}/orient`)
}
function show(m: Mark): void {
  open.value = open.value === m.id ? null : m.id
  viewport.show(m.point)
}
</script>

<template>
  <BButton variant="quiet" size="sm" class="mb-2" @click="runs.judging = false">{{
    $t('print.judgePanel.backToThePlate')
  }}</BButton>
  <h2 class="mb-1">{{ $t('print.judgePanel.result') }}</h2>
  <p class="soft small mb-2">
    {{
      $t('print.judgePanel.plateOfRun', {
        printerName: plate.printerName,
        number: plate.number,
        number2: runs.runOf(plate).number,
      })
    }}
  </p>
  <BButton v-if="canTell" variant="primary" size="sm" class="mb-2" @click="j.look()">
    {{ $t('print.judgePanel.askWhatIsOn', { name: device!.card.name }) }}
  </BButton>
  <ul class="parts">
    <li v-for="[p, i] in inOrder" :key="`${p.partId}${p.copy}`" :class="{ here: p === part }">
      <BButton variant="card" class="name" @click="j.at.value = i"
        >{{ p.name }}{{ p.copy > 0 ? ` ${p.copy + 1}` : '' }}</BButton
      >
      <span class="btn-group btn-group-sm" role="group" :aria-label="$t('print.judgePanel.resultOf', { name: p.name })">
        <BButton
          v-for="[r, word] in RESULTS"
          :key="r"
          :variant="j.resultOf(p) === r ? (r === 'failed' ? 'danger' : 'primary') : 'quiet'"
          :aria-pressed="j.resultOf(p) === r"
          @click="j.say(p, r)"
        >
          {{ word }}
        </BButton>
      </span>
    </li>
  </ul>
  <section class="mb-3">
    <h3 class="h6 mb-1">{{ $t('print.judgePanel.faultsOf', { name: part.name }) }}</h3>
    <p v-if="own.length === 0" class="soft small mb-1">{{ $t('print.judgePanel.noneMarked') }}</p>
    <article v-for="m in own" :key="m.id" class="fault" :class="{ open: open === m.id }" :data-mark="m.kind">
      <BButton variant="card" class="name" :aria-expanded="open === m.id" @click="show(m)">
        <b>{{ FAULTS[m.kind].word }}</b><span class="soft"
          >{{ $t('print.judgePanel.mmUp', { point: fixed(m.point[2], 1) })
          }}<template v-if="m.reach">{{ $t('print.judgePanel.toMm', { reach: fixed(m.reach[1], 1) }) }}</template></span
        >
      </BButton>
      <template v-if="open === m.id">
        <CauseList :plate="plate" :mark="m" :part="living" />
        <div class="d-flex gap-1 flex-wrap">
          <BButton
            v-if="(m.kind === 'missing' || m.kind === 'torn') && living"
            variant="quiet"
            size="sm"
            :disabled="again.busy.value !== ''"
            @click="again.pieceOnly(m, living, plate)"
          >
            {{ again.busy.value || $t('print.judgePanel.printOnlyThisPiece') }}
          </BButton>
          <BButton variant="quiet" size="sm" @click="j.drop(m.id)">{{ $t('print.judgePanel.noFault') }}</BButton>
        </div>
      </template>
    </article>
    <p v-if="again.done.value" role="status" class="soft small mb-1">
      {{ again.done.value }}
      <BButton v-if="again.made.value" variant="primary" size="sm" class="ms-1" @click="orientAgain(again.made.value)">
        {{ $t('print.judgePanel.chooseAnOrientationFor') }}
      </BButton>
    </p>
    <FaultNote :text="again.fault.value" class="mb-1" />
    <div class="d-flex gap-1 flex-wrap mt-1">
      <BButton
        v-for="k in MARK_KINDS"
        :key="k"
        :variant="kind === k ? 'primary' : 'quiet'"
        size="sm"
        :title="FAULTS[k].hint"
        :aria-pressed="kind === k"
        @click="kind = kind === k ? null : k"
      >
        {{ FAULTS[k].word }}
      </BButton>
    </div>
  </section>
  <section class="mb-3">
    <NumberField
      :model-value="weighed ?? 0"
      :label="$t('print.judgePanel.weightOfEverythingOn')"
      unit="g"
      :step="0.1"
      :min="0"
      :max="50000"
      :digits="2"
      @update:model-value="((weighed = $event), (j.changed.value = true))"
    />
    <p class="soft small mb-1">
      <template v-if="j.meant.value !== null"
        >{{ $t('print.judgePanel.expectedGWithSupports', { meant: fixed(j.meant.value, 1) })
        }}<template v-if="weighed"
          >, {{ weighed > j.meant.value ? '+' : '−'
          }}{{ figure(Math.abs((100 * (weighed - j.meant.value)) / j.meant.value), 1) }} %</template
        >.</template
      >
      <BButton v-if="runs.scale" variant="quiet" size="sm" class="ms-1" :disabled="j.busy.value" @click="j.weigh()">
        {{ $t('print.judgePanel.read', { name: runs.scale.card.name }) }}
      </BButton>
    </p>
  </section>
  <div class="d-flex gap-2 flex-wrap">
    <BButton
      variant="primary"
      :disabled="j.busy.value || (!j.changed.value && plate.state === 'judged')"
      @click="j.keep()"
    >
      {{ $t('print.judgePanel.saveResult') }}
    </BButton>
    <BButton v-if="plate.state === 'judged' && failed > 0" variant="quiet" @click="again.failedOnly(plate)">
      {{ $t('print.judgePanel.printFailedTheFailed', { failed }) }}
    </BButton>
  </div>
  <p v-if="j.said.value" role="status" class="soft small mb-0 mt-1">{{ j.said.value }}</p>
  <FaultNote :text="j.fault.value" class="mt-1" />
</template>

<style scoped>
.parts {
  list-style: none;
  padding: 0;
  margin-bottom: 12px;
}
.parts li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 8px;
  padding: 3px 6px;
  border-radius: 5px;
}
.parts li.here {
  background: var(--paper-sunk);
}
.name {
  border: 0;
  background: none;
  padding: 0;
  text-align: left;
  color: inherit;
  min-width: 0;
}
.fault {
  border-left: 3px solid var(--line);
  padding: 3px 0 4px 9px;
  margin-bottom: 4px;
}
.fault.open {
  border-color: var(--action);
}
</style>
