import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type { Fix } from '../../core/findings/fix'
import type { PieceStage } from '../../core/stages'

/** A fix that was pressed in one stage and is done in another: that stage opens and does it. */
export const useRequestedFix = defineStore('requestedFix', () => {
  const asked = shallowRef<{ stage: PieceStage; fix: Fix } | null>(null)
  /** Who asks opens the stage. */
  function request(stage: PieceStage, fix: Fix): void {
    asked.value = { stage, fix }
  }
  /** What was asked of a stage, once. */
  function taken(stage: PieceStage): Fix | null {
    if (asked.value?.stage !== stage) return null
    const { fix } = asked.value
    asked.value = null
    return fix
  }
  return { request, taken }
})
