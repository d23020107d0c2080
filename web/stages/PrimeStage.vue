<script setup lang="ts">
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { storeToRefs } from 'pinia'
import { computed, ref } from 'vue'
import { text } from '../i18n'
import { FLAW_KINDS, type FlawRecord } from '../../contract/flaws'
import { useAttempt } from '../composables/useAttempt'
import FindingList from '../shell/FindingList.vue'
import { useFindings } from '../stores/findings'
import { useInspection } from '../stores/inspection'
import { usePiece } from '../stores/piece'
import type { Picked } from '../viewport/scene'
import { useViewport } from '../viewport/useViewport'
import DetailLeft from './prime/DetailLeft.vue'
import FlawCard from './prime/FlawCard.vue'
import { FLAWS } from './prime/flawWords'
import PassChart from './prime/PassChart.vue'
import FaultNote from '../shell/FaultNote.vue'

/** Primer shows what bare resin hid: each flaw is marked where it is, mended, and looked for again, until a pass finds none. */
const piece = usePiece(),
  found = useFindings(),
  store = useInspection(),
  viewport = useViewport()
const { inspection, flaws, open, pass, last } = storeToRefs(store)
const { fault, busy, attempt } = useAttempt()
const kind = ref<FlawRecord['kind'] | null>(null)
const chosen = ref<string | null>(null)
const note = ref('')
const here = computed(() => flaws.value.filter((f) => f.partId === piece.part?.id))
/** Open ones first, and among them the newest. */
const listed = computed(() =>
  here.value
    .map((f, i) => ({ f, number: i + 1 }))
    .sort((a, b) => Number(a.f.state !== 'open') - Number(b.f.state !== 'open') || b.number - a.number),
)
viewport.describe(() => ({
  mesh: piece.meshAfter('channel'),
  markers: here.value.map((f) => ({
    point: f.point,
    over: f.id === chosen.value,
    radius: Math.min(3, Math.max(1, f.size / 3)),
    kind: f.id === chosen.value ? ('hand' as const) : f.state === 'open' ? ('warning' as const) : ('tip' as const),
  })),
}))
viewport.describe(() =>
  kind.value
    ? { mode: 'pick', hint: text('stages.primeStage.clickWhereItIs', { hint: FLAWS[kind.value].hint }), onPick: mark }
    : null,
)
function mark(p: Picked): void {
  const k = kind.value,
    part = piece.part
  if (!k || !part) return
  void attempt(async () => {
    chosen.value = await store.mark({ kind: k, size: FLAWS[k].size, partId: part.id, point: p.point })
  })
}
function toggle(f: FlawRecord): void {
  chosen.value = chosen.value === f.id ? null : f.id
  if (chosen.value) viewport.show(f.point)
}
const end = (acceptRest: boolean): Promise<void> =>
  attempt(async () => {
    await store.end(note.value, acceptRest)
    kind.value = null
    note.value = ''
  })
const checked = computed(() =>
  inspection.value?.closed ? text('stages.primeStage.inspectedInPassNo', { pass: last.value!.pass }) : undefined,
)
</script>

<template>
  <FindingList :judged="found.byStage.prime" :checked="checked" :fixes="{}" @show="viewport.show($event)" />
  <DetailLeft v-if="piece.part" />
  <section v-if="pass" class="mb-3">
    <h2 class="mb-1">{{ $t('stages.primeStage.markWhatYouSee') }}</h2>
    <div class="d-flex gap-1 flex-wrap">
      <BButton
        v-for="k in FLAW_KINDS"
        :key="k"
        :variant="kind === k ? 'primary' : 'quiet'"
        size="sm"
        :title="FLAWS[k].hint"
        :aria-pressed="kind === k"
        @click="kind = kind === k ? null : k"
      >
        {{ FLAWS[k].word }}
      </BButton>
    </div>
  </section>
  <section v-if="inspection" class="sheet p-3 mb-3" data-passes>
    <div class="d-flex justify-content-between align-items-baseline">
      <h2 class="m-0">
        {{
          pass
            ? $t('stages.primeStage.pass', { pass: pass.pass })
            : inspection.closed
              ? $t('stages.primeStage.inspected')
              : last
                ? $t('stages.primeStage.afterPass', { pass: last.pass })
                : $t('stages.primeStage.notInspectedYet')
        }}
      </h2>
      <span v-if="pass" class="soft">{{
        $t('stages.primeStage.foundOpen', { found: pass.found, open: open.length })
      }}</span>
    </div>
    <PassChart v-if="inspection.passes.length > 0" :passes="inspection.passes" class="my-2" />
    <template v-if="pass">
      <label v-if="open.length > 0" class="d-block small mb-1"
        >{{ $t('stages.primeStage.whyTheRemainingFlaws') }} <BFormInput v-model="note" size="sm" maxlength="2000"
      /></label>
      <div class="d-flex gap-2 flex-wrap">
        <BButton variant="primary" size="sm" :disabled="busy" @click="end(false)">
          {{
            pass.found === 0 && open.length === 0
              ? $t('stages.primeStage.noFlawsFoundFinish')
              : $t('stages.primeStage.finishThisPass')
          }}
        </BButton>
        <BButton
          v-if="open.length > 0"
          variant="quiet"
          size="sm"
          :disabled="busy || note.trim() === ''"
          @click="end(true)"
        >
          {{ $t('stages.primeStage.acceptTheRemainingFlaws') }}
        </BButton>
      </div>
    </template>
    <template v-else>
      <p class="soft small mb-2">
        {{ inspection.closed ? $t('stages.primeStage.primeAndInspectAgain') : $t('stages.primeStage.primeItLetIt') }}
      </p>
      <BButton variant="primary" size="sm" :disabled="busy || !piece.part" @click="attempt(() => store.begin())">
        {{ $t('stages.primeStage.startPass', { pass: (last?.pass ?? 0) + 1 }) }}
      </BButton>
    </template>
    <FaultNote :text="fault" class="mt-2" />
  </section>
  <FlawCard
    v-for="{ f, number } in listed"
    :key="f.id"
    :flaw="f"
    :number="number"
    :open="chosen === f.id"
    @toggle="toggle(f)"
  />
</template>
