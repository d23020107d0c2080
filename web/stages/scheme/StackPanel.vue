<script setup lang="ts">
import { BFormCheckbox } from 'bootstrap-vue-next/components/BFormCheckbox'
import FoldPanel from '../../shell/FoldPanel.vue'
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { text, choicesOf } from '../../i18n'
import { dropsOf } from '../../../core/paint/coats/coatPaints'
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import { coat as coatSchema, type Coat, type Scheme } from '../../../contract/scheme'
import { plainPaints } from '../../../core/paint/recipes/stockPaint'
import { hexToLab, type Triple } from '../../../core/paint/optics/colour'
import { LIBRARY, type LaidOut, type LibraryStack } from '../../../core/paint/coats/library'
import type { ToneSchool } from '../../../core/defaults/paint'
import { stackForName } from '../../../core/paint/surface/vocabulary'
import { newestOnly } from '../../composables/newest'
import { plainCoats } from '../../composables/paintedScheme'
import { usePaintWork, useSlowPaintWork } from '../../composables/usePaintWork'
import { useRules } from '../../composables/useRules'
import { useAttempt } from '../../composables/useAttempt'
import { useScheme } from '../../stores/scheme'
import { useStock } from '../../stores/stock'
import type { SceneDescription } from '../../viewport/sceneDescription'
import { useViewport } from '../../viewport/useViewport'
import type { SchemeSent } from '../../workers/paintedSkin'
import FaultNote from '../../shell/FaultNote.vue'
import { z } from 'zod'
import { nameOf as named } from '../../../contract/name'
import { useZodForm } from '../../composables/useZodForm'
import TextField from '../../shell/TextField.vue'
import DraftInput from '../../shell/DraftInput.vue'
import type { Message } from '../../../core/words/message'
import { say } from '../../../core/words/say'
import { manner } from '../../manner'

/** Whole stacks for a region: laid out by a school, the workshop's own, and others that were tried and kept aside. */
const emit = defineEmits<{ changed: [] }>()
const props = defineProps<{
  region: Scheme['regions'][number]
  shown: number
  sent: () => SchemeSent | null
  kelvin: number | null
}>()
const stock = useStock(),
  book = useScheme(),
  viewport = useViewport(),
  work = usePaintWork(),
  slow = useSlowPaintWork()
const { fault, busy, attempt } = useAttempt()
const { rule } = useRules()
/** Changed in place: what is on its way to the server comes back to the same scheme. */
const scheme = computed(() => book.scheme!)
function change(fields: Partial<Scheme>): void {
  Object.assign(scheme.value, fields)
  emit('changed')
}
const house = computed(() => rule('shading'))
const own = computed(() => stock.workshop?.stacks ?? [])
const TONES = choicesOf('tones')
const chosen = ref(''),
  tones = ref<ToneSchool>(rule('tones')),
  notes = ref<Message[]>([])
// What it is called says how it is mostly painted; else the house's school does.
watch(
  [house, () => props.region.name],
  ([h, called]) => (chosen.value = stackForName(called, (m) => text(m.id)) ?? LIBRARY.find((s) => s.school === h)!.id),
  { immediate: true },
)
watch(
  () => rule('tones'),
  (t) => (tones.value = t),
)
const picked = computed(() => LIBRARY.find((s) => s.id === chosen.value) ?? null)
const bySchool = computed(() =>
  [...LIBRARY].sort((a, b) => Number(b.school === house.value) - Number(a.school === house.value)),
)
const label = (s: LibraryStack): string =>
  s.school
    ? text('scheme.stackPanel.school', {
        name: say(s.name, manner),
        choices: choicesOf('shading')[s.school],
        school: s.school === house.value,
      })
    : say(s.name, manner)
const here = computed(() => scheme.value.coats.filter((c) => c.regionId === props.region.id))
const variants = computed(() => scheme.value.variants.filter((v) => v.regionId === props.region.id))

