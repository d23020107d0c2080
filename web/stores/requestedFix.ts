import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import { useRouter } from 'vue-router'
import type { Fix } from '../../core/findings/fix'
import type { PieceStage } from './findings'
import { usePiece } from './piece'

/** A fix that was pressed in one stage and is done in another: that stage opens and does it. */
export const useRequestedFix = defineStore('requestedFix', () => {
  const piece = usePiece(),
    router = useRouter()
  const asked = shallowRef<{ stage: PieceStage; fix: Fix } | null>(null)
  async function request(stage: PieceStage, fix: Fix): Promise<void> {
    asked.value = { stage, fix }
    await router.push(`/pieces/${piece.piece!.id}/${stage}`)
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
