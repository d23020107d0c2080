<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed } from 'vue'
import { text, fixed } from '../../i18n'
import { rankOf } from '../../../core/operations/registry'
import { useAttempt } from '../../composables/useAttempt'
import NumberField from '../../shell/NumberField.vue'
import { usePiece } from '../../stores/piece'
import { usePlan } from '../../stores/plan'
import FaultNote from '../../shell/FaultNote.vue'

/** Pairs in the order in which they are put together dry: how each should go, how it went, and what helps. */
const piece = usePiece(),
  plan = usePlan()
const pairs = computed(() => plan.plan?.pairs ?? [])
const tried = computed(() => pairs.value.filter((p) => p.tried).length)
/** mm from the bore to the guide's rim over the joint's own radius, and over the wire's of its drill */
const RIM = 2.5,
  DRILL = 0.1
const { fault, busy, attempt } = useAttempt()
type Triple = [number, number, number]
/** A body for each of the two that sits over the joint and leads the drill: printed beside them. */
const guides = (p: (typeof pairs.value)[number]): Promise<void> =>
  attempt(async () => {
    const pin = p.pin!
    await piece.arrange({
      create: p.ids.map((id, k) => ({
        name: text('plan.dryFitSheet.drillingGuideFor', { value: k === 0 ? p.a : p.b }),
        from: id,
        operations: [
          ...(piece.piece?.partList.find((x) => x.id === id)?.steps.map((s) => s.op) ?? []).filter(
            (o) => rankOf(o.kind) < rankOf('guide'),
          ),
          {
            kind: 'guide' as const,
            point: [...pin.point] as Triple,
            // Into the part: against the way its face looks.
            direction: pin.outward.map((v) => (k === 0 ? -v : v)) as Triple,
            bore: pin.wire + DRILL,
            radius: Math.max(pin.radius + RIM, pin.wire + RIM),
            height: 8,
            lap: 2.5,
            clearance: 0.15,
          },
        ],
      })),
    })
  })
async function say(key: string, fit: { tight: number | null } | null): Promise<void> {
  const others = Object.entries(piece.piece?.dryFits ?? {}).filter(([k]) => k !== key)
  await piece.save({ dryFits: Object.fromEntries(fit ? [...others, [key, fit]] : others) })
}
</script>

<template>
  <section v-if="pairs.length > 0" class="mb-3" :aria-label="$t('plan.dryFitSheet.dryFitSheet')">
    <h2 class="mb-1">
      {{ $t('plan.dryFitSheet.dryFit') }}
      <span class="soft small fw-normal">{{ $t('plan.dryFitSheet.ofTested', { tried, pairs: pairs.length }) }}</span>
    </h2>
    <article v-for="(p, i) in pairs" :key="p.key" class="pair" :data-pair="p.word">
      <p class="mb-1">
        <span class="num soft n">{{ i + 1 }}</span><b>{{ p.a }}</b> {{ $t('plan.dryFitSheet.and') }}
        <b>{{ p.b }}</b><br /><span class="soft small">{{ p.sentence }}</span>
      </p>
      <div class="d-flex gap-1 align-items-center flex-wrap">
        <BButton
          :variant="p.tried && p.tried.tight === null ? 'primary' : 'quiet'"
          size="sm"
          :aria-pressed="p.tried !== null && p.tried.tight === null"
          @click="say(p.key, p.tried && p.tried.tight === null ? null : { tight: null })"
        >
          {{ $t('plan.dryFitSheet.fits') }}
        </BButton>
        <BButton
          :variant="p.tried && p.tried.tight !== null && p.tried.tight > 0 ? 'primary' : 'quiet'"
          size="sm"
          :aria-pressed="p.tried !== null && (p.tried.tight ?? 0) > 0"
          @click="say(p.key, { tight: 0.2 })"
        >
          {{ $t('plan.dryFitSheet.tooTight') }}
        </BButton>
        <BButton
          :variant="p.tried && p.tried.tight !== null && p.tried.tight < 0 ? 'primary' : 'quiet'"
          size="sm"
          :aria-pressed="p.tried !== null && (p.tried.tight ?? 0) < 0"
          @click="say(p.key, { tight: -0.2 })"
        >
          {{ $t('plan.dryFitSheet.tooLoose') }}
        </BButton>
      </div>
      <BButton
        v-if="p.pin && !p.pin.printed"
        variant="quiet"
        size="sm"
        class="mt-1"
        :disabled="busy"
        :title="$t('plan.dryFitSheet.twoBodiesPrintedWith')"
        @click="guides(p)"
      >
        {{ $t('plan.dryFitSheet.drillingGuideMm', { wire: fixed(p.pin.wire + DRILL, 1) }) }}
      </BButton>
      <template v-if="p.tried && p.tried.tight !== null">
        <NumberField
          :model-value="Math.abs(p.tried.tight)"
          :label="p.tried.tight > 0 ? $t('plan.dryFitSheet.tooTightBy') : $t('plan.dryFitSheet.tooLooseBy')"
          unit="mm"
          :step="0.05"
          :min="0.01"
          :max="10"
          :digits="2"
          @update:model-value="say(p.key, { tight: Math.sign(p.tried.tight) * $event })"
        />
        <ul class="small mb-0">
          <li v-for="r in p.remedies" :key="r">{{ r }}</li>
        </ul>
      </template>
    </article>
    <FaultNote :text="fault" />
  </section>
</template>

<style scoped>
.pair {
  border-left: 3px solid var(--line);
  padding: 3px 0 5px 9px;
  margin-bottom: 6px;
}
.n {
  margin-right: 8px;
}
</style>
