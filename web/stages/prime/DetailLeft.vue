<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref } from 'vue'
import { useDetailLimits } from '../../composables/useDetailLimits'
import { useSurfaceMap } from '../../composables/useSurfaceMap'
import { usePlan } from '../../stores/plan'
import MapLegend from '../../viewport/MapLegend.vue'
import { useViewport } from '../../viewport/useViewport'

/** Where the sculpt's relief is deep enough to be seen after layers, sanding and this plan's primer. */
const plan = usePlan(),
  viewport = useViewport()
plan.lookedAt()
const limits = useDetailLimits()
const over = computed(() => plan.plan?.over ?? null)
const on = ref(false)
const { scale, problem } = useSurfaceMap(() =>
  on.value && over.value && viewport.scene.mesh
    ? {
        check: {
          kind: 'detailMap',
          other: viewport.scene.mesh,
          factor: 1,
          ...limits.value,
          // To the hundredth: as often as the plan changes a little, the map need not.
          film: Math.round(100 * (over.value.primer + over.value.sanded)) / 100,
        },
        scale: () => ({ kind: 'lack', from: 0, to: 1.5 }),
      }
    : null,
)
const um = (mm: number): string => `${Math.round(1000 * mm)} µm`
</script>

<template>
  <p v-if="over" class="mb-3">
    <BButton variant="quiet" size="sm" :aria-pressed="on" @click="on = !on">
      {{ on ? $t('prime.detailLeft.hideRemainingDetail') : $t('prime.detailLeft.showRemainingDetail') }}
    </BButton>
    <span class="soft small"
      >{{ ' '
      }}{{ $t('prime.detailLeft.underOfPrimerWith', { primer: um(over.primer), sanded: um(over.sanded) }) }}</span
    >
    <span v-if="problem" role="alert" class="text-danger small d-block">{{ problem }}</span>
  </p>
  <Teleport v-if="scale" to="#middle">
    <MapLegend :title="$t('prime.detailLeft.depthOfDetailAs')" :scale="scale" unit="×" />
  </Teleport>
</template>
