<script setup lang="ts">
import FoldPanel from '../../shell/FoldPanel.vue'
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect'
import { ref } from 'vue'
import { text } from '../../i18n'
import type { SculptRecord } from '../../../contract/sculpts'
import SculptPicker from '../../shell/SculptPicker.vue'
import { useDerivations } from '../../stores/derivations'
import { usePiece } from '../../stores/piece'
import { usePlacing } from '../../composables/usePlacing'

/** Another sculpt under the same operations: its keys and pins stay where the joint is. */
const store = usePiece(),
  derivations = useDerivations(),
  placing = usePlacing()
const align = ref<'frame' | 'foot' | 'middle'>('foot')
const ALIGN = {
  foot: text('combine.swapPanel.itsFootWhereThe'),
  middle: text('combine.swapPanel.itsMiddleWhereThe'),
  frame: text('combine.swapPanel.asInItsFile'),
} as const
const open = ref(false),
  busy = ref(false)

async function swap(to: SculptRecord): Promise<void> {
  const part = store.part
  if (!part) return
  busy.value = true
  await store.guarded(async () => {
    const lists: { id: string; operations: ReturnType<typeof store.withOperation> }[] = []
    if (align.value !== 'frame') {
      const [was, is] = await Promise.all(
        [part.sculptMesh, to.mesh].map((mesh) => derivations.reported(mesh, { kind: 'measures' })),
      )
      const anchor = (m: typeof was): [number, number, number] => {
        const { min, max } = m!.box
        return [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2, align.value === 'foot' ? min[2] : (min[2] + max[2]) / 2]
      }
      lists.push({ id: part.id, operations: store.withOperation(part, placing.anchored(anchor(was), anchor(is))) })
    }
    await store.arrange({ lists, swap: [{ id: part.id, sculpt: to.id }] })
  })
  busy.value = false
  open.value = false
}
</script>

<template>
  <FoldPanel class="mb-3" :open="open" @toggle="open = $event">
    <template #title>{{ $t('combine.swapPanel.swapForAnotherSculpt', { name: store.part?.name }) }}</template>
    <template v-if="open">
      <label class="soft small mt-2" for="swap-align">{{ $t('combine.swapPanel.position') }}</label>
      <BFormSelect id="swap-align" v-model="align" size="sm">
        <option v-for="(w, k) in ALIGN" :key="k" :value="k">{{ w }}</option>
      </BFormSelect>
      <p v-if="busy" class="soft small my-2">{{ $t('combine.swapPanel.swapping') }}</p>
      <SculptPicker v-else :except="store.part?.sculptId" @choose="swap" />
      <p class="soft small mt-1 mb-0">{{ $t('combine.swapPanel.sizeKeysPinsAnd') }}</p>
    </template>
  </FoldPanel>
</template>
