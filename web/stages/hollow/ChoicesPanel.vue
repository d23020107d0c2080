<script setup lang="ts">
import { BTableSimple, BTbody, BTd, BTh, BThead, BTr } from 'bootstrap-vue-next/components/BTable'
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { text, fixed } from '../../i18n'
import { figure, quantity } from '../../manner'
import { reportOf } from '../../../contract/derivations'
import { computed, ref, watch } from 'vue'
import { operation } from '../../../contract/operations'
import { loadDefaults } from '../../../core/fit/wallLoad'
import type { CoreChoice, CoreChoices } from '../../../core/fit/coreChoices'
import type { HollowReport } from '../../../core/shape/hollow'
import { usePrinterAndResin } from '../../composables/usePrinterAndResin'
import NumberField from '../../shell/NumberField.vue'
import { useAssembly } from '../../stores/assembly'
import { useDerivations } from '../../stores/derivations'
import { useFindings } from '../../stores/findings'
import { usePiece } from '../../stores/piece'
import { printSeconds, resinUse } from '../../../core/print/slice/printer'
import { useStock } from '../../stores/stock'
import { messageOf } from '../../messageOf'

/** Solid, hollow, or hollow and cast full: what each would mean, before anything is chosen. */
const props = defineProps<{ wall: number; voxel: number; opening: number }>()
const store = usePiece(),
  stock = useStock(),
  assembly = useAssembly(),
  found = useFindings(),
  derivations = useDerivations()
const { printer, resin } = usePrinterAndResin()
/** g/ml and money a litre of casting resin: usual for filled polyurethane. */
const casting = ref(1.1),
  castingPrice = ref(28)
/** mm that may be poured at once before its own heat becomes a matter. */
const POUR = 12

const op = computed(() => {
  const o = store.step('hollow')?.op
  return o?.kind === 'hollow' ? o : null
})
const choices = ref<CoreChoices | null>(null),
  hollowed = ref<HollowReport | null>(null)
const why = ref(''),
  busy = ref(false)
let serial = 0
watch(
  // By what it says: a piece that is fetched again brings the same record as another object.
  () => JSON.stringify([store.meshBefore('hollow'), op.value ?? props.wall, casting.value, resin.value?.density]),
  async () => {
    const mesh = store.meshBefore('hollow')
    const mine = ++serial
    choices.value = hollowed.value = null
    why.value = ''
    if (!mesh) return
    busy.value = true
    try {
      const asked = operation.parse(
        op.value ?? { kind: 'hollow', wall: props.wall, voxel: props.voxel, opening: props.opening },
      )
      const d = await derivations.tried(mesh, asked)
      if (mine !== serial || asked.kind !== 'hollow') return
      const made = reportOf(d, 'hollow')!.hollow
      const compared = await derivations.reported(mesh, {
        kind: 'coreChoices',
        others: [d.meshHash!],
        ...loadDefaults,
        casting: casting.value,
        wall: asked.wall,
        density: resin.value?.density ?? loadDefaults.density,
      })
      if (mine !== serial) return
      hollowed.value = made
      choices.value = compared
    } catch (e) {
      if (mine === serial) why.value = messageOf(e)
    } finally {
      if (mine === serial) busy.value = false
    }
  },
  { immediate: true },
)

const cast = computed(() => (store.part ? assembly.materialOf(store.part.id).cast : null))
const current = computed(() => (!op.value ? 'solid' : cast.value === null ? 'hollow' : 'filled'))
const COLUMNS = [
  { key: 'solid', name: text('hollow.choicesPanel.solid') },
  { key: 'hollow', name: text('hollow.choicesPanel.hollow') },
  { key: 'filled', name: text('hollow.choicesPanel.castFull') },
] as const
type Key = (typeof COLUMNS)[number]['key']
const ml = (v: number): string => text('hollow.choicesPanel.ml', { v: fixed(v / 1000, 1) })
/** ml that a print of it takes, with the film on its skin and what stays in the vat: as at Scale. */
const used = (c: CoreChoice): number => resinUse(c.resin, c.area)
/** Without a resin nobody knows what it costs. */
const money = (c: CoreChoice): string =>
  resin.value ? stock.money((used(c) / 1000) * resin.value.pricePerLitre + (c.casting / 1e6) * castingPrice.value) : '–'
