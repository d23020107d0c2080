<script setup lang="ts">
import { choicesOf } from '../../i18n'
import { figure, unitName } from '../../manner'
import { BTableSimple, BTbody, BTd, BTh, BThead, BTr } from 'bootstrap-vue-next/components/BTable'
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref, shallowRef, watch } from 'vue'
import { plainPaints } from '../../../core/paint/recipes/stockPaint'
import { hexToLab } from '../../../core/paint/optics/colour'
import { choiceOf } from '../../../core/paint/coats/undercoat'
import type { UndercoatChoice } from '../../../core/defaults/paint'
import type { UndercoatCost } from '../../../core/paint/coats/undercoats'
import { newestOnly } from '../../composables/newest'
import { plainCoats } from '../../composables/paintedScheme'
import { useSlowPaintWork } from '../../composables/usePaintWork'
import { duration } from '../../shell/duration'
import { usePiece } from '../../stores/piece'
import { useScheme } from '../../stores/scheme'
import ColourInput from '../../shell/ColourInput.vue'

/** What each undercoat costs over the whole scheme, in coats, hours and paint; the one in use is marked. */
const props = defineProps<{
    undercoat: UndercoatChoice
    /** its leaf is turned up: only then is it worth a search */
    shown: boolean
  }>(),
  emit = defineEmits<{ tint: [hex: string] }>()
const store = usePiece(),
  book = useScheme(),
  work = useSlowPaintWork()
const costs = shallowRef<UndercoatCost[]>([])
/** the tint that the scheme takes fewest coats over */
const best = ref<string | null>(null),
  open = ref(false)
const calculate = newestOnly(async () => {
  const s = book.scheme
  if (!s || !open.value || !props.shown) return
  const told = await work.undercoats(
    plainCoats(s.coats),
    plainPaints(book.paints),
    s.regions.map((r) => ({ id: r.id, target: r.target ? hexToLab(r.target) : null, area: book.areaOf(r.id) })),
    s.tint,
  )
  costs.value = told.costs
  best.value = told.best
})
watch([() => book.scheme, () => book.paints, open, () => props.shown], () => void calculate(), { deep: true })
const bases = computed(() => costs.value[0]?.coats.length ?? 0)
const least = computed(() => Math.min(...costs.value.map((c) => c.total)))
const take = (undercoat: UndercoatChoice): void => {
  void store.save({ schools: { ...JSON.parse(JSON.stringify(store.piece!.schools)), undercoat } })
}
</script>

<template>
  <FoldPanel class="mt-3" :open="open" @toggle="open = $event">
    <template #title
      ><h2 class="d-inline">{{ $t('scheme.undercoatPanel.costOfEachUndercoat') }}</h2>
    </template>
    <p v-if="open && bases === 0" class="soft small">{{ $t('scheme.undercoatPanel.giveTheRegionsBase') }}</p>
    <BTableSimple v-else-if="bases > 0" class="plain small mt-1">
      <BThead>
        <BTr>
          <BTh>{{ $t('scheme.undercoatPanel.undercoat') }}</BTh>
          <BTh class="num">{{ $t('scheme.undercoatPanel.coats') }}</BTh>
          <BTh class="num">{{ $t('scheme.undercoatPanel.benchTime') }}</BTh>
          <BTh class="num">{{ unitName('ml') }}</BTh>
          <BTh />
        </BTr>
      </BThead>
      <BTbody>
        <template v-for="c in costs" :key="choiceOf(c.undercoat)">
          <BTr :data-undercoat="choiceOf(c.undercoat)">
            <BTd :class="{ 'fw-bold': choiceOf(c.undercoat) === props.undercoat }">
              {{ choicesOf('undercoat')[choiceOf(c.undercoat)] }}
            </BTd>
            <BTd class="num text-nowrap">
              <b v-if="c.total === least" :title="$t('scheme.undercoatPanel.fewestCoats')">{{
                $t('scheme.undercoatPanel.smallest')
              }}</b>{{ c.total
              }}<span v-if="c.coats.includes(null)" :title="$t('scheme.undercoatPanel.twelveCoatsDoNot')">+</span>
            </BTd>
            <BTd class="num text-nowrap">{{ duration(c.handsOn) }}</BTd>
            <BTd class="num">{{ figure(c.ml, 1, 'ml') }}</BTd>
            <BTd class="num text-nowrap">
              <span v-if="choiceOf(c.undercoat) === props.undercoat" class="soft">{{
                $t('scheme.undercoatPanel.inUse')
              }}</span>
              <BButton v-else variant="quiet" size="sm" @click="take(choiceOf(c.undercoat))">{{
                $t('scheme.undercoatPanel.use')
              }}</BButton>
            </BTd>
          </BTr>
          <BTr v-if="choiceOf(c.undercoat) === 'tinted'" class="tint">
            <BTd colspan="5">
              <label
                >{{ $t('scheme.undercoatPanel.itsColour') }}
                <ColourInput
                  :value="c.undercoat"
                  :label="$t('scheme.undercoatPanel.colourOfThePrimer')"
                  @chosen="emit('tint', $event)"
              /></label>
              <BButton
                v-if="best && best !== c.undercoat"
                variant="quiet"
                size="sm"
                :title="$t('scheme.undercoatPanel.overWhichTheseBase')"
                @click="emit('tint', best)"
              >
                <i :style="{ background: best }" />{{ $t('scheme.undercoatPanel.bestMatch') }}
              </BButton>
              <span v-else-if="best" class="soft">{{ $t('scheme.undercoatPanel.matchesTheseBaseCoats') }}</span>
            </BTd>
          </BTr>
        </template>
      </BTbody>
    </BTableSimple>
    <p v-if="bases > 0" class="soft small mt-1 mb-0">
      {{ $t('scheme.undercoatPanel.coatsOfEachBase') }}
    </p>
  </FoldPanel>
</template>

<style scoped>
.tint td {
  padding-top: 0;
}
tr:has(+ .tint) td {
  border-bottom: 0;
}
.tint label {
  margin-right: 14px;
}
.tint input {
  width: 40px;
  height: 24px;
  padding: 0;
  margin-left: 6px;
  border: 1px solid var(--line);
  border-radius: 3px;
  vertical-align: middle;
}
.tint i {
  display: inline-block;
  width: 14px;
  height: 14px;
  margin-right: 6px;
  border-radius: 2px;
  vertical-align: -2px;
}
</style>
