<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed } from 'vue'
import { z } from 'zod'
import { text } from '../../i18n'
import type { FlawRecord } from '../../../contract/flaws'
import { CAUTIONS } from '../../../core/plan/materials/cautions'
import { manner } from '../../manner'
import { say } from '../../../core/words/say'
import { remedyFor } from '../../../core/plan/facts/flaws'
import { api } from '../../api'
import { preparePhoto } from '../../shell/photo'
import { useAttempt } from '../../composables/useAttempt'
import DraftInput from '../../shell/DraftInput.vue'
import { duration } from '../../shell/duration'
import NumberField from '../../shell/NumberField.vue'
import { useInspection } from '../../stores/inspection'
import { FLAWS } from './flawWords'
import FaultNote from '../../shell/FaultNote.vue'
import FileButton from '../../shell/FileButton.vue'

/** One flaw: what it is, what helps, and what became of it. */
const props = defineProps<{ flaw: FlawRecord; number: number; open: boolean }>()
defineEmits<{ toggle: [] }>()
const store = useInspection()
const { fault, attempt } = useAttempt()
const remedy = computed(() => remedyFor(props.flaw.kind, props.flaw.size))
const cause = computed(() => {
  const c = props.flaw.cause
  if (!c) return ''
  if (c.kind === 'tip') return text('prime.flawCard.aSupportTipOf', { tip: c.tip })
  return {
    layers: text('prime.flawCard.layerSteps'),
    joint: text('prime.flawCard.atAJoint'),
    sanding: text('prime.flawCard.fromSanding'),
    spray: text('prime.flawCard.fromSpraying'),
  }[c.kind]
})
const change = (fields: Parameters<typeof store.change>[1]): Promise<void> =>
  attempt(() => store.change(props.flaw, fields))
const photograph = (file: File): Promise<void> =>
  attempt(async () => {
    const { hash } = await api(z.object({ hash: z.string() }), 'POST', '/blobs', await preparePhoto(file))
    await store.change(props.flaw, { photo: hash })
  })
</script>

<template>
  <article class="flaw" :class="[flaw.state, { open }]" :data-flaw="flaw.kind" :data-state="flaw.state">
    <BButton variant="card" class="name" :aria-expanded="open" @click="$emit('toggle')">
      <span class="n num">{{ number }}</span>
      <b>{{ FLAWS[flaw.kind].word }}</b><span class="soft">{{
        $t('prime.flawCard.mmStateState2Repaired', {
          size: flaw.size,
          state: flaw.state === 'open',
          state2: flaw.state === 'mended',
          closedPass: flaw.closedPass,
        })
      }}</span>
    </BButton>
    <template v-if="open">
      <p class="mb-1">
        {{ say(remedy.title, manner) }}. <span class="soft">{{ duration(remedy.handsOn) }}</span><span
          v-if="remedy.wait > 0"
          class="soft"
          >{{ $t('prime.flawCard.thenOfWaiting', { wait: duration(remedy.wait) }) }}</span
        >
      </p>
      <p v-if="cause" class="soft small mb-1">{{ cause }}</p>
      <p v-for="c in remedy.cautions" :key="c" class="caution">{{ say(CAUTIONS[c], manner) }}</p>
      <NumberField
        :model-value="flaw.size"
        :label="$t('prime.flawCard.size')"
        unit="mm"
        :step="0.1"
        :min="0.1"
        :max="500"
        @update:model-value="change({ size: $event })"
      />
      <label class="d-block small mb-1"
        >{{ $t('prime.flawCard.note') }}
        <DraftInput :value="flaw.note" maxlength="2000" @done="change({ note: $event })"
      /></label>
      <img
        v-if="flaw.photo"
        :src="`/api/blobs/${flaw.photo}?type=image/png`"
        :alt="$t('prime.flawCard.photoOfTheFlaw')"
        class="photo"
      />
      <div class="d-flex gap-1 flex-wrap mt-1">
        <template v-if="flaw.state === 'open'">
          <BButton variant="primary" size="sm" @click="change({ state: 'mended' })">{{
            $t('prime.flawCard.markAsRepaired')
          }}</BButton>
          <BButton variant="quiet" size="sm" @click="change({ state: 'accepted' })">{{
            $t('prime.flawCard.accept')
          }}</BButton>
        </template>
        <BButton v-else variant="quiet" size="sm" @click="change({ state: 'open' })">{{
          $t('prime.flawCard.markAsOpen')
        }}</BButton>
        <FileButton
          accept="image/png,image/jpeg,image/webp"
          :label="$t('prime.flawCard.photoOfFlaw', { number })"
          @files="photograph($event[0]!)"
          >{{ $t('prime.flawCard.photo') }}</FileButton
        >
        <BButton v-if="flaw.state !== 'mended'" variant="quiet" size="sm" @click="attempt(() => store.drop(flaw))">
          {{ $t('prime.flawCard.notAFlaw') }}
        </BButton>
      </div>
      <FaultNote :text="fault" class="mt-1" />
    </template>
  </article>
</template>

<style scoped>
.flaw {
  border-left: 3px solid var(--warning);
  padding: 3px 0 4px 9px;
  margin-bottom: 4px;
}
.flaw.mended,
.flaw.accepted {
  border-color: var(--line);
}
.flaw.open {
  padding-bottom: 8px;
}
.name {
  border: 0;
  background: none;
  padding: 0;
  text-align: left;
  color: inherit;
}
.n {
  margin-right: 8px;
  color: var(--ink-soft);
}
.photo {
  max-width: 100%;
  max-height: 150px;
  border-radius: 4px;
}
</style>
