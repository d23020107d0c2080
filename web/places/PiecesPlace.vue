<script setup lang="ts">
import { BPlaceholder, BPlaceholderWrapper } from 'bootstrap-vue-next/components/BPlaceholder'
import { BBadge } from 'bootstrap-vue-next/components/BBadge'
import { BButton, BButtonGroup } from 'bootstrap-vue-next/components/BButton'
import { text, term } from '../i18n'
import { daysBetween } from '../../core/math/wallClock'
import { useStock } from '../stores/stock'
import { useLocalStorage } from '@vueuse/core'
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { newPiece, piece as pieceSchema, pieceSummary } from '../../contract/pieces'
import { api, apiPages, tell } from '../api'
import { messageOf } from '../messageOf'
import { newestOnly } from '../composables/newest'
import { useZodForm } from '../composables/useZodForm'
import { useChanges } from '../stores/changes'
import SculptThumb from '../viewport/SculptThumb.vue'
import { arranged, counted, FILTERS, SORTS, type Filter, type Sort, type Summary } from './pieces/pieceList'
import ChoiceSelect from '../shell/ChoiceSelect.vue'
import FirstSteps from './pieces/FirstSteps.vue'
import { usePieceFromFiles } from '../composables/usePieceFromFiles'
import FaultNote from '../shell/FaultNote.vue'
import TextField from '../shell/TextField.vue'

const stock = useStock()
// The zone of the workshop's clock, by which days are counted.
void stock.load().catch(() => undefined)

const pieces = ref<Summary[] | null>(null)
const filter = useLocalStorage<Filter>('undercut.pieces.filter', 'all'),
  sort = useLocalStorage<Sort>('undercut.pieces.sort', 'newest')
const counts = computed(() => counted(pieces.value ?? []))
const shown = computed(() => arranged(pieces.value ?? [], filter.value, sort.value))
const fault = ref(''),
  trashed = ref<Summary | null>(null)
const router = useRouter()
const fromFiles = usePieceFromFiles()
const load = newestOnly(() =>
  guard(async () => {
    // The first page at once; after a change the old list stays until all of the new one is there.
    const first = pieces.value === null
    pieces.value = await apiPages(pieceSummary, '/pieces?limit=60', (list) => {
      if (first) pieces.value = list
    })
  }),
)
const off = useChanges().listen((c) => {
  if (c.type === 'piece' || c.type === 'hello') void load()
})
onMounted(load)
onBeforeUnmount(off)
async function guard(work: () => Promise<unknown>): Promise<void> {
  try {
    await work()
    fault.value = ''
  } catch (e) {
    fault.value = messageOf(e)
  }
}
const created = useZodForm(
  newPiece.pick({ name: true }),
  () => ({ name: '' }),
  async (fields) => {
    const p = await api(pieceSchema, 'POST', '/pieces', fields)
    await router.push(`/pieces/${p.id}/import`)
  },
)
const toTrash = (p: Summary): Promise<void> =>
  guard(async () => {
    await tell('DELETE', `/pieces/${p.id}`)
    trashed.value = p
    await load()
  })
const restore = (): Promise<void> =>
  guard(async () => {
    if (trashed.value) await tell('POST', `/pieces/${trashed.value.id}/restore`)
    trashed.value = null
    await load()
  })
const due = (p: Summary): string => {
  if (!p.deadline) return text('places.piecesPlace.noDeadline')
  const days = daysBetween(stock.today(), p.deadline)
  if (days === 0) return text('places.piecesPlace.today')
  const count = text('places.piecesPlace.days', { days: Math.abs(days) })
  return days < 0 ? text('places.piecesPlace.late', { count }) : text('places.piecesPlace.in', { count })
}
</script>

