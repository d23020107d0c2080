<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { useDropZone, useEventListener } from '@vueuse/core'
import { computed, onMounted, ref, useTemplateRef } from 'vue'
import { RouterLink, RouterView, useRoute } from 'vue-router'
import { BApp } from 'bootstrap-vue-next'
import { usePieceFromFiles } from './composables/usePieceFromFiles'
import JobStrip from './shell/JobStrip.vue'
import SearchBox from './shell/SearchBox.vue'
import ShortcutSheet from './shell/ShortcutSheet.vue'
import { useChanges } from './stores/changes'
import TimerTray from './shell/TimerTray.vue'
import { clock } from './shell/duration'
import { useOutbox } from './stores/outbox'
import { useStock } from './stores/stock'
import { useTimers } from './stores/timers'

const route = useRoute()
const changes = useChanges()
const stock = useStock(),
  timers = useTimers(),
  outbox = useOutbox()
const help = ref(false)
onMounted(() => {
  void stock.load().catch(() => undefined)
})
useEventListener('keydown', (e) => {
  const typing = e.target instanceof HTMLElement && e.target.closest('input, textarea, select')
  if (e.key === '?' && !typing) help.value = !help.value
})
// Wherever a sculpt is dropped it becomes a piece, but on pages that take files themselves.
const main = useTemplateRef<HTMLElement>('main')
const { open, fault, busy } = usePieceFromFiles()
const takesFiles = computed(() => !route.meta.bare && !/^\/(pieces\/|sculpts|layers)/.test(route.path))
const { isOverDropZone: over } = useDropZone(main, (files) => {
  if (takesFiles.value) void open(files ?? [])
})
// A file that misses the drop area must not replace the page.
useEventListener(['dragover', 'drop'], (e) => e.preventDefault())
</script>

<template>
  <BApp>
    <div class="app">
      <header v-if="!route.meta.bare" class="top">
        <RouterLink to="/pieces" class="brand"
          ><img src="/mark.svg" alt="" width="22" height="22" /> {{ $t('shell.app.undercut') }}</RouterLink
        >
        <nav :aria-label="$t('shell.app.workshop')">
          <RouterLink to="/pieces">{{ $t('shell.app.pieces') }}</RouterLink><RouterLink to="/calendar">{{
            $t('shell.app.calendar')
          }}</RouterLink
          ><RouterLink to="/sculpts">{{ $t('shell.app.sculpts') }}</RouterLink
          ><RouterLink to="/layers">{{ $t('shell.app.layers') }}</RouterLink
          ><RouterLink to="/stock">{{ $t('shell.app.stock') }}</RouterLink
          ><RouterLink to="/workshop">{{ $t('shell.app.workshop') }}</RouterLink
          ><RouterLink to="/guide">{{ $t('shell.app.guide') }}</RouterLink>
        </nav>
        <SearchBox />
        <RouterLink v-if="timers.running[0]" :to="`/pieces/${timers.running[0].pieceId}/plan`" class="clock"
          ><span>{{ timers.running[0].title }}</span
          ><b class="num">{{ clock(timers.left(timers.running[0])) }}</b
          ><span v-if="timers.running.length > 1" class="soft">+{{ timers.running.length - 1 }}</span></RouterLink
        >
        <span v-else class="shop soft">{{ stock.workshop?.name }}</span>
        <BButton variant="quiet" size="sm" :aria-label="$t('shell.app.shortcuts')" @click="help = true">?</BButton>
      </header>
      <TimerTray v-if="!route.meta.bare" />
      <p v-if="!changes.connected" class="offline" role="alert">
        {{ $t('shell.app.theServerDoesNot')
        }}<template v-if="outbox.waiting.length > 0">
          {{ $t('shell.app.waitingMadeMeanwhileWaiting', { waiting: outbox.waiting.length }) }}</template
        >
      </p>
      <p v-for="(r, i) in outbox.refused" :key="i" class="offline" role="alert">
        {{ $t('shell.app.notAccepted', { what: r.what, why: r.why }) }}
        <BButton variant="light" size="sm" @click="outbox.refused.splice(i, 1)">{{ $t('shell.app.dismiss') }}</BButton>
      </p>
      <p v-if="fault" class="offline" role="alert">
        {{ fault }}
        <BButton variant="light" size="sm" @click="fault = ''">{{ $t('shell.app.dismiss') }}</BButton>
      </p>
      <main ref="main" class="place">
        <RouterView />
        <div v-if="takesFiles && (over || busy)" class="drop-sheet" role="status">
          {{ busy ? $t('places.firstSteps.uploading') : $t('shell.app.dropForAPiece') }}
        </div>
      </main>
      <JobStrip v-if="!route.meta.bare" />
      <ShortcutSheet v-model="help" />
    </div>
  </BApp>
</template>

<style scoped>
.app {
  display: flex;
  flex-direction: column;
  height: 100vh;
}
.top {
  display: flex;
  align-items: center;
  gap: 26px;
  height: 44px;
  padding: 0 16px;
  border-bottom: 1px solid var(--line);
  background: var(--paper-raised);
  flex: none;
}
.brand {
  display: flex;
  gap: 8px;
  align-items: center;
  font-weight: 680;
  font-size: 1.08rem;
  color: inherit;
  text-decoration: none;
}
nav {
  display: flex;
  gap: 4px;
  flex: 1;
}
nav a {
  padding: 4px 11px;
  border-radius: 4px;
  text-decoration: none;
  color: inherit;
}
nav a.router-link-active {
  background: var(--paper-sunk);
  font-weight: 600;
}
.clock {
  display: flex;
  gap: 8px;
  max-width: 360px;
  padding: 2px 11px;
  border-radius: 4px;
  background: var(--paper-sunk);
  color: inherit;
  text-decoration: none;
  font-size: 0.9rem;
}
@media (max-width: 1200px) {
  .top {
    gap: 14px;
  }
  .clock {
    max-width: 170px;
  }
}
.clock span:first-child {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.place {
  position: relative;
  flex: 1;
  min-height: 0;
}
.offline {
  background: var(--problem);
  color: var(--white);
  margin: 0;
  padding: 5px 16px;
}
</style>
