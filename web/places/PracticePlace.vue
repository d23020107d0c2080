<script setup lang="ts">
import { BFormRadio } from 'bootstrap-vue-next/components/BFormRadio'
import { BFormTextarea } from 'bootstrap-vue-next/components/BFormTextarea'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref } from 'vue'
import { z } from 'zod'
import { text, term } from '../i18n'
import { dateText, manner } from '../manner'
import { say } from '../../core/words/say'
import { CAUTIONS } from '../../core/plan/materials/cautions'
import { EXERCISES } from '../../core/plan/facts/practice'
import { WENT, type ExerciseId } from '../../core/defaults/plan'
import { api } from '../api'
import { useAttempt } from '../composables/useAttempt'
import { ownPaintWork } from '../composables/usePaintWork'
import { saveFile } from '../shell/downloadFile'
import { preparePhoto } from '../shell/photo'
import { useStock } from '../stores/stock'
import FaultNote from '../shell/FaultNote.vue'
import FileButton from '../shell/FileButton.vue'

/** Exercises on a failed print or the practice body, what to look for, and what came of each try. */
const stock = useStock()
const { fault, busy, attempt } = useAttempt()
const chosen = ref<ExerciseId>('blend'),
  went = ref<(typeof WENT)[number]>('partly'),
  note = ref(''),
  photo = ref<File | null>(null)
const exercise = computed(() => EXERCISES.find((e) => e.id === chosen.value)!)
const all = computed(() => stock.workshop?.tries ?? [])
const own = computed(() => all.value.filter((t) => t.exercise === chosen.value).reverse())
const last = (id: ExerciseId): string => {
  const list = all.value.filter((t) => t.exercise === id)
  return list.length === 0
    ? text('places.practicePlace.notTried')
    : text('places.practicePlace.listLast', { list: list.length, went: term('went', list.at(-1)!.went) })
}
function write(): Promise<void> {
  return attempt(async () => {
    const w = stock.workshop
    if (!w) return
    let hash: string | null = null
    if (photo.value) {
      const bytes = new Uint8Array(await (await preparePhoto(photo.value)).arrayBuffer())
      hash = (await api(z.object({ hash: z.string() }), 'POST', '/blobs', bytes)).hash
    }
    await stock.changeWorkshop({
      tries: [
        ...w.tries,
        {
          id: crypto.randomUUID(),
          exercise: chosen.value,
          at: new Date().toISOString(),
          went: went.value,
          note: note.value.trim(),
          photo: hash,
        },
      ],
    })
    note.value = ''
    photo.value = null
  })
}
const body = (): Promise<void> =>
  attempt(async () => {
    const { work, stop } = ownPaintWork()
    try {
      saveFile('practice body.stl', new Uint8Array(await work.practiceStl()), 'model/stl')
    } finally {
      stop()
    }
  })
const day = (at: string): string => dateText(at, 'date')
</script>

<template>
  <div class="practice">
    <aside class="list scroll">
      <h1>{{ $t('places.practicePlace.practice') }}</h1>
      <p class="soft">{{ $t('places.practicePlace.useAFailedPrint') }}</p>
      <BButton variant="quiet" class="mb-3" :disabled="busy" @click="body">{{
        $t('places.practicePlace.practiceBodyStl')
      }}</BButton>
      <BButton
        variant="card"
        v-for="e in EXERCISES"
        :key="e.id"
        class="exercise"
        :class="{ on: e.id === chosen }"
        :aria-pressed="e.id === chosen"
        @click="chosen = e.id"
      >
        <b>{{ say(e.name, manner) }}</b>
        <span class="soft small">{{ last(e.id) }}</span>
      </BButton>
    </aside>
    <article class="scroll what">
      <h2>{{ say(exercise.name, manner) }}</h2>
      <p class="soft">{{ $t('places.practicePlace.on', { where: say(exercise.where, manner) }) }}</p>
      <ol>
        <li v-for="(d, i) in exercise.does" :key="i">{{ say(d, manner) }}</li>
      </ol>
      <h3>{{ $t('places.practicePlace.itIsGoodWhen') }}</h3>
      <ul>
        <li v-for="(l, i) in exercise.look" :key="i">{{ say(l, manner) }}</li>
      </ul>
      <p v-for="c in exercise.cautions" :key="c" class="caution">{{ say(CAUTIONS[c], manner) }}</p>
      <h3>{{ $t('places.practicePlace.attempts') }}</h3>
      <form class="sheet p-3 my-2" @submit.prevent="write">
        <fieldset class="d-flex gap-3">
          <legend class="visually-hidden">{{ $t('places.practicePlace.howItWent') }}</legend>
          <BFormRadio v-for="w in WENT" :key="w" v-model="went" name="went" :value="w">{{
            term('went', w)
          }}</BFormRadio>
        </fieldset>
        <BFormTextarea
          v-model="note"
          class="my-2"
          rows="2"
          maxlength="1000"
          :placeholder="$t('places.practicePlace.paintThinningBrushWhat')"
          :aria-label="$t('places.practicePlace.result')"
        />
        <div class="d-flex gap-2 align-items-center">
          <FileButton
            accept="image/*"
            :label="$t('places.practicePlace.photoOfTheAttempt')"
            @files="photo = $event[0] ?? null"
            >{{ photo ? photo.name : $t('places.practicePlace.addAPhoto') }}</FileButton
          >
          <BButton type="submit" variant="primary" class="text-nowrap" :disabled="busy">{{
            $t('places.practicePlace.saveAttempt')
          }}</BButton>
        </div>
        <FaultNote :text="fault" class="mt-2 mb-0" />
      </form>
      <p v-if="own.length === 0" class="soft">{{ $t('places.practicePlace.noneYet') }}</p>
      <article v-for="t in own" :key="t.id" class="try">
        <img v-if="t.photo" :src="`/api/blobs/${t.photo}`" :alt="$t('places.practicePlace.theAttempt')" />
        <div>
          <b>{{ term('went', t.went) }}</b> <span class="soft">{{ day(t.at) }}</span>
          <p v-if="t.note" class="m-0">{{ t.note }}</p>
        </div>
      </article>
    </article>
  </div>
</template>

<style scoped>
.practice {
  display: grid;
  grid-template-columns: 320px 1fr;
  height: 100%;
  min-height: 0;
}
.list,
.what {
  padding: 18px 24px;
  min-height: 0;
}
.list {
  border-right: 1px solid var(--line);
}
.exercise {
  display: grid;
  width: 100%;
  text-align: left;
  border: 1px solid var(--line);
  background: var(--paper-raised);
  border-radius: 4px;
  padding: 7px 10px;
  margin-bottom: 6px;
}
.exercise.on {
  border-color: var(--action);
  box-shadow: inset 3px 0 0 var(--action);
}
.what {
  max-width: 78ch;
}
.caution {
  border-left: 4px solid var(--warning);
  padding: 4px 10px;
}
.try {
  display: flex;
  gap: 12px;
  border-top: 1px solid var(--line);
  padding: 8px 0;
}
.try img {
  width: 120px;
  border-radius: 4px;
}
</style>