const fresh = (c: Omit<Coat, 'id' | 'regionId'>): Coat =>
  coatSchema.parse({ ...JSON.parse(JSON.stringify(c)), id: crypto.randomUUID(), regionId: props.region.id })
/** What it is made of: a name until somebody gives it a better one. */
const nameOf = (coats: readonly Coat[]): string =>
  coats
    .map((c) => c.technique)
    .join(', ')
    .slice(0, 60)
/** The stack that is there gives way: it is kept aside, never lost. */
function take(coats: Coat[]): void {
  const s = scheme.value
  const aside = here.value
  change({
    coats: [...s.coats.filter((c) => c.regionId !== props.region.id), ...coats],
    variants:
      aside.length > 0
        ? [
            ...s.variants,
            {
              id: crypto.randomUUID(),
              regionId: props.region.id,
              name: nameOf(aside),
              coats: aside,
            },
          ]
        : s.variants,
  })
}
const coatOf = (c: LaidOut): Coat =>
  fresh(
    coatSchema.omit({ id: true, regionId: true }).parse({
      technique: c.technique,
      film: c.film,
      tool: c.tool,
      pigment: c.pigment,
      from: c.from,
      coverage: c.coverage,
      grain: c.grain,
      paintId: c.drops.length === 1 ? c.drops[0]!.paint : null,
      mix: c.drops.length > 1 ? c.drops.map((d) => ({ paintId: d.paint, drops: d.drops })) : [],
    }),
  )
/** The colour that it is to have, or else that of its first coat's paint. */
function goal(): Triple | null {
  if (props.region.target) return hexToLab(props.region.target)
  const first = here.value[0]
  const paint = book.paints.find((p) => p.id === (first && dropsOf(first)[0]?.paintId))
  return paint?.lab ?? null
}
function addCoats(): Promise<unknown> {
  return attempt(async () => {
    notes.value = []
    const stack = own.value.find((s) => `own ${s.name}` === chosen.value)
    if (stack) return take(stack.coats.map(fresh))
    const target = goal()
    if (!target) throw new Error(text('scheme.stackPanel.giveTheRegionA'))
    const out = await slow.coatsOfStack(chosen.value, [...target], plainPaints(book.paints), {
      tones: tones.value,
      washScope: rule('washScope'),
    })
    if (!out) return
    notes.value = out.notes
    take(out.coats.map(coatOf))
  })
}
const kept = useZodForm(
  z.object({ name: named(60, 'forms.giveTheStackAName') }),
  () => ({ name: '' }),
  ({ name }) =>
    stock.changeWorkshop({
      stacks: [...stock.workshop!.stacks.filter((s) => s.name !== name), { name, coats: here.value }],
    }),
)
function use(v: Scheme['variants'][number]): void {
  const s = scheme.value
  const aside = here.value
  change({
    coats: [...s.coats.filter((c) => c.regionId !== props.region.id), ...v.coats],
    // They change places, and each is called what it is.
    variants: s.variants.flatMap((x) =>
      x.id !== v.id ? [x] : aside.length > 0 ? [{ ...v, name: nameOf(aside), coats: aside }] : [],
    ),
  })
}
const drop = (id: string): void => change({ variants: scheme.value.variants.filter((v) => v.id !== id) })
const rename = (id: string, text: string): void => {
  const called = text.trim()
  change({ variants: scheme.value.variants.map((v) => (v.id === id && called ? { ...v, name: called } : v)) })
}

/** At most so many stand beside it: more are too small to compare. */
const MAX_SHOWN = 3
const together = ref(false)
const beside = shallowRef<SceneDescription['beside']>([])
viewport.describe(() => (beside.value.length > 0 ? { beside: beside.value } : null))
const stand = newestOnly(async () => {
  const s = props.sent()
  if (!together.value || !s) {
    beside.value = []
    return
  }
  const out: SceneDescription['beside'][number][] = []
  for (const v of variants.value.slice(0, MAX_SHOWN)) {
    const coats = [...s.coats.filter((c) => c.regionId !== props.region.id), ...v.coats]
    const painted = await work.preview({ ...s, coats: plainCoats(coats) }, props.kelvin, null)
    out.push({ name: v.name, ...painted })
  }
  if (together.value) beside.value = out
})
watch([together, () => props.region.id, () => props.shown], () => void stand())
onBeforeUnmount(() => {
  together.value = false
})
</script>

