<script setup lang="ts">
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed } from 'vue'
import { text, fixed } from '../../i18n'
import { usePicking } from '../../composables/usePicking'
import { useAssembly } from '../../stores/assembly'
import { ownDirection } from '../../stores/partFrame'
import { usePiece } from '../../stores/piece'

/** Where the face looks, against the front of the base and the nameplate. */
const store = usePiece(),
  assembly = useAssembly(),
  picking = usePicking()
function pick(): void {
  picking.ask(text('combine.facingPanel.clickTheMiddleOf', { name: store.part?.name }), (p) => {
    const part = store.part
    if (p.companion !== null || !part) return
    picking.stop()
    const pose = part.steps.find((s) => s.op.kind === 'pose')?.op
    // A head turns with the neck; without one the face turns with the part.
    const joint = pose?.kind === 'pose' && pose.joints.some((j) => j.name === 'neck') ? 'neck' : null
    void store.save({ facing: { partId: part.id, direction: ownDirection(part, p.normal, joint), joint } })
  })
}
const words = (a: number): string =>
  Math.abs(a) < 0.5
    ? text('combine.facingPanel.toTheFront')
    : text('combine.facingPanel.toTheA', { abs: fixed(Math.abs(a), 0), a: a > 0 })
const f = computed(() => assembly.facing)
</script>

<template>
  <FoldPanel class="mb-3" :open="!!f">
    <template #title>{{ $t('combine.facingPanel.whereItLooks') }}</template>
    <dl v-if="f" class="facts mt-1">
      <dt>{{ $t('combine.facingPanel.theFace') }}</dt>
      <dd>{{ words(f.face) }}</dd>
      <dt>{{ $t('combine.facingPanel.frontOfTheBase') }}</dt>
      <dd>{{ words(f.front) }}</dd>
      <template v-if="f.plate !== null">
        <dt>{{ $t('combine.facingPanel.nameplate') }}</dt>
        <dd>{{ words(f.plate) }}</dd>
      </template>
    </dl>
    <div class="d-flex gap-1 mt-1">
      <BButton variant="quiet" size="sm" @click="picking.asking.value ? picking.stop() : pick()">
        {{
          picking.asking.value
            ? $t('combine.facingPanel.cancel')
            : f
              ? $t('combine.facingPanel.chooseAgain')
              : $t('combine.facingPanel.chooseTheFace')
        }}
      </BButton>
      <BButton v-if="f" variant="quiet" size="sm" @click="store.save({ facing: null })">{{
        $t('combine.facingPanel.remove')
      }}</BButton>
    </div>
  </FoldPanel>
</template>
