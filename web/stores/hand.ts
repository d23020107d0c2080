import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { HAND, type Hand } from '../../core/defaults/paint'
import { useAttempt } from '../composables/useAttempt'
import { useStock } from './stock'

/** How the workshop's hands follow a sculpt, as it is tried on the turntable and as it is kept, for all pieces. */
export const useHand = defineStore('hand', () => {
  const stock = useStock(),
    { fault, attempt } = useAttempt()
  const tried = ref<Partial<Hand>>({})
  const kept = computed<Hand>(() => stock.workshop?.hand ?? HAND)
  const hand = computed<Hand>(() => ({ ...kept.value, ...tried.value }))
  function set(fields: Partial<Hand>): void {
    tried.value = { ...tried.value, ...fields }
  }
  const keep = (): Promise<unknown> =>
    attempt(async () => {
      if (stock.workshop) await stock.changeWorkshop({ hand: hand.value })
      tried.value = {}
    })
  return { hand, set, keep, fault }
})