<template>
  <FoldPanel class="my-2">
    <template #title
      ><h2 class="d-inline">{{ $t('scheme.stackPanel.stacks') }}</h2>
      <span class="soft small ms-2">{{
        variants.length > 0
          ? $t('scheme.stackPanel.keptForLater', { variants: variants.length })
          : $t('scheme.stackPanel.byAMethodOr')
      }}</span>
    </template>
    <div class="folded">
      <BFormSelect v-model="chosen" size="sm" :aria-label="$t('scheme.stackPanel.stack')">
        <option v-for="s in bySchool" :key="s.id" :value="s.id">{{ label(s) }}</option>
        <optgroup v-if="own.length > 0" :label="$t('scheme.stackPanel.theWorkshopsOwn')">
          <option v-for="s in own" :key="s.name" :value="`own ${s.name}`">{{ s.name }}</option>
        </optgroup>
      </BFormSelect>
      <p v-if="picked" class="soft small m-0">{{ say(picked.says, manner) }}</p>
      <div class="d-flex gap-2">
        <BFormSelect v-if="picked" v-model="tones" size="sm" class="w-auto" :aria-label="$t('scheme.stackPanel.tones')">
          <option v-for="(words, t) in TONES" :key="t" :value="t">{{ words }}</option>
        </BFormSelect>
        <BButton variant="primary" size="sm" class="text-nowrap" :disabled="busy" @click="addCoats">{{
          $t('scheme.stackPanel.addTheseCoats')
        }}</BButton>
      </div>
      <p v-for="(n, i) in notes" :key="i" class="small m-0">{{ say(n, manner) }}</p>
      <FaultNote :text="fault" />
      <FaultNote :text="kept.fault.value" />
      <form v-if="here.length > 0" class="d-flex gap-2 align-items-start" novalidate @submit.prevent="kept.send">
        <TextField
          v-bind="kept.bind('name')"
          bare
          class="flex-grow-1"
          :placeholder="$t('scheme.stackPanel.nameOfThisStack')"
          :label="$t('scheme.stackPanel.nameOfThisStack2')"
        />
        <BButton type="submit" variant="quiet" size="sm" class="text-nowrap">{{
          $t('scheme.stackPanel.keepInTheLibrary')
        }}</BButton>
      </form>
      <template v-if="variants.length > 0">
        <BFormCheckbox v-model="together">{{
          $t('scheme.stackPanel.showVariantsTheFirst', {
            variants: variants.length > MAX_SHOWN,
            MAX_SHOWN,
          })
        }}</BFormCheckbox>
        <ul class="list-unstyled m-0">
          <li v-for="v in variants" :key="v.id" class="variant">
            <DraftInput
              maxlength="60"
              :value="v.name"
              :aria-label="$t('scheme.stackPanel.nameOfTheVariant')"
              @done="rename(v.id, $event)"
            />
            <span class="soft small text-nowrap">{{ $t('scheme.stackPanel.coats', { n: v.coats.length }) }}</span>
            <BButton variant="quiet" size="sm" @click="use(v)">{{ $t('scheme.stackPanel.use') }}</BButton>
            <BButton
              variant="quiet"
              size="sm"
              :aria-label="$t('scheme.stackPanel.delete', { name: v.name })"
              @click="drop(v.id)"
              >×</BButton
            >
          </li>
        </ul>
      </template>
    </div>
  </FoldPanel>
</template>

<style scoped>
.variant {
  display: grid;
  grid-template-columns: 1fr auto auto auto;
  gap: 6px;
  align-items: center;
  padding: 3px 0;
}
</style>
