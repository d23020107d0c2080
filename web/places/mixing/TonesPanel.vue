<script setup lang="ts">
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref, shallowRef, watch } from 'vue'
import { text, choicesOf } from '../../i18n'
import { figure, manner } from '../../manner'
import { labToHex, type Triple } from '../../../core/paint/optics/colour'
import type { Recipe } from '../../../core/paint/recipes/recipe'
import { threeTones } from '../../../core/paint/recipes/tones'
import type { ToneSchool } from '../../../core/defaults/paint'
import { schoolDefaults } from '../../../core/defaults/plan'
import { newestOnly } from '../../composables/newest'
import { useSlowPaintWork } from '../../composables/usePaintWork'
import { useMixing } from '../../stores/mixing'
import { useStock } from '../../stores/stock'
import { say } from '../../../core/words/say'

/** What goes with the mix: its shadow and light, the ways to mute it, and skin built over it. */
const mixing = useMixing(),
  stock = useStock(),
  work = useSlowPaintWork()
const what = ref<'tones' | 'mute' | 'skin'>('tones')
const house = computed(() => stock.workshop?.schools ?? schoolDefaults)
const school = ref<ToneSchool>(house.value.tones),
  keep = ref(60)
const WHAT = {
  tones: text('mixing.tonesPanel.shadowBaseLight'),
  mute: text('mixing.tonesPanel.muteIt'),
  skin: text('mixing.tonesPanel.skinOverIt'),
}
const SCHOOL = choicesOf('tones'),
  MUTED = choicesOf('muting')
interface Tone {
  name: string
  lab: Triple
  recipe: Recipe | null
}
const tones = shallowRef<Tone[]>([])
const muted = shallowRef<Awaited<ReturnType<typeof work.mute>>>([])
const skin = shallowRef<Awaited<ReturnType<typeof work.skin>>>([])
const base = computed(() => mixing.drawn?.lab ?? mixing.target)
const plainDrops = (): { id: string; drops: number }[] => mixing.laid.map((d) => ({ ...d }))
const calculate = newestOnly(async () => {
  const lab = base.value
  if (!lab) return
  if (what.value === 'mute') {
    const ways = await work.mute(plainDrops(), mixing.paints, keep.value / 100)
    // The house's way first, the others beside it.
    muted.value = ways.sort((a, b) => Number(b.by === house.value.muting) - Number(a.by === house.value.muting))
  } else if (what.value === 'skin') skin.value = await work.skin(plainDrops(), mixing.paints)
  else {
    const t = threeTones(lab, school.value)
    const mixed = async (c: Triple): Promise<Recipe | null> =>
      (await work.recipe([...c], mixing.paints)).recipes[0] ?? null
    tones.value = [
      { name: text('mixing.tonesPanel.shadow'), lab: t.shadow, recipe: await mixed(t.shadow) },
      { name: text('mixing.tonesPanel.base'), lab: t.base, recipe: null },
      { name: text('mixing.tonesPanel.light'), lab: t.light, recipe: await mixed(t.light) },
    ]
  }
})
watch(
  () => house.value.tones,
  (t) => (school.value = t),
)
watch([base, what, school, keep], () => void calculate(), { immediate: true })
const nameOf = (id: string | null): string => stock.paints.find((p) => p.id === id)?.name ?? '?'
const words = (r: Recipe | null): string => (r ? r.drops.map((d) => `${d.drops} ${d.name}`).join(' + ') : '')
const sign = (v: number): string => `${v > 0 ? '+' : '−'}${figure(Math.abs(v), 0)}`
/** The base in its own drops, as often as is needed, with the muting paint beside it. */
function useMuted(m: (typeof muted.value)[number]): void {
  const sum = mixing.total
  const f = Math.max(1, Math.round(m.ofBase / sum))
  mixing.setDrops([
    ...mixing.laid.map((d) => ({ paint: d.id, drops: d.drops * f })),
    { paint: m.id!, drops: Math.max(1, Math.round((m.drops * sum * f) / m.ofBase)) },
  ])
}
</script>

