<script setup lang="ts">
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import { refDebounced, useEventListener } from '@vueuse/core'
import { computed, ref, useTemplateRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { z } from 'zod'
import { searchHit, type SearchHit } from '../../contract/search'
import { api } from '../api'
import { inOrder } from '../composables/newest'
import { text } from '../i18n'
import { messageOf } from '../messageOf'

/** Finds pieces, sculpts, stock and entries of logs from any page. */
const router = useRouter()
const words = ref(''),
  fault = ref(''),
  hits = ref<SearchHit[] | null>(null),
  at = ref(0)
const box = useTemplateRef<HTMLElement>('box')
const asked = refDebounced(words, 180)
const question = inOrder()
watch(asked, async (q) => {
  const isNews = question()
  if (q.trim() === '') {
    if (isNews()) hits.value = null
    return
  }
  try {
    const found = await api(z.array(searchHit), 'GET', `/search?q=${encodeURIComponent(q.slice(0, 200))}`)
    if (!isNews()) return
    hits.value = found
    fault.value = ''
    at.value = 0
  } catch (e) {
    if (!isNews()) return
    hits.value = []
    fault.value = messageOf(e)
  }
})
const KIND: Record<SearchHit['kind'], string> = {
  piece: text('shell.searchBox.piece'),
  sculpt: text('shell.searchBox.sculpt'),
  printer: text('shell.searchBox.printer'),
  resin: text('shell.searchBox.resin'),
  paint: text('shell.searchBox.paint'),
  material: text('shell.searchBox.material'),
  log: text('shell.searchBox.log'),
}
const ADDRESS: Record<SearchHit['kind'], (h: SearchHit) => string> = {
  piece: (h) => `/pieces/${h.id}/import`,
  sculpt: () => '/sculpts',
  printer: () => '/stock',
  resin: () => '/stock',
  paint: () => '/stock/paints',
  material: () => '/stock/materials',
  log: (h) => `/pieces/${String(h.pieceId)}/plan`,
}
const chosen = computed(() => hits.value?.[at.value] ?? null)
const leave = (): void => {
  words.value = ''
  hits.value = null
}
async function go(h: SearchHit | null): Promise<void> {
  if (!h) return
  leave()
  await router.push(ADDRESS[h.kind](h))
}
function keys(e: KeyboardEvent): void {
  const n = hits.value?.length ?? 0
  if (e.key === 'ArrowDown') at.value = n ? (at.value + 1) % n : 0
  else if (e.key === 'ArrowUp') at.value = n ? (at.value + n - 1) % n : 0
  else if (e.key === 'Enter') void go(chosen.value)
  else if (e.key === 'Escape') leave()
  else return
  e.preventDefault()
}
useEventListener('keydown', (e) => {
  const typing = e.target instanceof HTMLElement && e.target.closest('input, textarea, select')
  if (e.key !== '/' || typing || e.ctrlKey || e.metaKey || e.altKey) return
  e.preventDefault()
  box.value?.querySelector('input')?.focus()
})
</script>

<template>
  <div ref="box" class="search" role="search">
    <BFormInput
      v-model="words"
      type="search"
      size="sm"
      role="combobox"
      maxlength="200"
      :placeholder="$t('shell.searchBox.search')"
      :title="$t('shell.searchBox.slash')"
      :aria-label="$t('shell.searchBox.searchAll')"
      aria-controls="search-hits"
      :aria-expanded="hits !== null"
      :aria-activedescendant="chosen ? `hit-${at}` : undefined"
      @keydown="keys"
    />
    <div v-if="hits !== null" class="hits">
      <p v-if="fault || hits.length === 0" class="m-0 p-2 soft" role="status">
        {{ fault || $t('shell.searchBox.nothing', { words: asked }) }}
      </p>
      <ul id="search-hits" role="listbox" class="list-unstyled m-0" :aria-label="$t('shell.searchBox.found')">
        <li
          v-for="(h, i) in hits"
          :id="`hit-${i}`"
          :key="h.kind + h.id"
          role="option"
          class="hit"
          :class="{ on: i === at }"
          :aria-selected="i === at"
          @mousedown.prevent="go(h)"
          @mousemove="at = i"
        >
          <span class="soft kind">{{ KIND[h.kind] }}</span>
          <span class="text-truncate"
            ><b>{{ h.name }}</b> <span class="soft">{{ h.about }}</span></span
          >
        </li>
      </ul>
    </div>
  </div>
</template>

<style scoped>
.search {
  position: relative;
  width: 150px;
  flex: none;
}
@media (max-width: 1200px) {
  .search {
    width: 110px;
  }
}
.hits {
  position: absolute;
  right: 0;
  top: 34px;
  width: 420px;
  max-height: 70vh;
  overflow: auto;
  background: var(--paper-raised);
  border: 1px solid var(--line);
  border-radius: 6px;
  z-index: 20;
}
.hit {
  display: grid;
  grid-template-columns: 74px minmax(0, 1fr);
  gap: 8px;
  padding: 5px 10px;
  cursor: pointer;
}
.hit.on {
  background: var(--paper-sunk);
}
.kind {
  font-size: 0.82rem;
}
</style>
