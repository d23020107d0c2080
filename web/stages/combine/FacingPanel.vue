<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed } from 'vue'
import { usePicking } from '../../composables/usePicking'
import { useAssembly } from '../../stores/assembly'
import { ownDirection } from '../../stores/partFrame'
import { usePiece } from '../../stores/piece'

/** Where the face looks, against the front of the base and the nameplate. */
const store = usePiece(),
  assembly = useAssembly(),
  picking = usePicking()
function pick(): void {
  picking.ask(`Press the middle of the face on ${store.part?.name}, between the eyes`, (p) => {
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
  Math.abs(a) < 0.5 ? 'to the front' : `${Math.abs(a).toFixed(0)}° to the ${a > 0 ? 'right' : 'left'}`
const f = computed(() => assembly.facing)
</script>

<template>
  <details class="mb-3" :open="!!f">
    <summary>Where it looks</summary>
    <dl v-if="f" class="facts mt-1">
      <dt>the face</dt>
      <dd>{{ words(f.face) }}</dd>
      <dt>front of the base</dt>
      <dd>{{ words(f.front) }}</dd>
      <template v-if="f.plate !== null">
        <dt>nameplate</dt>
        <dd>{{ words(f.plate) }}</dd>
      </template>
    </dl>
    <div class="d-flex gap-1 mt-1">
      <BButton variant="quiet" size="sm" @click="picking.asking.value ? picking.stop() : pick()">
        {{ picking.asking.value ? 'Cancel' : f ? 'Press it again' : 'Press the face' }}
      </BButton>
      <BButton v-if="f" variant="quiet" size="sm" @click="store.save({ facing: null })">Forget it</BButton>
    </div>
  </details>
</template>