<template>
  <section v-if="mixing.drawn" class="mt-3" :aria-label="$t('mixing.tonesPanel.matchingColours')">
    <div class="d-flex gap-2 align-items-center mb-2">
      <BButton
        v-for="(name, key) in WHAT"
        :key="key"
        :variant="what === key ? 'primary' : 'quiet'"
        size="sm"
        :aria-pressed="what === key"
        @click="what = key"
      >
        {{ name }}
      </BButton>
      <BFormSelect
        v-if="what === 'tones'"
        v-model="school"
        size="sm"
        class="w-auto ms-auto"
        :aria-label="$t('mixing.tonesPanel.howTheHueTurns')"
      >
        <option v-for="(name, key) in SCHOOL" :key="key" :value="key">{{ name }}</option>
      </BFormSelect>
      <label v-if="what === 'mute'" class="d-flex gap-2 align-items-center ms-auto small"
        >{{ $t('mixing.tonesPanel.to')
        }}<BFormInput
          v-model.number="keep"
          type="range"
          min="20"
          max="90"
          step="5"
          class="chroma"
          :aria-label="$t('mixing.tonesPanel.shareOfChromaThat')"
        /><span class="num">{{ $t('mixing.tonesPanel.ofItsChroma', { keep }) }}</span></label
      >
    </div>
    <div v-if="what === 'tones'" class="row-of">
      <figure v-for="t in tones" :key="t.name">
        <div :style="{ background: labToHex(t.lab) }" />
        <figcaption>
          <b>{{ t.name }}</b><template v-if="t.recipe"
            ><br />{{ words(t.recipe) }}<br /><span class="soft">ΔE {{ figure(t.recipe.error, 1) }}</span
            ><BButton variant="quiet" size="sm" class="ms-2" @click="mixing.setDrops(t.recipe.drops)">
              {{ $t('mixing.tonesPanel.use') }}
            </BButton></template
          >
        </figcaption>
      </figure>
    </div>
    <div v-else-if="what === 'mute'" class="row-of">
      <figure v-for="m in muted" :key="m.by">
        <div :style="{ background: labToHex(m.lab) }" />
        <figcaption>
          <b>{{ MUTED[m.by] }}</b><span v-if="m.by === house.muting" class="soft">{{
            $t('mixing.tonesPanel.houseRule')
          }}</span
          ><br />
          <template v-if="m.id"
            >{{ $t('mixing.tonesPanel.toOfTheMix', { drops: m.drops, id: nameOf(m.id), ofBase: m.ofBase }) }}<br /><span
              class="soft"
              >{{ $t('mixing.tonesPanel.lHue', { darker: sign(-m.darker), turned: sign(m.turned) }) }}</span
            ><BButton variant="quiet" size="sm" class="ms-2" @click="useMuted(m)">{{
              $t('mixing.tonesPanel.use')
            }}</BButton></template
          >
          <span v-else class="soft">{{ $t('mixing.tonesPanel.noPaintInStock') }}</span>
        </figcaption>
      </figure>
    </div>
    <template v-else>
      <p v-if="skin.length === 0" class="soft">{{ $t('mixing.tonesPanel.thereIsNoRed') }}</p>
      <ol class="skin">
        <li v-for="(z, i) in skin" :key="i">
          <span class="swatch" :style="{ background: labToHex(z.lab) }" />
          <span
            ><b>{{ z.id ? nameOf(z.id) : $t('mixing.tonesPanel.theBaseItself') }}</b
            >{{
              $t('mixing.tonesPanel.paintThinCoats', {
                round: Math.round(100 * z.pigment),
                coats: z.coats,
                where: say(z.where, manner),
              })
            }}</span
          >
          <span class="num soft">ΔE {{ figure(z.shift, 1) }}</span>
        </li>
      </ol>
    </template>
  </section>
</template>

<style scoped>
.chroma {
  width: 110px;
}
.row-of {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 10px;
}
figure {
  margin: 0;
}
figure > div {
  height: 38px;
  border-radius: 4px;
  border: 1px solid rgba(0, 0, 0, 0.2);
}
figcaption {
  font-size: 0.86rem;
  line-height: 1.25;
  padding-top: 3px;
}
.skin {
  padding-left: 18px;
  margin: 0;
}
.skin li {
  padding: 2px 0;
}
.skin li > span:nth-child(2) {
  margin: 0 8px;
}
</style>
