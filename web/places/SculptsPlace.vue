<script setup lang="ts">
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { useDropZone } from '@vueuse/core'
import { computed, onMounted, ref, useTemplateRef } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { text } from '../i18n'
import { dateText } from '../manner'
import { arranged, piece as pieceSchema } from '../../contract/pieces'
import type { SculptRecord } from '../../contract/sculpts'
import { SCULPT_ENDINGS } from '../../core/formats/endings'
import { api } from '../api'
import { useAttempt } from '../composables/useAttempt'
import DraftInput from '../shell/DraftInput.vue'
import { useSculpts } from '../stores/sculpts'
import SculptThumb from '../viewport/SculptThumb.vue'
import ChoiceSelect from '../shell/ChoiceSelect.vue'
import FaultNote from '../shell/FaultNote.vue'
import FileButton from '../shell/FileButton.vue'

/** Everything that was ever taken in: to find again, to know whether it may be sold, to use in another piece. */
const sculpts = useSculpts(),
  router = useRouter()
onMounted(() => void sculpts.load())
const words = ref(''),
  tag = ref<string | null>(null)
const tags = computed(() => [...new Set(sculpts.list.flatMap((s) => s.tags))].sort())
const shown = computed(() => {
  const w = words.value.toLowerCase().split(/\s+/).filter(Boolean)
  return sculpts.newest.filter((s) => {
    const text = [s.name, s.fileName, s.origin, s.licence, ...s.tags].join(' ').toLowerCase()
    return w.every((x) => text.includes(x)) && (tag.value === null || s.tags.includes(tag.value))
  })
})
const chosenId = ref<string | null>(null)
const chosen = computed(() => sculpts.byId(chosenId.value))
const MAY_SELL = {
  yes: text('places.sculptsPlace.mayBeSold'),
  ask: text('places.sculptsPlace.askBeforeSelling'),
  no: text('places.sculptsPlace.notForSale'),
} as const
const set = (fields: Partial<SculptRecord>): void => {
  if (chosen.value) void sculpts.change(chosen.value, fields)
}
const splitTags = (text: string): string[] => [
  ...new Set(
    text
      .split(',')
      .map((t) => t.trim().toLowerCase())
      .filter(Boolean),
  ),
]
const others = computed(() => sculpts.newest.filter((s) => s.family !== chosen.value?.family))
const trashed = ref<SculptRecord | null>(null)
async function toTrash(s: SculptRecord): Promise<void> {
  if (!(await sculpts.remove(s.id))) return
  trashed.value = s
  chosenId.value = null
}
async function takeBack(): Promise<void> {
  if (trashed.value && (await sculpts.restore(trashed.value.id))) trashed.value = null
}
const { fault, attempt } = useAttempt()
const newPiece = (s: SculptRecord): Promise<void> =>
  attempt(async () => {
    const p = await api(pieceSchema, 'POST', '/pieces', { name: s.name })
    await api(arranged, 'POST', `/pieces/${p.id}/arrange`, {
      create: [{ name: s.name, from: null, sculpt: s.id, operations: [] }],
    })
    await router.push(`/pieces/${p.id}/import`)
  })
const library = useTemplateRef<HTMLElement>('library')
const { isOverDropZone: dropping } = useDropZone(library, (files) => void sculpts.drop(files ?? []))
</script>

