<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { useDropZone, useEventListener } from '@vueuse/core'
import { computed, ref, useTemplateRef, watch } from 'vue'
import { RouterView, useRoute, useRouter } from 'vue-router'
import { PIECE_STAGES, type PieceStage } from '../../core/stages'
import StageFooter from '../shell/StageFooter.vue'
import StageList from '../shell/StageList.vue'
import FailedSteps from '../shell/FailedSteps.vue'
import Turntable from '../viewport/Turntable.vue'
import { useViewport } from '../viewport/useViewport'
import { usePiece } from '../stores/piece'
import { messageOf } from '../messageOf'

const route = useRoute(),
  router = useRouter()
const store = usePiece(),
  viewport = useViewport()
const id = computed(() => String(route.params.id))
const missing = ref('')
const frame = useTemplateRef<HTMLElement>('frame')
const { isOverDropZone: dropping } = useDropZone(frame, (files) => void drop(files ?? []))
const refused = ref<string[]>([])
watch(
  id,
  async (v) => {
    missing.value = ''
    try {
      await store.open(v)
    } catch (e) {
      missing.value = messageOf(e)
    }
  },
  { immediate: true },
)
const FLAT = ['brief', 'plates', 'print', 'clean', 'plan']
const flat = computed(() => FLAT.includes(String(route.name)) && !viewport.scene.stands)
// Until the piece is there, nothing stands on the disc.
viewport.describe(() => (store.piece ? null : { mesh: null }))

async function drop(files: File[]): Promise<void> {
  if (files.length === 0) return
  refused.value = await store.dropFiles(files)
  await router.push(`/pieces/${id.value}/import`)
}
function keys(e: KeyboardEvent): void {
  if (
    (e.target instanceof HTMLElement && e.target.closest('input, textarea, select')) ||
    e.ctrlKey ||
    e.metaKey ||
    e.altKey
  )
    return
  // The first ten by their number; from any one to its neighbours by the two keys beside each other.
  const here = PIECE_STAGES.findIndex((s) => s === route.name)
  const to = /^[0-9]$/.test(e.key)
    ? PIECE_STAGES[(Number(e.key) + 9) % 10]
    : e.key === ','
      ? PIECE_STAGES[here - 1]
      : e.key === '.'
        ? PIECE_STAGES[here + 1]
        : undefined
  if (to) void router.push(`/pieces/${id.value}/${to}`)
  if (e.key === 'u') void store.undo()
  if (e.key === 'U') void store.redo()
  if (e.key === 'b') void router.push(`/pieces/${id.value}/bench`)
}
useEventListener('keydown', keys)
</script>

<template>
  <div v-if="missing" class="p-5">
    <p role="alert">{{ missing }}</p>
    <RouterLink to="/pieces">{{ $t('places.piecePlace.backToThePieces') }}</RouterLink>
  </div>
  <div v-else ref="frame" class="frame">
    <StageList :piece-id="id" />
    <div class="middle">
      <Turntable v-show="!flat" />
      <div id="middle" class="over" :class="{ flat }" />
      <div v-if="dropping" class="drop-sheet">
        {{ $t('places.piecePlace.dropSculptsOrScans') }}
      </div>
    </div>
    <aside class="side scroll">
      <div class="stage-body">
        <div class="title-row">
          <h1 class="text-truncate" :title="store.piece?.name">{{ store.piece?.name ?? '…' }}</h1>
          <span class="d-flex gap-1">
            <BButton
              variant="quiet"
              size="sm"
              :disabled="store.history.length === 0"
              :title="$t('places.piecePlace.undoU')"
              @click="store.undo()"
            >
              {{ $t('places.piecePlace.undo') }}
            </BButton>
            <BButton
              variant="quiet"
              size="sm"
              :disabled="store.undone.length === 0"
              :title="$t('places.piecePlace.redoShiftU')"
              @click="store.redo()"
            >
              {{ $t('places.piecePlace.redo') }}
            </BButton>
          </span>
        </div>
        <div v-if="(store.piece?.partList.length ?? 0) > 1" class="parts">
          <BButton
            v-for="(p, i) in store.piece!.partList"
            :key="p.id"
            :variant="store.part?.id === p.id ? 'primary' : 'quiet'"
            size="sm"
            @click="store.partIndex = i"
          >
            {{ p.name }}
          </BButton>
        </div>
        <p v-for="r in refused" :key="r" class="refused" role="alert">
          {{ r }}
          <BButton variant="quiet" size="sm" @click="refused = refused.filter((x) => x !== r)">{{
            $t('places.piecePlace.close')
          }}</BButton>
        </p>
        <p v-if="store.problem" class="refused stays" role="alert">
          {{ store.problem }}
          <BButton variant="quiet" size="sm" @click="store.problem = null">{{ $t('places.piecePlace.close') }}</BButton>
        </p>
        <FailedSteps :stage="route.name as PieceStage" />
        <RouterView v-if="store.piece" :key="`${id}-${String(route.name)}-${store.part?.id}`" />
      </div>
      <StageFooter v-if="store.piece" :piece-id="id" :stage="route.name as PieceStage" />
    </aside>
  </div>
</template>

<style scoped>
.frame {
  display: grid;
  grid-template-columns: 208px minmax(0, 1fr) 360px;
  height: 100%;
}
.middle {
  position: relative;
  min-width: 0;
  min-height: 0;
}
.over:not(.flat) {
  position: absolute;
  inset: 0;
  display: flex;
  flex-direction: column;
  justify-content: flex-end;
  pointer-events: none;
}
.over.flat {
  height: 100%;
  overflow: auto;
  /* What is being computed is said over the foot. */
  padding-bottom: 48px;
}
.side {
  border-left: 1px solid var(--line);
  padding: 12px 16px 0;
  background: var(--bs-body-bg);
  display: flex;
  flex-direction: column;
}
.stage-body {
  flex: 1 0 auto;
  padding-bottom: 20px;
}
.title-row {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  align-items: center;
  margin-bottom: 10px;
}
.parts {
  display: flex;
  gap: 5px;
  flex-wrap: wrap;
  margin-bottom: 10px;
}
/* Stays in sight however far the side is scrolled: it answers what was just pressed. */
.stays {
  position: sticky;
  top: 0;
  z-index: 3;
}
.refused {
  background: var(--problem-ground);
  border-left: 4px solid var(--problem);
  padding: 7px 10px;
  border-radius: 4px;
}
</style>
