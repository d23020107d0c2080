<script setup lang="ts">
import { BAlert } from 'bootstrap-vue-next/components/BAlert'
import { BLink } from 'bootstrap-vue-next/components/BLink'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { ref } from 'vue'
import { z } from 'zod'
import { text } from '../../i18n'
import { api } from '../../api'
import { useAttempt } from '../../composables/useAttempt'

/** A kind of stock as a list that goes in and out. */
const props = defineProps<{ words: 'materials' | 'paints' }>()
const { fault, busy, attempt } = useAttempt()
const said = ref('')
const picker = ref<HTMLInputElement | null>(null)
const importFile = (e: Event): Promise<void> =>
  attempt(async () => {
    const input = e.target as HTMLInputElement,
      f = input.files?.[0]
    if (!f) return
    said.value = ''
    try {
      const n = await api(z.object({ added: z.int(), changed: z.int() }), 'POST', `/${props.words}.csv`, f)
      said.value = text('stock.csvList.newChanged', { name: f.name, added: n.added, changed: n.changed })
    } finally {
      // The same file, mended, can be taken again.
      input.value = ''
    }
  })
</script>

<template>
  <BButton variant="quiet" size="sm" :disabled="busy" @click="picker?.click()">{{
    $t('stock.csvList.importCsv')
  }}</BButton>
  <BLink class="btn btn-sm btn-quiet" :href="`/api/${words}.csv`" :download="`${words}.csv`">{{
    $t('stock.csvList.exportCsv')
  }}</BLink>
  <input
    ref="picker"
    type="file"
    accept=".csv,text/csv"
    class="visually-hidden"
    :aria-label="$t('stock.csvList.csvListOf', { words })"
    @change="importFile"
  />
  <BAlert v-if="fault" :model-value="true" variant="danger" class="w-100">{{ fault }}</BAlert>
  <p v-else-if="said" role="status" class="soft w-100 m-0">{{ said }}</p>
</template>
