<script setup lang="ts">
import { computed, ref, watch, watchEffect } from 'vue'
import type { Health } from '../../core/mesh/health'
import type { Measures } from '../../core/mesh/measure'
import type { Thinness } from '../../core/fit/thinness'
import { doesNotFit } from '../../core/findings/doesNotFit'
import { SURVIVES, tooThin } from '../../core/findings/tooThin'
import { resinUse } from '../../core/print/printer'
import { useCheck } from '../composables/useCheck'
import { useMeans } from '../composables/useMeans'
import FindingList from '../shell/FindingList.vue'
import NumberField from '../shell/NumberField.vue'
import { usePiece } from '../stores/piece'
import { useStock } from '../stores/stock'
import { useViewport } from '../viewport/useViewport'

const store = usePiece(), stock = useStock(), viewport = useViewport()
const { printer, resin } = useMeans()
const source = computed(() => store.meshBefore('scale'))
const health = useCheck<Health & { measures: Measures }>(() => source.value, () => ({ kind: 'health' }))
const applied = computed(() => { const op = store.step('scale')?.op; return op?.kind === 'scale' ? op.factor : 1 })
const factor = ref(applied.value)
watch(applied, (v) => { factor.value = v })
const base = computed(() => health.report.value?.measures ?? null)
const size = computed(() => base.value?.size.map((s) => s * factor.value) as [number, number, number] | undefined)
const volume = computed(() => (base.value?.volume ?? 0) * factor.value ** 3)
const area = computed(() => (base.value?.area ?? 0) * factor.value ** 2)
const ml = computed(() => resinUse(volume.value, area.value))
const thin = useCheck<Thinness>(() => (base.value ? source.value : null), () => ({ kind: 'thinness', limit: SURVIVES / applied.value }))
const scaledThin = computed<Thinness | null>(() => {
  const t = thin.report.value, f = factor.value
  return t && { ...t, thinnest: t.thinnest * f, thinArea: t.thinnest * f < SURVIVES ? t.thinArea * f * f : 0, places: t.places.map((p) => ({ ...p, thickness: p.thickness * f })) }
})
const findings = computed(() => [...(size.value && printer.value ? doesNotFit(size.value, printer.value, false) : []), ...(scaledThin.value ? tooThin(scaledThin.value) : [])])
const stature = computed(() => store.piece?.subjectStature ?? 1750)
// Until landmarks are set, the standing height is the sculpt's own; the base counts with it, and the words say so.
const ratio = computed(() => (size.value ? stature.value / size.value[2] : 0))
const RATIOS = [4, 6, 9, 12, 16]
viewport.clear()
watchEffect(() => { viewport.mesh = store.meshAfter('scale') ?? source.value })
function act(name: string): void {
  if (name.startsWith('scale:')) factor.value *= Number(name.slice(6))
  if (name === 'enlarge' && scaledThin.value) factor.value *= SURVIVES / scaledThin.value.thinnest
}
const changed = computed(() => Math.abs(factor.value / applied.value - 1) > 1e-6)
</script>

<template>
  <FindingList :findings="findings" :measuring="!base || thin.measuring.value" checked="Goes into the printer, and nothing is thinner than 0.6 mm at this size." :acts="['scale', 'enlarge']" @show="viewport.show" @act="act" />
  <section v-if="base && size" class="sheet p-3 mb-3">
    <div class="d-flex justify-content-between align-items-baseline"><span><span class="figure">{{ size[2].toFixed(1) }}</span> <span class="soft">mm tall</span></span><span class="soft">1 : {{ ratio.toFixed(1) }}</span></div>
    <dl class="facts mt-2">
      <dt>across</dt><dd>{{ size[0].toFixed(1) }} × {{ size[1].toFixed(1) }} mm</dd>
      <dt>solid volume</dt><dd>{{ (volume / 1000).toFixed(1) }} ml</dd>
      <dt>resin, printed solid</dt><dd>{{ ml.toFixed(1) }} ml</dd>
      <dt>mass</dt><dd>{{ ((volume / 1000) * (resin?.density ?? 1.12)).toFixed(0) }} g</dd>
      <dt>price of resin</dt><dd>{{ stock.money((ml / 1000) * (resin?.pricePerLitre ?? 0)) }}</dd>
    </dl>
  </section>
  <section v-if="base && size" class="mb-3">
    <h2 class="mb-2">Your choices</h2>
    <NumberField :model-value="size[2]" label="Height" unit="mm" :min="1" :max="4000" :digits="1" @update:model-value="factor = $event / base.size[2]" />
    <NumberField :model-value="factor" label="Factor" unit="×" :step="0.05" :min="0.0001" :max="10000" :digits="4" @update:model-value="factor = $event" />
    <NumberField :model-value="ratio" label="Ratio, one to" unit="" :step="1" :min="0.1" :max="500" :digits="2" :source="`subject ${stature} mm, base included`" @update:model-value="factor = stature / $event / base.size[2]" />
    <div class="d-flex gap-1 flex-wrap mt-2"><button v-for="r in RATIOS" :key="r" class="btn btn-sm btn-quiet" @click="factor = stature / r / base.size[2]">1:{{ r }}</button></div>
  </section>
  <div class="d-flex gap-2">
    <button class="btn btn-primary" :disabled="!changed" @click="store.apply({ kind: 'scale', factor })">Set this size</button>
    <button v-if="changed" class="btn btn-quiet" @click="factor = applied">Back to {{ applied === 1 ? 'as it came' : `× ${applied.toFixed(3)}` }}</button>
  </div>
</template>
