<script setup lang="ts">
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect'
import { text, choicesOf } from '../../i18n'
import { FILM } from '../../../core/paint/coats/batch'
import { labToHex } from '../../../core/paint/optics/colour'
import { useMixing } from '../../stores/mixing'
import ColourInput from '../../shell/ColourInput.vue'

/** The mix as it looks: beside its target, as a film over several grounds, and drawn down to full hiding. */
const mixing = useMixing()
const PRIMED: Partial<Record<string, string>> = { zenithal: text('mixing.mixResult.blackAndWhite') }
const UNDERCOATS: Partial<Record<string, string>> = choicesOf('undercoat')
const ground = (name: string): string =>
  PRIMED[name] ?? (name.startsWith('#') ? text('mixing.mixResult.primerOf', { name }) : (UNDERCOATS[name] ?? name))
/** In how many coats it covers that ground, or that it never does. */
const covers = (n: number | null): string =>
  n === null ? text('mixing.mixResult.doesNotCoverIn') : text('mixing.mixResult.n', { n })
</script>

<template>
  <section v-if="mixing.drawn" :aria-label="$t('mixing.mixResult.howTheMixLooks')">
    <div class="films">
      <figure v-for="(o, i) in mixing.drawn.over" :key="i" :style="{ background: o.groundHex }">
        <div :style="{ background: o.hex }" />
        <figcaption>
          <b>{{ $t('mixing.mixResult.over', { ground: ground(o.ground) }) }}</b><br />{{ covers(o.hides)
          }}<template v-if="o.reaches !== null && o.reaches !== o.hides"
            >, {{ $t('mixing.mixResult.n2', { n: o.reaches }) }}</template
          >
        </figcaption>
      </figure>
    </div>
    <div class="d-flex gap-3 align-items-center my-2">
      <label class="d-flex gap-2 align-items-center flex-grow-1"
        ><span class="text-nowrap">{{ $t('mixing.mixResult.coats', { n: mixing.coats }) }}</span
        ><BFormInput
          v-model.number="mixing.coats"
          type="range"
          min="1"
          max="12"
          :aria-label="$t('mixing.mixResult.coats2')"
        /><span class="num text-nowrap">{{ $t('mixing.mixResult.mDry', { film: mixing.film }) }}</span></label
      >
      <BFormSelect v-model="mixing.tool" size="sm" class="w-auto" :aria-label="$t('mixing.mixResult.tool')">
        <option value="brush">{{ $t('mixing.mixResult.brushedMACoat', { brush: FILM.brush }) }}</option>
        <option value="airbrush">{{ $t('mixing.mixResult.airbrushedMACoat', { airbrush: FILM.airbrush }) }}</option>
      </BFormSelect>
      <BFormSelect v-model="mixing.undercoat" size="sm" class="w-auto" :aria-label="$t('mixing.mixResult.undercoat')">
        <option v-for="(word, u) in choicesOf('undercoat')" :key="u" :value="u">
          {{ $t('mixing.mixResult.over2', { word }) }}
        </option>
      </BFormSelect>
      <ColourInput
        v-if="mixing.undercoat === 'tinted'"
        :value="mixing.tint"
        :label="$t('mixing.mixResult.colourOfThePrimer')"
        @chosen="mixing.tint = $event"
      />
    </div>
    <div v-for="s in mixing.drawn.strips" :key="s.way" class="strip">
      <span class="soft small">{{ $t('mixing.mixResult.way', { way: s.way }) }}</span>
      <div>
        <i
          v-for="(h, i) in s.white"
          :key="i"
          :style="{ background: h }"
          :title="$t('mixing.mixResult.mOverWhite', { i: i + 1, film: s.film })"
        />
        <i
          v-for="(h, i) in s.black"
          :key="`b${i}`"
          :style="{ background: h }"
          :title="$t('mixing.mixResult.mOverBlack', { i: i + 1, film: s.film })"
        />
      </div>
    </div>
    <p class="soft small m-0">
      {{ $t('mixing.mixResult.drawdownCoatOnThe') }}
      <template v-if="mixing.target">{{
        $t('mixing.mixResult.theFrameIsThe', { target: labToHex(mixing.target) })
      }}</template>
    </p>
  </section>
</template>

<style scoped>
.films {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
}
figure {
  margin: 0;
  padding: 10px 10px 0;
  border-radius: 6px;
  border: 1px solid var(--line);
}
figure > div {
  height: 74px;
  border-radius: 3px;
}
figcaption {
  background: var(--paper-raised);
  margin: 8px -10px 0;
  padding: 4px 9px;
  font-size: 0.84rem;
  line-height: 1.25;
  border-radius: 0 0 5px 5px;
}
.strip {
  display: grid;
  grid-template-columns: 100px 1fr;
  gap: 8px;
  align-items: center;
  line-height: 1.1;
  margin-bottom: 4px;
}
.strip div {
  display: grid;
  grid-template-columns: repeat(12, 1fr);
}
.strip i {
  height: 13px;
}
</style>
