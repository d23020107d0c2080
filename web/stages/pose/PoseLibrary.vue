<script setup lang="ts">
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref } from 'vue'
import { text } from '../../i18n'
import type { JointRecord } from '../../../core/operations/pose'
import { usePiece } from '../../stores/piece'
import { useStock } from '../../stores/stock'
import type { Posing } from './usePosing'

/** Poses that the workshop remembers: any piece with joints of the same names can take them. */
const props = defineProps<{ posing: Posing }>()

const { joints } = props.posing
const store = usePiece(),
  stock = useStock()
const poses = computed(() => stock.workshop?.poses ?? [])
const name = ref('')
const turnedOnes = computed(() => joints.value.filter((j) => Math.abs(j.turn[3]) < 0.99999).length)
async function remember(): Promise<void> {
  const shop = stock.workshop
  if (!shop) return
  const called = name.value.trim() || text('pose.poseLibrary.pose', { poses: poses.value.length + 1 })
  const turns = Object.fromEntries(joints.value.map((j) => [j.name, j.turn]))
  const next = [...shop.poses.filter((p) => p.name !== called), { name: called, turns }]
  if (await store.guarded(() => stock.changeWorkshop({ poses: next }))) name.value = ''
}
const forget = (called: string): Promise<boolean> =>
  store.guarded(() => stock.changeWorkshop({ poses: poses.value.filter((p) => p.name !== called) }))
function take(turns: Record<string, JointRecord['turn']>): void {
  props.posing.setTurns(new Map(joints.value.flatMap((j, i) => (turns[j.name] ? [[i, turns[j.name]!] as const] : []))))
}
const fits = (turns: object): number => joints.value.filter((j) => j.name in turns).length
</script>

<template>
  <FoldPanel class="mt-2">
    <template #title
      >{{ $t('pose.poseLibrary.savedPosesPoses', { poses: poses.length > 0, poses2: poses.length }) }}
    </template>
    <div class="d-flex gap-1 my-1">
      <BFormInput
        v-model="name"
        size="sm"
        maxlength="60"
        :placeholder="$t('pose.poseLibrary.nameOfThisPose')"
        :aria-label="$t('pose.poseLibrary.nameOfThisPose')"
      />
      <BButton variant="quiet" size="sm" class="text-nowrap" :disabled="turnedOnes === 0" @click="remember">
        {{ $t('pose.poseLibrary.savePose') }}
      </BButton>
    </div>
    <div v-for="p in poses" :key="p.name" class="d-flex gap-1 mb-1">
      <BButton
        variant="quiet"
        size="sm"
        class="flex-grow-1 text-start"
        :disabled="fits(p.turns) === 0"
        @click="take(p.turns)"
      >
        {{ p.name }} <span class="soft">{{ $t('pose.poseLibrary.ofItsJointsExist', { turns: fits(p.turns) }) }}</span>
      </BButton>
      <BButton
        variant="quiet"
        size="sm"
        :aria-label="$t('pose.poseLibrary.delete', { name: p.name })"
        @click="forget(p.name)"
        >×</BButton
      >
    </div>
  </FoldPanel>
</template>