/** Its faces look inward, so that its volume is negative and nothing that follows from it is true. */
const insideOut = computed(() => choices.value !== null && choices.value.solid.resin <= 0)
const pours = computed(() => Math.ceil((2 * (hollowed.value?.cavityRadius ?? 0)) / POUR))
const hours = computed(() => {
  const h = store.report('orient')?.measures.size[2] ?? found.size?.[2]
  if (!h || !printer.value || !resin.value) return null
  return printSeconds(printer.value, resin.value, Math.ceil(h / printer.value.layerHeight)) / 3600
})
/** The lean at which it falls; a part whose weight is beside its foot does not stand at all. */
const tips = ({ tip }: CoreChoice): string =>
  tip === null
    ? text('hollow.choicesPanel.nothingToStandOn')
    : tip <= 0
      ? text('hollow.choicesPanel.tipsOver')
      : `${figure(tip, 0)}°`
const rows = computed(() => {
  const c = choices.value
  if (!c) return []
  const of = (f: (x: CoreChoice, key: Key) => string): string[] => COLUMNS.map(({ key }) => f(c[key], key))
  const peel = (x: CoreChoice): string => text('hollow.choicesPanel.cm', { section: fixed(x.section / 100, 1) })
  return [
    { name: text('hollow.choicesPanel.resin'), cells: of((x) => ml(1000 * used(x))) },
    { name: text('hollow.choicesPanel.castingResin2'), cells: of((x) => (x.casting > 0 ? ml(x.casting) : '–')) },
    { name: text('hollow.choicesPanel.price'), cells: of(money) },
    { name: text('hollow.choicesPanel.mass'), cells: of((x) => quantity(x.mass, 0, 'g')) },
    {
      name: text('hollow.choicesPanel.centreOfMass'),
      cells: of((x) => text('hollow.choicesPanel.mmUp', { centre: fixed(x.centre, 0) })),
    },
    { name: text('hollow.choicesPanel.tipsAt'), cells: of(tips) },
    {
      name: text('hollow.choicesPanel.bendingStress'),
      cells: of((x) => text('hollow.choicesPanel.mpa', { stress: fixed(x.stress, 1) })),
    },
    { name: text('hollow.choicesPanel.largestLayer'), cells: of(peel) },
    {
      name: text('hollow.choicesPanel.printTime'),
      cells: of((_, k) =>
        hours.value === null
          ? '–'
          : text('hollow.choicesPanel.hK', { hours: fixed(hours.value, 1), k: k === 'filled' }),
      ),
    },
  ]
})
const risks = computed<Record<Key, string>>(() => {
  const c = choices.value,
    h = hollowed.value
  if (!c || !h) return { solid: '', hollow: '', filled: '' }
  const peel = c.hollow.section > 0 ? c.solid.section / c.hollow.section : 1
  return {
    solid: text('hollow.choicesPanel.solidPeelTheLargest', {
      peel: peel > 1.15,
      peel2: fixed(peel, 1),
    }),
    hollow: text('hollow.choicesPanel.hollowNeedsAtLeast', { value: 2 * h.cavities }),
    filled: text('hollow.choicesPanel.castFullMmAt', { value: fixed(2 * h.cavityRadius, 0), pours: pours.value }),
  }
})
async function choose(key: Key): Promise<void> {
  const part = store.part
  if (!part) return
  if (key === 'solid') await store.change(store.operations().filter((o) => o.kind !== 'hollow' && o.kind !== 'drill'))
  else if (!op.value)
    await store.apply({ kind: 'hollow', wall: props.wall, voxel: props.voxel, opening: props.opening })
  const full = key === 'filled' ? casting.value : null
  if (full !== cast.value) await assembly.setMaterial(part.id, { cast: full })
}
</script>

