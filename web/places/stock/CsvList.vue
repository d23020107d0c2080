<script setup lang="ts">
import { BAlert } from 'bootstrap-vue-next/components/BAlert'
import { BLink } from 'bootstrap-vue-next/components/BLink'
import { ref } from 'vue'
import { z } from 'zod'
import { text } from '../../i18n'
import { api } from '../../api'
import { useAttempt } from '../../composables/useAttempt'
import FileButton from '../../shell/FileButton.vue'

/** A kind of stock as a list that goes in and out. */
const props = defineProps<{ words: 'materials' | 'paints' }>()
const { fault, busy, attempt } = useAttempt()
const said = ref('')
const importFile = (f: File): Promise<void> =>
  attempt(async () => {
    said.value = ''
    const n = await api(z.object({ added: z.int(), changed: z.int() }), 'POST', `/${props.words}.csv`, f)
    said.value = text('stock.csvList.newChanged', { name: f.name, added: n.added, changed: n.changed })
  })
</script>

<template>
  <FileButton
    accept=".csv,text/csv"
    :disabled="busy"
    :label="$t('stock.csvList.csvListOf', { words })"
    @files="importFile($event[0]!)"
    >{{ $t('stock.csvList.importCsv') }}</FileButton
  >
  <BLink class="btn btn-sm btn-quiet" :href="`/api/${words}.csv`" :download="`${words}.csv`">{{
    $t('stock.csvList.exportCsv')
  }}</BLink>
  <BAlert v-if="fault" :model-value="true" variant="danger" class="w-100">{{ fault }}</BAlert>
  <p v-else-if="said" role="status" class="soft w-100 m-0">{{ said }}</p>
</template>
