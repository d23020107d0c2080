<script setup lang="ts">
import { onBeforeUnmount, ref, watch } from 'vue'
import { useDerivations } from '../stores/derivations'
import { loadMesh } from './meshCache'
import { thumbnail } from './thumbnail'

const props = defineProps<{ mesh: string | null }>()
const derivations = useDerivations()
const url = ref('')
let live = true
onBeforeUnmount(() => {
  live = false
})
watch(
  () => props.mesh,
  async (hash) => {
    if (!hash) {
      url.value = ''
      return
    }
    try {
      const d = await derivations.settled(hash, { kind: 'display', faces: 30_000 })
      const picture = await thumbnail(hash, () => loadMesh(d.meshHash!))
      if (live) url.value = picture
    } catch {
      /* a list without a picture is still a list */
    }
  },
  { immediate: true },
)
</script>

<template>
  <img v-if="url" :src="url" alt="" class="picture" />
  <span v-else class="empty soft">{{ mesh ? '' : $t('viewport.sculptThumb.noSculptYet') }}</span>
</template>

<style scoped>
.picture {
  width: 100%;
  height: 100%;
  object-fit: contain;
  display: block;
}
.empty {
  display: grid;
  place-items: center;
  height: 100%;
  font-size: 0.85rem;
}
</style>