<template>
  <section class="sheet p-2 mb-3" :aria-label="$t('hollow.choicesPanel.solidHollowOrCast')">
    <p v-if="busy" class="soft small mb-0">{{ $t('hollow.choicesPanel.comparingSolidWithHollow') }}</p>
    <p v-else-if="why" class="mb-0">
      <b>{{ $t('hollow.choicesPanel.solidAndHollowAre') }}</b> <span class="soft">{{ why }}</span>
    </p>
    <p v-else-if="insideOut" class="mb-0">
      {{ $t('hollow.choicesPanel.thePartIsInside') }}
    </p>
    <template v-else-if="choices">
      <BTableSimple class="plain choices">
        <BThead>
          <BTr>
            <BTh></BTh>
            <BTh v-for="c in COLUMNS" :key="c.key" class="num" :class="{ on: current === c.key }">{{ c.name }}</BTh>
          </BTr>
        </BThead>
        <BTbody>
          <BTr v-for="r in rows" :key="r.name">
            <BTh scope="row">{{ r.name }}</BTh>
            <BTd v-for="(cell, i) in r.cells" :key="i" class="num" :class="{ on: current === COLUMNS[i]!.key }">
              {{ cell }}
            </BTd>
          </BTr>
          <BTr>
            <BTd></BTd>
            <BTd v-for="c in COLUMNS" :key="c.key" class="num" :class="{ on: current === c.key }">
              <span v-if="current === c.key" class="chosen">{{ $t('hollow.choicesPanel.chosen') }}</span>
              <BButton
                v-else
                variant="quiet"
                size="sm"
                :aria-label="$t('hollow.choicesPanel.choose', { name: c.name })"
                @click="choose(c.key)"
              >
                {{ $t('hollow.choicesPanel.choose2') }}
              </BButton>
            </BTd>
          </BTr>
        </BTbody>
      </BTableSimple>
      <p v-if="!resin" class="soft small mb-1">
        {{ $t('hollow.choicesPanel.noResinIsChosen', { density: loadDefaults.density }) }}
      </p>
      <p v-else-if="!printer" class="soft small mb-1">{{ $t('hollow.choicesPanel.noPrinterIsChosen') }}</p>
      <p class="soft small mb-1 mt-2">{{ risks[current] }}</p>
      <FoldPanel class="small">
        <template #title>{{ $t('hollow.choicesPanel.howThisIsCalculated') }}</template>
        <p class="soft mb-1">
          {{
            $t('hollow.choicesPanel.theFigureIsThe', {
              solid: risks.solid,
              hollow: risks.hollow,
              filled: risks.filled,
              push: loadDefaults.push,
              handling: loadDefaults.handling,
              allow: loadDefaults.allow,
            })
          }}
        </p>
        <NumberField
          v-model="casting"
          :label="$t('hollow.choicesPanel.castingResin')"
          unit="g/ml"
          :step="0.05"
          :min="0.5"
          :max="3"
          :source="$t('hollow.choicesPanel.default')"
        />
        <NumberField
          v-model="castingPrice"
          :label="$t('hollow.choicesPanel.pricePerLitre')"
          :step="1"
          :min="0"
          :max="1000"
          :source="$t('hollow.choicesPanel.default')"
        />
      </FoldPanel>
    </template>
  </section>
</template>

<style scoped>
.choices th,
.choices td {
  padding: 2px 4px;
  font-size: 0.85rem;
  white-space: nowrap;
}
.choices th {
  white-space: normal;
}
.choices tbody th {
  font-weight: 400;
}
.on {
  background: var(--paper-sunk);
}
.chosen {
  font-weight: 600;
}
</style>