<template>
  <div ref="library" class="library" :class="{ dropping }">
    <div class="list scroll">
      <div class="d-flex gap-3 align-items-center mb-3">
        <h1>{{ $t('places.sculptsPlace.sculpts') }}</h1>
        <BFormInput
          v-model="words"
          type="search"
          class="search"
          size="sm"
          :placeholder="$t('places.sculptsPlace.nameTagOriginLicence')"
          :aria-label="$t('places.sculptsPlace.findASculpt')"
        />
        <FileButton
          variant="primary"
          class="text-nowrap"
          multiple
          :accept="SCULPT_ENDINGS.map((e) => `.${e}`).join(',')"
          :label="$t('places.sculptsPlace.sculptFilesForThe')"
          @files="sculpts.drop($event)"
          >{{ $t('places.sculptsPlace.addFiles') }}</FileButton
        >
      </div>
      <div v-if="tags.length > 0" class="d-flex flex-wrap gap-1 mb-3">
        <BButton
          v-for="t in tags"
          :key="t"
          :variant="tag === t ? 'primary' : 'quiet'"
          size="sm"
          :aria-pressed="tag === t"
          @click="tag = tag === t ? null : t"
        >
          {{ t }}
        </BButton>
      </div>
      <FaultNote :text="sculpts.problem || fault" />
      <p v-if="trashed" class="sheet p-2 px-3">
        {{ $t('places.sculptsPlace.isInTheTrash', { name: trashed.name }) }}
        <BButton variant="quiet" size="sm" @click="takeBack">{{ $t('places.sculptsPlace.restore') }}</BButton>
      </p>
      <p v-for="i in sculpts.arriving" :key="i.id" class="sheet p-2 px-3">
        <template v-if="i.status === 'waiting'">{{
          $t('places.sculptsPlace.isBeingRead', { fileName: i.fileName })
        }}</template>
        <span v-else role="alert"
          >{{ i.problem?.message }}
          <BButton variant="quiet" size="sm" @click="sculpts.dismiss(i.id)">{{
            $t('places.sculptsPlace.dismiss')
          }}</BButton></span
        >
      </p>
      <p v-if="shown.length === 0" class="soft">
        {{
          sculpts.list.length === 0
            ? $t('places.sculptsPlace.noSculptsYetDrop')
            : $t('places.sculptsPlace.noSculptMatchesTry')
        }}
      </p>
      <ul class="cards">
        <li v-for="s in shown" :key="s.id">
          <BButton variant="card" class="card-sculpt" :class="{ here: s.id === chosenId }" @click="chosenId = s.id">
            <span class="thumb"><SculptThumb :mesh="s.mesh" /></span>
            <span class="name">{{ s.name }}</span>
            <span class="soft small"
              >{{ MAY_SELL[s.maySell]
              }}{{
                sculpts.editions(s.family).length > 1 ? $t('places.sculptsPlace.edition', { edition: s.edition }) : ''
              }}</span
            >
          </BButton>
        </li>
      </ul>
    </div>
    <aside class="about scroll">
      <template v-if="chosen">
        <div class="large"><SculptThumb :mesh="chosen.mesh" /></div>
        <label class="d-block mb-2"
          >{{ $t('places.sculptsPlace.name')
          }}<DraftInput :key="chosen.id" maxlength="120" :value="chosen.name" @done="set({ name: $event })"
        /></label>
        <label class="d-block mb-2"
          >{{ $t('places.sculptsPlace.tagsSeparatedByCommas')
          }}<DraftInput :key="chosen.id" :value="chosen.tags.join(', ')" @done="set({ tags: splitTags($event) })"
        /></label>
        <label class="d-block mb-2"
          >{{ $t('places.sculptsPlace.origin')
          }}<DraftInput
            :key="chosen.id"
            maxlength="1000"
            :value="chosen.origin"
            :placeholder="$t('places.sculptsPlace.ownSculptBoughtFrom')"
            @done="set({ origin: $event })"
        /></label>
        <label class="d-block mb-2"
          >{{ $t('places.sculptsPlace.printsOfIt') }}
          <ChoiceSelect size="sm" :model-value="chosen.maySell" @update:model-value="set({ maySell: $event as 'ask' })">
            <option v-for="(w, k) in MAY_SELL" :key="k" :value="k">{{ w }}</option>
          </ChoiceSelect></label
        >
        <label class="d-block mb-2"
          >{{ $t('places.sculptsPlace.licenceAndAgreements')
          }}<DraftInput
            :key="chosen.id"
            :lines="3"
            maxlength="2000"
            :value="chosen.licence"
            @done="set({ licence: $event })"
        /></label>
        <h3 class="mt-3 mb-1">{{ $t('places.sculptsPlace.editions') }}</h3>
        <ul class="list-unstyled mb-2">
          <li v-for="e in sculpts.editions(chosen.family)" :key="e.id">
            <BButton variant="card" class="link" :class="{ here: e.id === chosen.id }" @click="chosenId = e.id">
              {{ e.edition }}: {{ e.fileName }}, {{ dateText(e.createdAt, 'date') }}
            </BButton>
          </li>
        </ul>
        <label class="d-block mb-2"
          ><span class="soft small">{{ $t('places.sculptsPlace.thisIsTheNext') }}</span>
          <ChoiceSelect
            size="sm"
            :model-value="''"
            @update:model-value="sculpts.setEdition(chosen, String($event) || null)"
          >
            <option value="">
              {{
                sculpts.editions(chosen.family).length > 1
                  ? $t('places.sculptsPlace.chooseOrNone')
                  : $t('places.sculptsPlace.noSculpt')
              }}
            </option>
            <option v-for="o in others" :key="o.id" :value="o.id">{{ o.name }}</option>
          </ChoiceSelect></label
        >
        <h3 class="mt-3 mb-1">{{ $t('places.sculptsPlace.usedIn') }}</h3>
        <ul class="list-unstyled mb-3">
          <li v-for="p in chosen.usedIn" :key="p.id">
            <RouterLink :to="`/pieces/${p.id}/import`">{{ p.name }}</RouterLink>
          </li>
          <li v-if="chosen.usedIn.length === 0" class="soft">{{ $t('places.sculptsPlace.noPieceYet') }}</li>
        </ul>
        <div class="d-flex gap-2">
          <BButton variant="primary" size="sm" @click="newPiece(chosen)">{{
            $t('places.sculptsPlace.newPieceFromIt')
          }}</BButton>
          <BButton variant="quiet" size="sm" @click="toTrash(chosen)">{{ $t('places.sculptsPlace.delete') }}</BButton>
        </div>
      </template>
      <p v-else class="soft">
        {{ $t('places.sculptsPlace.chooseASculptTo') }}
      </p>
    </aside>
  </div>
</template>

<style scoped>
.library {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 360px;
  height: 100%;
}
.library.dropping {
  outline: 3px dashed var(--action);
  outline-offset: -8px;
}
.list {
  padding: 18px 28px;
}
.search {
  max-width: 300px;
}
.cards {
  list-style: none;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(168px, 1fr));
  gap: 12px;
}
.card-sculpt {
  width: 100%;
  text-align: left;
  display: flex;
  flex-direction: column;
  border: 1px solid var(--line);
  border-radius: 6px;
  background: var(--paper-raised);
  padding: 0 0 8px;
  overflow: hidden;
}
.card-sculpt > span:not(.thumb) {
  padding: 0 10px;
}
.card-sculpt.here {
  border-color: var(--action);
  box-shadow: 0 0 0 1px var(--action);
}
.thumb {
  height: 168px;
  background: linear-gradient(var(--studio-high), var(--studio-low));
  margin-bottom: 7px;
}
.name {
  font-weight: 600;
}
.about {
  border-left: 1px solid var(--line);
  padding: 16px;
}
.large {
  height: 200px;
  background: linear-gradient(var(--studio-high), var(--studio-low));
  border-radius: 6px;
  margin-bottom: 12px;
}
.link {
  border: 0;
  background: none;
  padding: 1px 0;
  color: var(--action);
}
.link.here {
  color: inherit;
  font-weight: 600;
}
</style>
