<script setup lang="ts">
import { BTableSimple, BTbody, BTd, BTh, BThead, BTr } from 'bootstrap-vue-next/components/BTable'
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { BProgress } from 'bootstrap-vue-next/components/BProgress'
import * as Comlink from 'comlink'
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import { text, fixed } from '../../i18n'
import { figure, manner } from '../../manner'
import type { Mesh } from '../../../core/mesh/mesh'
import { stencilPages, stencilSvg } from '../../../core/paint/stencil/pages'
import { STENCIL, type Stencils } from '../../../core/paint/stencil/stencil'
import { ownPaintWork } from '../../composables/usePaintWork'
import { useAttempt } from '../../composables/useAttempt'
import { saveFile } from '../../shell/downloadFile'
import NumberField from '../../shell/NumberField.vue'
import { usePiece } from '../../stores/piece'
import FaultNote from '../../shell/FaultNote.vue'

/** Masks to be cut from tape or paper: the region laid flat at true size. */
const props = defineProps<{ region: { id: number; name: string }; mesh: Mesh; labels: Uint8Array }>()
const store = usePiece()
const { fault, busy, attempt } = useAttempt()
const stretch = ref(100 * STENCIL.stretch),
  darts = ref(STENCIL.darts),
  share = ref(0),
  found = shallowRef<Stencils | null>(null),
  page = ref(0)
let stop: (() => void) | null = null
const forget = (): void => {
  stop?.()
  stop = null
  found.value = null
  page.value = 0
}
watch(() => [props.region.id, props.labels, props.mesh], forget)
onBeforeUnmount(forget)
const title = computed(() =>
  text('scheme.stencilPanel.masksFor', { name: store.piece?.name ?? 'Piece', name2: props.region.name }),
)
const pages = computed(() => (found.value ? stencilPages(title.value, found.value, manner) : []))
const drawn = computed(() => {
  const p = pages.value[page.value]
  return p ? `data:image/svg+xml,${encodeURIComponent(stencilSvg(p))}` : null
})

function flatten(): Promise<void> {
  return attempt(async () => {
    forget()
    share.value = 0
    const own = ownPaintWork()
    // What is stopped never answers: whoever waits for it is told so.
    const stopped = new Promise<null>((done) => {
      stop = () => {
        own.stop()
        done(null)
      }
    })
    const told = Comlink.proxy((s: number): void => {
      share.value = s
    })
    const wish = { stretch: stretch.value / 100, darts: darts.value }
    const got = await Promise.race([
      own.work.stencils(props.mesh, props.labels.slice(), props.region.id, wish, told),
      stopped,
    ])
    stop?.()
    stop = null
    if (!got) return
    if (got.pieces.length === 0)
      throw new Error(
        got.crumbs.count > 0
          ? text('scheme.stencilPanel.thereAreOnlySpecks', { name: props.region.name })
          : text('scheme.stencilPanel.nothingOfIsOn', { name: props.region.name }),
      )
    found.value = got
  })
}
const svg = (): void =>
  pages.value.forEach((p, i) =>
    saveFile(`${title.value}${pages.value.length > 1 ? `, ${i + 1}` : ''}.svg`, stencilSvg(p), 'image/svg+xml'),
  )
const pdf = (): Promise<void> =>
  attempt(async () => {
    const own = ownPaintWork()
    try {
      const bytes = await own.work.stencilPdf(pages.value, title.value)
      saveFile(`${title.value}.pdf`, new Uint8Array(bytes), 'application/pdf')
    } finally {
      own.stop()
    }
  })
/** Beyond this a mask no longer meets the edge that it is to follow. */
const TRUE = 0.02
const off = (part: { skin: number; sheet: number }): number => (part.skin > 0 ? part.sheet / part.skin - 1 : 0)
const untrue = computed(() =>
  (found.value?.pieces ?? []).flatMap((p, i) =>
    (['edge', 'area'] as const)
      .filter((what) => Math.abs(off(p[what])) > TRUE)
      .map((what) =>
        text('scheme.stencilPanel.pieceItsIsP2', {
          i: i + 1,
          what,
          p: percent(p[what]),
          p2: off(p[what]) > 0,
        }),
      ),
  ),
)
const percent = (part: { skin: number; sheet: number }): string =>
  part.skin > 0 ? `${figure(100 * Math.abs(part.sheet / part.skin - 1), 1)} %` : '–'
</script>

