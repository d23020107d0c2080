<script setup lang="ts">
import { fixed } from '../../i18n'
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'
import { usePrinterAndResin } from '../../composables/usePrinterAndResin'
import { duration } from '../../shell/duration'
import { usePiece } from '../../stores/piece'
import { usePlating } from '../../stores/plating'
import { useRuns } from '../../stores/runs'
import { useBeginRun } from './useBeginRun'
import FaultNote from '../../shell/FaultNote.vue'

/** What the next run would be: the plates as they are nested, the resin and its lot. */
const piece = usePiece(),
  plating = usePlating(),
  runs = useRuns()
const { resin } = usePrinterAndResin()
const { plates, begin, busy, fault } = useBeginRun()
const lot = ref('')
const next = computed(() => 1 + Math.max(0, ...runs.runs.map((r) => r.number)))
const again = computed(() => runs.runs.find((r) => r.id === runs.reprintOf) ?? null)
</script>

<template>
  <FoldPanel class="mb-3" :open="runs.runs.length === 0 || again !== null">
    <template #title
      >{{
        again
          ? $t('print.beginRun.printTheFailedParts', { number: again.number })
          : $t('print.beginRun.prepareRun', { next })
      }}
    </template>
    <p v-if="plating.parts.length === 0" class="soft mb-0">
      {{ $t('print.beginRun.noPartHasAn') }}
      <RouterLink :to="`/pieces/${piece.piece!.id}/orient`">{{ $t('print.beginRun.chooseAnOrientation') }}</RouterLink>
      {{ $t('print.beginRun.first') }}
    </p>
    <template v-else>
      <ul class="list mt-1">
        <li v-for="(p, i) in plates" :key="i">
          <span>{{ plating.printerOf(p)?.name }}</span>
          <span class="soft small">{{
            $t('print.beginRun.partsMm', {
              parts: p.parts.length,
              height: fixed(p.height, 0),
              seconds: duration(p.seconds),
            })
          }}</span>
        </li>
      </ul>
      <p v-if="plating.measuring && plates.length === 0" class="soft small">{{ $t('print.beginRun.nesting') }}</p>
      <p class="soft small mb-1">
        {{ $t('print.beginRun.copiesPrintersAndPositions') }}
        <RouterLink :to="`/pieces/${piece.piece!.id}/plates`">{{ $t('print.beginRun.plates') }}</RouterLink>.
      </p>
      <label class="d-flex gap-2 align-items-center mb-2"
        ><span class="text-nowrap">{{ $t('print.beginRun.lotOf', { name: resin?.name ?? 'the resin' }) }}</span
        ><BFormInput
          v-model.trim="lot"
          size="sm"
          maxlength="80"
          list="lots"
          :placeholder="$t('print.beginRun.asOnTheBottle')"
      /></label>
      <datalist id="lots">
        <option v-for="b in resin?.bottles ?? []" :key="b.lot" :value="b.lot">
          {{ $t('print.beginRun.mlLeft', { ml: fixed(b.ml, 0) }) }}
        </option>
      </datalist>
      <BButton
        variant="primary"
        :disabled="busy !== '' || plating.behind || plates.length === 0 || !resin"
        @click="begin(lot)"
      >
        {{ busy || $t('print.beginRun.sliceAndPrepare') }}
      </BButton>
      <BButton v-if="again" variant="quiet" class="ms-2" @click="runs.reprintOf = null">{{
        $t('print.beginRun.notAReprint')
      }}</BButton>
      <FaultNote :text="fault" class="mt-1" />
    </template>
  </FoldPanel>
</template>

<style scoped>
.list {
  list-style: none;
  padding: 0;
  margin-bottom: 6px;
}
.list li {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
</style>
