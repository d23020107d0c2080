<script setup lang="ts">
import StartingBadge from './stock/StartingBadge.vue'
import { BTable } from 'bootstrap-vue-next/components/BTable'
import type { BTableSortBy, TableFieldRaw } from 'bootstrap-vue-next'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import { z } from 'zod'
import { text } from '../i18n'
import { dateText, manner } from '../manner'
import { material as materialSchema, shoppingRow, type MaterialRecord, type ShoppingRow } from '../../contract/stock'
import { supplyName } from '../../core/plan/materials/supplies'
import { keepsUntil, spent } from '../../core/stock/lots'
import { amountText } from '../../core/stock/units'
import { api } from '../api'
import { useAttempt } from '../composables/useAttempt'
import { saveFile } from '../shell/downloadFile'
import { newestOnly } from '../composables/newest'
import { useChanges } from '../stores/changes'
import { useStock } from '../stores/stock'
import CsvList from './stock/CsvList.vue'
import MaterialPanel from './stock/MaterialPanel.vue'
import StockNav from './stock/StockNav.vue'
import FaultNote from '../shell/FaultNote.vue'

/** What steps use up: how much there is and how long it keeps, and what has to be bought for all that is planned. */
const stock = useStock()
const { fault, busy, attempt } = useAttempt()
const list = ref<ShoppingRow[] | null>(null),
  open = ref<string | null>(null)
const load = newestOnly(() =>
  attempt(async () => {
    await stock.load()
    list.value = await api(z.array(shoppingRow), 'GET', '/shopping')
  }),
)
const off = useChanges().listen((c) => {
  if (['stock', 'piece', 'calendar', 'hello'].includes(c.type)) void load()
})
onMounted(load)
onBeforeUnmount(off)
const today = computed(() => stock.today())
interface Row {
  id: string
  name: string
  serves: string
  lots: number
  m: MaterialRecord
  /** of what keeps, in its own unit */
  left: number
  /** ISO, of what is best used first */
  until: string | undefined
  words: string[]
}
/** Unsorted, what needs a hand comes first. */
const sorted = ref<BTableSortBy[]>([])
const number = { class: 'num', sortable: true } as const
const fields: TableFieldRaw<Row>[] = [
  { key: 'name', label: text('places.materialsPlace.material'), sortable: true },
  { key: 'serves', label: text('places.materialsPlace.usedAs'), sortable: true, tdClass: 'soft serves' },
  { key: 'left', label: text('places.materialsPlace.left'), class: 'num' },
  { key: 'lots', label: text('places.materialsPlace.lots'), ...number },
  { key: 'until', label: text('places.materialsPlace.bestBefore'), sortable: true },
  { key: 'reorder', label: text('places.materialsPlace.buyAt'), class: 'num' },
  { key: 'doing', label: '', class: 'num text-nowrap' },
]
const WHY = {
  short: text('places.materialsPlace.notEnough'),
  none: text('places.materialsPlace.nothingSuitableInStock'),
  reorder: text('places.materialsPlace.low'),
}
const rows = computed<Row[]>(() =>
  stock.materials
    .map((item) => {
      const m = materialSchema.parse(item)
      const good = m.lots.filter((l) => !spent(l, today.value)),
        left = good.reduce((s, l) => s + l.amount, 0)
      const until = good
        .filter((l) => l.amount > 0)
        .flatMap((l) => keepsUntil(l) ?? [])
        .sort()[0]
      const old = m.lots.some((l) => l.amount > 0 && spent(l, today.value))
      const words = [
        ...(m.reorder !== null && left <= m.reorder ? [WHY.reorder] : []),
        ...(old ? [text('places.materialsPlace.someIsPastIts')] : []),
      ]
      return { id: item.id, name: m.name, serves: served(m), lots: m.lots.length, m, left, until, words }
    })
    .sort((a, b) => b.words.length - a.words.length || a.name.localeCompare(b.name)),
)
const served = (m: MaterialRecord): string => m.serves.map((w) => supplyName(w, manner)).join(', ')
const selected = computed(() => stock.materials.find((m) => m.id === open.value) ?? null)
const total = computed(() => (list.value ?? []).reduce((s, r) => s + r.cost, 0))
const day = (ms: number): string => dateText(ms, 'weekday')
const add = (data: Partial<MaterialRecord> = {}): Promise<void> =>
  attempt(async () => {
    const before = new Set(stock.items.map((i) => i.id))
    await stock.add('material', { name: text('places.materialsPlace.newMaterial'), ...data })
    open.value = stock.items.find((i) => !before.has(i.id))?.id ?? null
  })
/** What is to be bought and is not in stock yet, as something that is. */
const adopt = (r: ShoppingRow): Promise<void> => add({ name: r.name, serves: [r.what], unit: r.unit })
const giveOut = (): void => {
  const lines = (list.value ?? []).map((r) => `${r.name}\t${amountText(r.unit, r.buy, manner)}`)
  saveFile('to buy.txt', lines.join('\n'), 'text/plain')
}
</script>

