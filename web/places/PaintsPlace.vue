<script setup lang="ts">
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, onMounted, ref, watch } from 'vue'
import { z } from 'zod'
import { text, term, fixed } from '../i18n'
import { labOfPaint, plainPaints, stockPaint } from '../../core/paint/recipes/stockPaint'
import { labToHex } from '../../core/paint/optics/colour'
import { chromaOf, hueOf } from '../../core/paint/optics/hue'
import { PAINT_KINDS } from '../../core/defaults/paint'
import { api } from '../api'
import { useAttempt } from '../composables/useAttempt'
import { usePaintWork } from '../composables/usePaintWork'
import { useStock } from '../stores/stock'
import PaintPanel from './paints/PaintPanel.vue'
import CsvList from './stock/CsvList.vue'
import StockNav from './stock/StockNav.vue'
import FaultNote from '../shell/FaultNote.vue'

/** The paints: each as one coat over black and over white, which is what an opacity means. */
const stock = useStock(),
  work = usePaintWork()
const { fault, busy, attempt } = useAttempt()
const open = ref<string | null>(null),
  sought = ref(''),
  kind = ref(''),
  order = ref<'colour' | 'name'>('colour')
const chips = ref(new Map<string, { black: string; white: string }>())
const logged = ref(new Map<string, { coats: number; ml: number }>())
onMounted(() =>
  attempt(async () => {
    await stock.load()
    const list = await api(
      z.array(z.object({ paintId: z.string(), coats: z.number(), ml: z.number() })),
      'GET',
      '/paints/used',
    )
    logged.value = new Map(list.map((u) => [u.paintId, u]))
  }),
)
watch(
  () => stock.paints,
  async (list) => {
    const got = await work.chips(plainPaints(list.map((p) => stockPaint(p.id, p))))
    chips.value = new Map(got.map((c) => [c.id, c]))
  },
  { immediate: true },
)
/** Greys first, from light to dark, then round the hues. */
const place = (p: (typeof stock.paints)[number]): number => {
  const lab = labOfPaint(p)
  return chromaOf(lab) < 9 ? -1000 - lab[0] : hueOf(lab) * 10 - lab[0] / 20
}
const shown = computed(() =>
  stock.paints
    .filter(
      (p) => (kind.value === '' || p.kind === kind.value) && p.name.toLowerCase().includes(sought.value.toLowerCase()),
    )
    .sort((a, b) => (order.value === 'colour' ? place(a) - place(b) : a.name.localeCompare(b.name))),
)
const selected = computed(() => stock.paints.find((p) => p.id === open.value) ?? null)
const add = (): Promise<void> =>
  attempt(async () => {
    const before = new Set(stock.items.map((i) => i.id))
    await stock.add('paint', {
      name: text('places.paintsPlace.newPaint'),
      hex: '#8a5a3a',
      opacity: 0.75,
      kind: 'acrylic',
    })
    sought.value = kind.value = ''
    open.value = stock.items.find((i) => !before.has(i.id))?.id ?? null
  })
</script>

<template>
  <div class="beside">
    <div class="middle scroll">
      <StockNav />
      <FaultNote :text="fault" />
      <div class="d-flex flex-wrap gap-2 align-items-center mb-2">
        <BFormInput
          v-model="sought"
          class="w-auto"
          size="sm"
          :placeholder="$t('places.paintsPlace.findByName')"
          :aria-label="$t('places.paintsPlace.findByName')"
        />
        <BFormSelect v-model="kind" size="sm" class="w-auto" :aria-label="$t('places.paintsPlace.onlyOfThisKind')">
          <option value="">{{ $t('places.paintsPlace.allKinds') }}</option>
          <option v-for="k in PAINT_KINDS" :key="k" :value="k">{{ term('paintKind', k) }}</option>
        </BFormSelect>
        <BFormSelect v-model="order" size="sm" class="w-auto" :aria-label="$t('places.paintsPlace.order')">
          <option value="colour">{{ $t('places.paintsPlace.byColour') }}</option>
          <option value="name">{{ $t('places.paintsPlace.byName') }}</option>
        </BFormSelect>
        <span class="soft flex-grow-1">{{ $t('places.paintsPlace.paints', { shown: shown.length }) }}</span>
        <BButton variant="primary" size="sm" :disabled="busy" @click="add">{{
          $t('places.paintsPlace.addAPaint')
        }}</BButton>
        <CsvList words="paints" />
      </div>
      <p v-if="stock.paints.length === 0" class="soft">
        {{ $t('places.paintsPlace.noPaintsYetAdd') }}
      </p>
      <ul class="paints">
        <li v-for="p in shown" :key="p.id">
          <BButton
            variant="card"
            class="paint"
            :class="{ on: open === p.id }"
            :aria-expanded="open === p.id"
            @click="open = open === p.id ? null : p.id"
          >
            <span class="chip"
              ><i :style="{ background: labToHex(labOfPaint(p)) }" /><i
                :style="{ background: chips.get(p.id)?.white }"
                class="on-white" /><i :style="{ background: chips.get(p.id)?.black }" class="on-black"
            /></span>
            <span class="about"
              ><b>{{ p.name }}</b
              ><span class="soft small"
                >{{
                  $t('places.paintsPlace.mlOpened', {
                    kind: p.kind,
                    level: fixed(p.level, p.level < 10 ? 1 : 0),
                    opened: Boolean(p.opened),
                  })
                }}{{ p.starting ? $t('places.paintsPlace.startingValues') : '' }}</span
              ></span
            >
          </BButton>
        </li>
      </ul>
    </div>
    <aside class="side scroll">
      <PaintPanel
        v-if="selected"
        :key="selected.id"
        :item="selected"
        :used="logged.get(selected.id)"
        @gone="open = null"
      />
      <template v-else>
        <h2 class="mb-2">{{ $t('places.paintsPlace.paints2', { paints: stock.paints.length }) }}</h2>
        <p class="soft">
          {{ $t('places.paintsPlace.eachPaintIsDrawn') }}
        </p>
        <p class="soft">
          {{ $t('places.paintsPlace.clickAPaintTo') }}
        </p>
      </template>
    </aside>
  </div>
</template>

<style scoped>
.middle {
  padding: 14px 20px;
}
.paints {
  list-style: none;
  padding: 0;
  margin: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
  gap: 7px;
}
.paint {
  display: flex;
  align-items: stretch;
  gap: 9px;
  width: 100%;
  padding: 0;
  border: 1px solid var(--line);
  border-radius: 6px;
  background: var(--paper-raised);
  overflow: hidden;
  text-align: left;
  color: inherit;
}
.paint.on {
  border-color: var(--action);
  box-shadow: inset 0 -3px 0 var(--action);
}
.chip {
  display: grid;
  grid-template: 1fr 1fr / 30px 24px;
  width: 54px;
  height: 46px;
  flex: none;
}
.chip i:first-child {
  grid-row: 1 / 3;
}
.on-white {
  border: 3px solid var(--swatch-white);
}
.on-black {
  border: 3px solid var(--swatch-black);
}
.about {
  display: flex;
  flex-direction: column;
  justify-content: center;
  line-height: 1.2;
  min-width: 0;
}
.about b {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