<template>
  <div class="place scroll">
    <div class="head">
      <h1>{{ $t('places.piecesPlace.piecesInWork') }}</h1>
      <form class="d-flex gap-2 align-items-start" novalidate @submit.prevent="created.send">
        <TextField
          v-bind="created.bind('name')"
          bare
          class="new-name"
          :label="$t('places.piecesPlace.nameOfANew')"
          :placeholder="$t('places.piecesPlace.nameOfANew')"
        />
        <BButton type="submit" variant="primary" size="sm" class="text-nowrap">{{
          $t('places.piecesPlace.newPiece')
        }}</BButton>
      </form>
    </div>
    <FaultNote :text="fault || created.fault.value || fromFiles.fault.value" />
    <p v-if="trashed" class="sheet p-2 px-3">
      {{ $t('places.piecesPlace.isInTheTrash', { name: trashed.name }) }}
      <BButton variant="quiet" size="sm" @click="restore">{{ $t('places.piecesPlace.restore') }}</BButton>
    </p>
    <FirstSteps v-if="pieces?.length === 0" :busy="fromFiles.busy.value" @files="fromFiles.open" />
    <div v-if="pieces && pieces.length > 0" class="sift">
      <BButtonGroup :aria-label="$t('places.piecesPlace.show')">
        <BButton
          v-for="f in FILTERS"
          :key="f"
          size="sm"
          :variant="filter === f ? 'primary' : 'quiet'"
          :aria-pressed="filter === f"
          :disabled="counts[f] === 0 && filter !== f"
          @click="filter = f"
          >{{ $t('places.piecesPlace.filter', { filter: f, n: counts[f] }) }}</BButton
        >
      </BButtonGroup>
      <label class="d-flex gap-2 align-items-center text-nowrap soft small"
        >{{ $t('places.piecesPlace.sortedBy')
        }}<ChoiceSelect v-model="sort" size="sm" class="w-auto">
          <option v-for="s in SORTS" :key="s" :value="s">{{ $t('places.piecesPlace.sort', { sort: s }) }}</option>
        </ChoiceSelect></label
      >
    </div>
    <BPlaceholderWrapper :loading="pieces === null && !fault">
      <template #loading>
        <BPlaceholder v-for="i in 3" :key="i" tag="div" animation="glow" cols="12" class="sheet mb-3 awaited" />
      </template>
    </BPlaceholderWrapper>
    <ul class="rows">
      <li v-for="p in shown" :key="p.id" class="sheet row-piece">
        <RouterLink
          :to="`/pieces/${p.id}/import`"
          class="thumb"
          :aria-label="$t('places.piecesPlace.open', { name: p.name })"
          ><SculptThumb :mesh="p.thumbnailMesh"
        /></RouterLink>
        <div class="about">
          <h2>
            <RouterLink :to="`/pieces/${p.id}/import`">{{ p.name }}</RouterLink>
          </h2>
          <p class="soft m-0">
            {{ p.client || $t('places.piecesPlace.ownPiece') }}
            <BBadge v-if="p.resting" variant="secondary">{{ $t('places.calendarPlace.onHold') }}</BBadge>
          </p>
          <p class="brief">{{ p.brief }}</p>
        </div>
        <dl class="facts side">
          <dt>{{ $t('places.piecesPlace.due') }}</dt>
          <dd>{{ due(p) }}</dd>
          <dt>{{ $t('places.piecesPlace.finish') }}</dt>
          <dd>{{ term('finishLevel', p.finish) }}</dd>
          <dt>{{ $t('places.piecesPlace.parts') }}</dt>
          <dd>{{ p.parts }}</dd>
          <dt>{{ $t('places.piecesPlace.benchStepsDone') }}</dt>
          <dd>{{ p.done }}</dd>
        </dl>
        <BButton
          variant="quiet"
          size="sm"
          :aria-label="$t('places.piecesPlace.delete', { name: p.name })"
          @click="toTrash(p)"
          >{{ $t('places.piecesPlace.delete2') }}</BButton
        >
      </li>
    </ul>
  </div>
</template>

<style scoped>
.new-name {
  width: 240px;
}
.awaited {
  height: 146px;
}
.place {
  height: 100%;
  padding: 18px 28px;
}
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-bottom: 14px;
  max-width: 1180px;
}
.sift {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  max-width: 1180px;
  margin-bottom: 12px;
}
.rows {
  list-style: none;
  padding: 0;
  margin: 0;
  max-width: 1180px;
  display: grid;
  gap: 10px;
}
.row-piece {
  display: grid;
  grid-template-columns: 132px 1fr 220px auto;
  gap: 20px;
  align-items: center;
  padding: 0 16px 0 0;
  overflow: hidden;
}
.thumb {
  display: block;
  width: 132px;
  height: 144px;
  background: linear-gradient(var(--studio-high), var(--studio-low));
}
.about {
  padding: 10px 0;
  min-width: 0;
}
.about h2 a {
  color: inherit;
  text-decoration: none;
}
.about h2 a:hover {
  text-decoration: underline;
}
.brief {
  margin: 6px 0 0;
  display: -webkit-box;
  -webkit-line-clamp: 3;
  -webkit-box-orient: vertical;
  overflow: hidden;
}
</style>
