<script setup lang="ts">
import { ref, watch } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'

/** The guide, and the pages of the docs that it leads to, as they stand in docs/. */
const PAGES: Record<string, () => Promise<string>> = {
  guide: () => import('../../docs/guide.md').then((m) => m.default),
  devices: () => import('../../docs/devices.md').then((m) => m.default),
  formats: () => import('../../docs/formats.md').then((m) => m.default),
}
const route = useRoute(),
  router = useRouter()
const html = ref('')
const page = (): string => String(route.params.page || 'guide')
watch(
  page,
  async (name) => {
    html.value = (await PAGES[name]?.()) ?? '<h1>No such page</h1><p>The guide has no page of that name.</p>'
  },
  { immediate: true },
)
/** A link within the app does not reload it. */
function follow(e: MouseEvent): void {
  const href = (e.target as HTMLElement).closest('a')?.getAttribute('href')
  if (!href?.startsWith('/') || e.ctrlKey || e.metaKey || e.shiftKey) return
  e.preventDefault()
  void router.push(href)
}
</script>

<template>
  <div class="guide scroll">
    <p class="mb-2">
      <RouterLink v-if="page() !== 'guide'" to="/guide" class="me-3">{{ $t('places.guidePlace.guide') }}</RouterLink>
      <RouterLink to="/guide/practice">{{ $t('places.guidePlace.practicePage') }}</RouterLink>
      <span class="soft">{{ $t('places.guidePlace.anExerciseForEach') }}</span>
    </p>
    <!-- eslint-disable-next-line vue/no-v-html -- our own docs, rendered while building -->
    <article @click="follow" v-html="html" />
  </div>
</template>

<style scoped>
.guide {
  height: 100%;
  padding: 18px 28px;
}
.guide :deep(p) {
  max-width: 82ch;
}
.guide :deep(h1) {
  margin: 4px 0 10px;
}
.guide :deep(h2) {
  margin: 18px 0 4px;
}
.guide :deep(code) {
  color: inherit;
}
.guide :deep(table) {
  border-collapse: collapse;
  margin: 10px 0;
}
.guide :deep(th),
.guide :deep(td) {
  border-top: 1px solid var(--line);
  padding: 6px 14px 6px 0;
  vertical-align: top;
  text-align: left;
}
.guide :deep(td:first-child) {
  font-weight: 600;
  white-space: nowrap;
}
</style>
