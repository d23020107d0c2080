<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import { computed, onMounted, ref } from 'vue'
import type { SculptRecord } from '../../contract/sculpts'
import { useSculpts } from '../stores/sculpts'
import SculptThumb from '../viewport/SculptThumb.vue'

/** Sculpts of the library to choose one from, by name, tag or origin. */
const props = defineProps<{ except?: string | null }>()
const emit = defineEmits<{ choose: [sculpt: SculptRecord] }>()
const sculpts = useSculpts()
onMounted(() => void sculpts.load())
const words = ref('')
const found = computed(() => {
  const w = words.value.toLowerCase().split(/\s+/).filter(Boolean)
  return sculpts.list
    .filter((s) => s.id !== props.except)
    .filter((s) => {
      const text = [s.name, s.fileName, s.origin, ...s.tags].join(' ').toLowerCase()
      return w.every((x) => text.includes(x))
    })
    .slice(0, 12)
})
</script>

<template>
  <BFormInput
    v-model="words"
    type="search"
    class="my-2"
    size="sm"
    :placeholder="$t('shell.sculptPicker.nameTagOrOrigin')"
    :aria-label="$t('shell.sculptPicker.findASculpt')"
  />
  <div class="grid">
    <BButton variant="card" v-for="s in found" :key="s.id" class="pick" :title="s.fileName" @click="emit('choose', s)">
      <span class="thumb"><SculptThumb :mesh="s.mesh" /></span>
      <span class="text-truncate d-block">{{ s.name }}</span>
      <span v-if="s.edition > 1" class="soft small">{{
        $t('shell.sculptPicker.edition', { edition: s.edition })
      }}</span>
    </BButton>
  </div>
  <p v-if="found.length === 0" class="soft small">{{ $t('shell.sculptPicker.noSculptInThe') }}</p>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 6px;
}
.pick {
  border: 1px solid var(--line);
  border-radius: 5px;
  background: var(--paper-raised);
  padding: 4px;
  min-width: 0;
}
.pick:hover {
  border-color: var(--action);
}
.thumb {
  display: block;
  height: 86px;
}
</style>
