<script setup lang="ts">
import { BTableSimple, BTbody, BTd, BTh, BThead, BTr } from 'bootstrap-vue-next/components/BTable'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import { z } from 'zod'
import { text } from '../i18n'
import { material as materialSchema, shoppingRow, type MaterialRecord, type ShoppingRow } from '../../contract/stock'
import { SUPPLIES } from '../../core/plan/materials/supplies'
import { keepsUntil, spent } from '../../core/stock/lots'
import { amountText } from '../../core/stock/units'
import { api } from '../api'
import { useAttempt } from '../composables/useAttempt'
import { saveFile } from '../shell/downloadFile'
import { newestOnly } from '../composables/newest'
import { useChanges } from '../stores/changes'
import { useStock, type Item } from '../stores/stock'
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
const rows = computed(() =>
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
        ...(m.reorder !== null && left <= m.reorder ? ['low'] : []),
        ...(old ? [text('places.materialsPlace.someIsPastIts')] : []),
      ]
      return { item, m, left, until, words }
    })
    .sort((a, b) => b.words.length - a.words.length || a.m.name.localeCompare(b.m.name)),
)
const served = (m: MaterialRecord): string =>
  m.serves.map((w) => SUPPLIES.find((s) => s.what === w)?.name ?? w).join(', ')
const selected = computed(() => stock.materials.find((m) => m.id === open.value) ?? null)
const total = computed(() => (list.value ?? []).reduce((s, r) => s + r.cost, 0))
const day = (ms: number): string =>
  new Date(ms).toLocaleDateString(undefined, { weekday: 'short', day: 'numeric', month: 'short' })
const WHY = {
  short: text('places.materialsPlace.notEnough'),
  none: text('places.materialsPlace.nothingSuitableInStock'),
  reorder: text('places.materialsPlace.low'),
}
const add = (data: Partial<MaterialRecord> = {}): Promise<void> =>
  attempt(async () => {
    const before = new Set(stock.items.map((i) => i.id))
    await stock.add('material', { name: text('places.materialsPlace.newMaterial'), ...data })
    open.value = stock.items.find((i) => !before.has(i.id))?.id ?? null
  })
/** What is to be bought and is not in stock yet, as something that is. */
const adopt = (r: ShoppingRow): Promise<void> => add({ name: r.name, serves: [r.what], unit: r.unit })
const giveOut = (): void => {
  const lines = (list.value ?? []).map((r) => `${r.name}\t${amountText(r.unit, r.buy)}`)
  saveFile('to buy.txt', lines.join('\n'), 'text/plain')
}
const itemOf = (r: (typeof rows.value)[number]): Item<MaterialRecord> => r.item
</script>

<template>
  <div class="beside">
    <div class="middle scroll">
      <StockNav />
      <FaultNote :text="fault" />
      <BTableSimple class="plain">
        <BThead>
          <BTr>
            <BTh>{{ $t('places.materialsPlace.material') }}</BTh>
            <BTh>{{ $t('places.materialsPlace.usedAs') }}</BTh>
            <BTh class="num">{{ $t('places.materialsPlace.left') }}</BTh>
            <BTh class="num">{{ $t('places.materialsPlace.lots') }}</BTh>
            <BTh>{{ $t('places.materialsPlace.bestBefore') }}</BTh>
            <BTh class="num">{{ $t('places.materialsPlace.buyAt') }}</BTh>
            <BTh />
          </BTr>
        </BThead>
        <BTbody>
          <BTr v-for="r in rows" :key="r.item.id" :class="{ on: open === r.item.id }">
            <BTd>{{ r.m.name }}</BTd>
            <BTd class="soft serves">{{ served(r.m) || $t('places.materialsPlace.notUsedByAny') }}</BTd>
            <BTd class="num">{{ amountText(r.m.unit, r.left) }}</BTd>
            <BTd class="num">{{ r.m.lots.length }}</BTd>
            <BTd>{{ r.until ?? '' }}</BTd>
            <BTd class="num">{{ r.m.reorder === null ? '' : amountText(r.m.unit, r.m.reorder) }}</BTd>
            <BTd class="num text-nowrap">
              <span v-if="r.words.length > 0" class="word me-2">{{ r.words.join(', ') }}</span>
              <BButton
                variant="quiet"
                size="sm"
                :aria-expanded="open === r.item.id"
                :aria-label="$t('places.materialsPlace.open', { name: r.m.name })"
                @click="open = open === itemOf(r).id ? null : itemOf(r).id"
              >
                {{ open === r.item.id ? $t('places.materialsPlace.close') : $t('places.materialsPlace.open2') }}
              </BButton>
            </BTd>
          </BTr>
        </BTbody>
      </BTableSimple>
      <p v-if="rows.length === 0" class="soft mt-2">
        {{ $t('places.materialsPlace.noMaterialsYetAdd') }}
      </p>
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
            <b>{{ r.name }}</b><span class="figure-sm">{{ amountText(r.unit, r.buy) }}</span>
          </div>
          <p class="soft small m-0">
            {{ WHY[r.why]
            }}{{
              r.need > 0
                ? $t('places.materialsPlace.neededInStock', {
                    unit: amountText(r.unit, r.need),
                    unit2: amountText(r.unit, r.have),
                  })
                : ''
            }}{{ r.spoils > 0 ? $t('places.materialsPlace.willBePastIts', { unit: amountText(r.unit, r.spoils) }) : ''
            }}{{ r.by ? $t('places.materialsPlace.from', { by: day(r.by) }) : ''
            }}{{ r.pieces.length > 0 ? $t('places.materialsPlace.for', { pieces: r.pieces.join(', ') }) : '' }}.
          </p>
          <BButton v-if="!r.itemId && !r.what.startsWith('paint:')" variant="quiet" size="sm" @click="adopt(r)">
            {{ $t('places.materialsPlace.addToStock') }}
          </BButton>
        </article>
        <BButton v-if="list?.length" variant="quiet" size="sm" class="mt-2" @click="giveOut">{{
          $t('places.materialsPlace.exportCsv')
        }}</BButton>
      </section>
    </aside>
  </div>
</template>

<style scoped>
.middle {
  padding: 14px 20px;
}
tr.on td {
  background: var(--paper-sunk);
}
.serves {
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