<template>
  <FoldPanel class="my-2">
    <template #title
      ><h2 class="d-inline">{{ $t('scheme.stencilPanel.flatMasks') }}</h2>
      <span v-if="found" class="soft small ms-2">{{
        $t('scheme.stencilPanel.piecesOnPages', { pieces: found.pieces.length, pages: pages.length })
      }}</span>
    </template>
    <div class="folded">
      <NumberField
        v-model="stretch"
        :label="$t('scheme.stencilPanel.stretchAllowed')"
        unit="%"
        :min="0.5"
        :max="30"
        :step="0.5"
        :digits="1"
      />
      <NumberField
        v-model="darts"
        :label="$t('scheme.stencilPanel.dartsPerPieceAt')"
        :min="0"
        :max="40"
        :step="1"
        :digits="0"
      />
      <div class="d-flex gap-2 align-items-center">
        <BButton v-if="!busy" variant="primary" size="sm" @click="flatten">{{
          $t('scheme.stencilPanel.flatten', { name: region.name })
        }}</BButton>
        <template v-else>
          <BProgress class="flex-grow-1" :value="share" :max="1" :aria-label="$t('scheme.stencilPanel.flattening')" />
          <BButton variant="quiet" size="sm" @click="stop?.()">{{ $t('scheme.stencilPanel.stop') }}</BButton>
        </template>
      </div>
      <FaultNote :text="fault" />
      <template v-if="found">
        <BTableSimple class="num">
          <BThead>
            <BTr>
              <BTh></BTh>
              <BTh>{{ $t('scheme.stencilPanel.area') }}</BTh>
              <BTh>{{ $t('scheme.stencilPanel.edge') }}</BTh>
              <BTh>{{ $t('scheme.stencilPanel.darts') }}</BTh>
              <BTh>{{ $t('scheme.stencilPanel.stretch') }}</BTh>
            </BTr>
          </BThead>
          <BTbody>
            <BTr v-for="(p, i) in found.pieces.slice(0, 8)" :key="i">
              <BTd>{{ i + 1 }}</BTd>
              <BTd :title="$t('scheme.stencilPanel.onPaper', { area: percent(p.area) })">
                {{ $t('scheme.stencilPanel.cm', { skin: fixed(p.area.skin / 100, 1) }) }}
              </BTd>
              <BTd :title="$t('scheme.stencilPanel.onPaper2', { edge: percent(p.edge) })">
                {{ $t('scheme.stencilPanel.mm', { skin: fixed(p.edge.skin, 0) }) }}
              </BTd>
              <BTd>{{ p.darts }}</BTd>
              <BTd>{{ figure(100 * p.stretch, 1) }} %</BTd>
            </BTr>
          </BTbody>
        </BTableSimple>
        <p v-if="found.pieces.length > 8" class="soft small m-0">
          {{ $t('scheme.stencilPanel.andSmallerOnes', { pieces: found.pieces.length - 8 }) }}
        </p>
        <p v-for="n in untrue" :key="n" class="small m-0">{{ n }}</p>
        <p v-if="found.pieces.some((p) => p.overlaps)" class="small m-0">
          {{ $t('scheme.stencilPanel.aPieceOverlapsItself') }}
        </p>
        <p class="soft small m-0">
          {{ $t('scheme.stencilPanel.aTwentiethOfEach') }}
        </p>
        <img
          v-if="drawn"
          :src="drawn"
          :alt="$t('scheme.stencilPanel.pageOfTheMasks', { page: page + 1 })"
          class="page"
        />
        <div class="d-flex gap-2 flex-wrap">
          <BButton v-if="pages.length > 1" variant="quiet" size="sm" @click="page = (page + 1) % pages.length">
            {{ $t('scheme.stencilPanel.pageOf', { page: page + 1, pages: pages.length }) }}
          </BButton>
          <BButton variant="quiet" size="sm" @click="svg">{{ $t('scheme.stencilPanel.svgSize') }}</BButton>
          <BButton variant="quiet" size="sm" :disabled="busy" @click="pdf">{{
            $t('scheme.stencilPanel.pdfSize')
          }}</BButton>
        </div>
      </template>
    </div>
  </FoldPanel>
</template>

<style scoped>
table {
  width: 100%;
}
th,
td {
  text-align: right;
  padding: 1px 6px;
  font-weight: normal;
}
th {
  color: var(--ink-soft);
  font-size: 0.82rem;
}
.page {
  width: 100%;
  background: var(--white);
  border: 1px solid var(--line);
}
progress {
  flex: 1;
}
</style>
