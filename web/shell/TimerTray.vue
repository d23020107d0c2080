<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { ref } from 'vue'
import { useAttempt } from '../composables/useAttempt'
import { useTimers, words } from '../stores/timers'

/** Clocks that ran out, said until somebody has heard. */
defineProps<{ dark?: boolean }>()
const timers = useTimers()
const { busy, fault, attempt } = useAttempt()
const asks = ref('Notification' in window && Notification.permission === 'default')
async function ask(): Promise<void> {
  await Notification.requestPermission()
  asks.value = false
}
</script>

<template>
  <div v-if="timers.over.length > 0" class="tray" :class="{ dark }" role="alert">
    <p v-for="t in timers.over" :key="t.id" class="m-0">
      <b>{{ words(t) }}</b> <RouterLink :to="`/pieces/${t.pieceId}/plan`">{{ t.piece }}</RouterLink>
      <BButton
        :variant="dark ? 'light' : 'primary'"
        :size="dark ? 'lg' : 'sm'"
        class="ms-2"
        :disabled="busy"
        @click="attempt(() => timers.heard(t))"
      >
        {{ $t('shell.timerTray.dismiss') }}
      </BButton>
    </p>
    <p v-if="fault" class="m-0">{{ fault }}</p>
    <BButton v-if="asks" variant="quiet" size="sm" @click="ask">
      {{ $t('shell.timerTray.notifyMeAlsoWhile') }}
    </BButton>
  </div>
</template>

<style scoped>
.tray {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 26px;
  align-items: center;
  background: var(--notice-ground);
  border-bottom: 2px solid var(--warning);
  padding: 7px 16px;
}
.tray.dark {
  background: var(--action);
  border: 0;
  border-radius: 6px;
  font-size: 1.3rem;
}
.tray.dark a {
  color: var(--action-soft);
}
</style>
