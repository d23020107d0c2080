<script setup lang="ts">
import { BFormCheckbox } from 'bootstrap-vue-next/components/BFormCheckbox'
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { ref } from 'vue'
import { fetchBytes } from '../../api'
import { messageOf } from '../../messageOf'
import NumberField from '../../shell/NumberField.vue'
import { useDerivations } from '../../stores/derivations'
import { usePiece } from '../../stores/piece'
import FaultNote from '../../shell/FaultNote.vue'

/** Simulated scanner: scans the part on the table and drops the cloud here as a file. */
const store = usePiece(),
  derivations = useDerivations()
const round = ref(8),
  noise = ref(0.1),
  dropouts = ref(10),
  floor = ref(true)
const busy = ref(false)
const problem = ref('')
async function scan(): Promise<void> {
  const mesh = store.meshAfter('scale')
  if (!mesh) return
  busy.value = true
  problem.value = ''
  try {
    const stations = Array.from({ length: round.value }, (_, i) => ({
      azimuth: (360 * i) / round.value,
      elevation: i % 2 === 0 ? 15 : 50,
    }))
    const d = await derivations.settled(mesh, {
      kind: 'scan',
      stations,
      across: 240,
      noise: noise.value / 100,
      dropouts: dropouts.value / 100,
      floor: floor.value,
      seed: Math.floor(Math.random() * 2 ** 31),
    })
    const bytes = await fetchBytes(d.blobs.ply!)
    await store.dropFiles([new File([bytes as BlobPart], `scan of ${store.part!.name}.ply`)])
  } catch (e) {
    problem.value = messageOf(e)
  }
  busy.value = false
}
</script>

<template>
  <FoldPanel class="mb-3">
    <template #title>{{ $t('import.scannerPanel.simulatedScanner') }}</template>
    <p class="soft small mt-1 mb-1">
      {{ $t('import.scannerPanel.ifYouHaveNo') }}
    </p>
    <NumberField v-model="round" :label="$t('import.scannerPanel.viewpointsAroundIt')" :min="1" :max="36" :digits="0" />
    <NumberField
      v-model="noise"
      :label="$t('import.scannerPanel.noise')"
      unit="% of its size"
      :step="0.05"
      :min="0"
      :max="3"
    />
    <NumberField
      v-model="dropouts"
      :label="$t('import.scannerPanel.raysLost')"
      unit="%"
      :min="0"
      :max="90"
      :digits="0"
    />
    <BFormCheckbox class="mb-2" v-model="floor">{{ $t('import.scannerPanel.withTheFloorIt') }}</BFormCheckbox>
    <BButton variant="quiet" size="sm" :disabled="busy || !store.meshAfter('scale')" @click="scan">
      {{ busy ? $t('import.scannerPanel.scanning') : $t('import.scannerPanel.scan', { name: store.part?.name ?? '' }) }}
    </BButton>
    <FaultNote :text="problem" />
  </FoldPanel>
</template>