<template>
  <div class="beside">
    <div class="middle scroll">
      <StockNav />
      <FaultNote :text="fault" />
      <BTable
        v-model:sort-by="sorted"
        class="plain"
        small
        show-empty
        primary-key="id"
        :items="rows"
        :fields="fields"
        :tbody-tr-class="(r) => (r && open === (r as Row).id ? 'on' : '')"
        :empty-text="$t('places.materialsPlace.noMaterialsYetAdd')"
        :label-sort-asc="$t('places.materialsPlace.sortAscending')"
        :label-sort-desc="$t('places.materialsPlace.sortDescending')"
        :label-sort-clear="$t('places.materialsPlace.mostUrgentFirst')"
      >
        <template #cell(serves)="{ item: r }">{{ r.serves || $t('places.materialsPlace.notUsedByAny') }}</template>
        <template #cell(left)="{ item: r }">{{ amountText(r.m.unit, r.left, manner) }}</template>
        <template #cell(until)="{ item: r }">{{ r.until ? dateText(r.until, 'date') : '' }}</template>
        <template #cell(reorder)="{ item: r }">{{
          r.m.reorder === null ? '' : amountText(r.m.unit, r.m.reorder, manner)
        }}</template>
        <template #cell(name)="{ item: r }">{{ r.name }} <StartingBadge v-if="r.m.starting" /></template>
        <template #cell(doing)="{ item: r }">
          <span v-if="r.words.length > 0" class="word me-2">{{ r.words.join(', ') }}</span>
          <BButton
            variant="quiet"
            size="sm"
            :aria-expanded="open === r.id"
            :aria-label="$t('places.materialsPlace.open', { name: r.name })"
            @click="open = open === r.id ? null : r.id"
          >
            {{ open === r.id ? $t('places.materialsPlace.close') : $t('places.materialsPlace.open2') }}
          </BButton>
        </template>
      </BTable>
      <div class="d-flex flex-wrap gap-2 mt-3">
        <BButton variant="primary" size="sm" :disabled="busy" @click="add()">{{
          $t('places.materialsPlace.addAMaterial')
        }}</BButton>
        <CsvList words="materials" />
      </div>
    </div>
    <aside class="side scroll">
      <MaterialPanel v-if="selected" :key="selected.id" :item="selected" @gone="open = null" />
      <section :aria-label="$t('places.materialsPlace.toBuy')">
        <h2 class="mb-2">
          {{
            list === null
              ? $t('places.materialsPlace.calculating')
              : list.length === 0
                ? $t('places.materialsPlace.nothingToBuy')
                : $t('places.materialsPlace.toBuy2', { list: list.length })
          }}
          <span v-if="total > 0" class="soft">{{
            $t('places.materialsPlace.about', { money: stock.money(total) })
          }}</span>
        </h2>
        <p v-if="list?.length === 0" class="soft small">
          {{ $t('places.materialsPlace.everythingThatIsPlanned') }}
        </p>
        <article v-for="r in list ?? []" :key="r.what + r.itemId" class="buy" :data-buy="r.what">
          <div class="d-flex justify-content-between gap-2">
            <b>{{ r.name }}</b><span class="figure-sm">{{ amountText(r.unit, r.buy, manner) }}</span>
          </div>
          <p class="soft small m-0">
            {{ WHY[r.why]
            }}{{
              r.need > 0
                ? $t('places.materialsPlace.neededInStock', {
                    unit: amountText(r.unit, r.need, manner),
                    unit2: amountText(r.unit, r.have, manner),
                  })
                : ''
            }}{{
              r.spoils > 0
                ? $t('places.materialsPlace.willBePastIts', { unit: amountText(r.unit, r.spoils, manner) })
                : ''
            }}{{ r.by ? $t('places.materialsPlace.from', { by: day(r.by) }) : ''
            }}{{ r.pieces.length > 0 ? $t('places.materialsPlace.for', { pieces: r.pieces.join(', ') }) : '' }}.
          </p>
          <BButton v-if="!r.itemId && !r.what.startsWith('paint:')" variant="quiet" size="sm" @click="adopt(r)">
            {{ $t('places.materialsPlace.addToStock') }}
          </BButton>
        </article>
        <BButton v-if="list?.length" variant="quiet" size="sm" class="mt-2" @click="giveOut">{{
          $t('places.materialsPlace.saveTheList')
        }}</BButton>
      </section>
    </aside>
  </div>
</template>

<style scoped>
.middle {
  padding: 14px 20px;
}
/* Rows and cells are the table's own. */
:deep(tr.on td) {
  background: var(--paper-sunk);
}
:deep(.serves) {
  max-width: 230px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.word {
  color: var(--warning);
  font-weight: 600;
}
.buy {
  border-top: 1px solid var(--line);
  padding: 6px 0;
}
</style>
