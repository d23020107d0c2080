<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { text, term } from '../../i18n'
import FoldPanel from '../../shell/FoldPanel.vue'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import type { Coat } from '../../../contract/scheme'
import { vertexNormals } from '../../../core/mesh/measure'
import { regionView } from '../../../core/paint/surface/regions'
import { newestOnly } from '../../composables/newest'
import { usePaintWork } from '../../composables/usePaintWork'
import { paintedPicture } from '../../viewport/paintedPicture'
import { useViewport } from '../../viewport/useViewport'
import type { SchemeSent } from '../../workers/paintedSkin'

/** The region before its first coat and after each one; a press shows the sculpt as it is then. */
const props = defineProps<{
  region: number
  coats: Coat[]
  /** counts the previews, so that what is drawn follows them */
  shown: number
  sent: () => SchemeSent | null
  kelvin: number | null
}>()
/** only these coats are on; null: all */
const done = defineModel<string[] | null>({ required: true })
const viewport = useViewport(),
  work = usePaintWork()
const open = ref(false)
const pictures = ref<string[]>([]),
  /** nothing of the region is on the part that is shown */
  absent = ref(false)
const own = computed(() => props.coats.filter((c) => c.regionId === props.region))
const others = computed(() => props.coats.filter((c) => c.regionId !== props.region).map((c) => c.id))
const after = (n: number): string[] => [...others.value, ...own.value.slice(0, n).map((c) => c.id)]
const at = computed(() =>
  done.value === null ? own.value.length : own.value.filter((c) => done.value!.includes(c.id)).length,
)

const draw = newestOnly(async () => {
  const scheme = props.sent(),
    mesh = viewport.shown?.mesh
  if (!open.value || !scheme || !mesh) return
  const view = regionView(mesh, vertexNormals(mesh), scheme.labels, props.region)
  absent.value = view === null
  if (!view) {
    pictures.value = []
    return
  }
  const out: string[] = []
  for (let n = 0; n <= own.value.length; n++) {
    const painted = await work.preview(scheme, props.kelvin, after(n))
    if (viewport.shown?.mesh !== mesh) return
    out.push(paintedPicture(mesh, painted, view))
    // Each as it comes, with the older ones behind it until they are drawn.
    pictures.value = [...out, ...pictures.value.slice(out.length, own.value.length + 1)]
  }
})
let timer: ReturnType<typeof setTimeout> | undefined
watch([open, () => props.region, () => props.shown], () => {
  clearTimeout(timer)
  // The hand on a slider comes first.
  if (open.value && done.value === null) timer = setTimeout(() => void draw(), 350)
})
// A coat that is added or taken away is to be seen at once.
watch(
  () => [props.region, ...props.coats.map((c) => c.id)].join(),
  () => {
    done.value = null
  },
)
onBeforeUnmount(() => clearTimeout(timer))
const show = (n: number): void => {
  done.value = n === own.value.length ? null : after(n)
}
const title = (n: number): string => {
  const coat = own.value[n - 1]
  return coat ? `${n} ${term('technique', coat.technique)}` : text('scheme.coatPictures.primed')
}
</script>

<template>
  <FoldPanel class="my-2" @toggle="open = $event">
    <template #title
      ><h2 class="d-inline">{{ $t('scheme.coatPictures.coatByCoat') }}</h2>
      <span v-if="done" class="soft small ms-2">{{
        $t('scheme.coatPictures.shownAtAfterCoat', { at: at === 0, at2: at })
      }}</span>
    </template>
    <p v-if="open && pictures.length === 0" class="soft small m-0">
      {{ absent ? $t('scheme.coatPictures.nothingOfThisRegion') : $t('scheme.coatPictures.drawing') }}
    </p>
    <div class="strip">
      <BButton
        variant="card"
        v-for="(url, n) in pictures"
        :key="n"
        :class="{ on: n === at }"
        :aria-pressed="n === at"
        :aria-label="$t('scheme.coatPictures.showIt', { n: title(n) })"
        @click="show(n)"
      >
        <img :src="url" alt="" />
        <span>{{ title(n) }}</span>
      </BButton>
    </div>
  </FoldPanel>
</template>

<style scoped>
.strip {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 6px;
  padding-top: 6px;
}
button {
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--paper-raised);
  padding: 2px;
  font-size: 0.82rem;
  display: grid;
  justify-items: center;
}
button.on {
  border-color: var(--action);
  box-shadow: inset 0 -3px 0 var(--action);
}
img {
  width: 100%;
}
</style>
