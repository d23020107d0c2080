<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { dateText } from '../../manner'
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import { computed, onMounted, ref } from 'vue'
import { labToHex } from '../../../core/paint/optics/colour'
import { useAttempt } from '../../composables/useAttempt'
import { useMixes } from '../../stores/mixes'
import MixPage from './MixPage.vue'
import FaultNote from '../../shell/FaultNote.vue'

/** Every mix that was used, newest first. */
const open = defineModel<string | null>('open', { required: true })
const mixes = useMixes()
const { fault, attempt } = useAttempt()
const sought = ref('')
onMounted(() => attempt(mixes.load))
const list = computed(() =>
  (mixes.book ?? []).filter((m) =>
    `${m.name} ${m.region} ${m.coat}`.toLowerCase().includes(sought.value.toLowerCase()),
  ),
)
const day = (d: string): string => dateText(d, 'dayOfYear')
</script>

<template>
  <section :aria-label="$t('mixing.mixBook.mixLog')">
    <div class="d-flex justify-content-between align-items-baseline mb-2">
      <h2>{{ $t('mixing.mixBook.mixLog') }}</h2>
      <span class="soft">{{ $t('mixing.mixBook.mixes', { book: mixes.book?.length ?? 0 }) }}</span>
    </div>
    <FaultNote :text="fault" />
    <BFormInput
      v-if="(mixes.book?.length ?? 0) > 6"
      v-model="sought"
      class="mb-2"
      size="sm"
      :placeholder="$t('mixing.mixBook.findAMix')"
      :aria-label="$t('mixing.mixBook.findAMix')"
    />
    <p v-if="mixes.book?.length === 0" class="soft">
      {{ $t('mixing.mixBook.noMixesYetAdd') }}
    </p>
    <article v-for="m in list" :key="m.id" class="mix" :data-mix="m.name">
      <BButton variant="card" class="head" :aria-expanded="open === m.id" @click="open = open === m.id ? null : m.id">
        <span class="chip"
          ><i :style="{ background: labToHex(m.predicted) }" /><i
            v-if="m.measured"
            :style="{ background: labToHex(m.measured) }"
        /></span>
        <span
          ><b>{{ m.name }}</b
          ><br /><span class="soft small"
            >{{ [m.region, m.coat].filter((x) => x).join(', ')
            }}{{ m.kept > 0 ? $t('mixing.mixBook.mlReservedForTouch', { kept: m.kept }) : '' }}</span
          ></span
        >
        <span class="soft small num">{{ day(m.mixedOn) }}</span>
      </BButton>
      <MixPage v-if="open === m.id" :mix="m" @gone="open = null" />
    </article>
  </section>
</template>

<style scoped>
.mix {
  border-top: 1px solid var(--line);
}
.head {
  display: grid;
  grid-template-columns: 44px 1fr auto;
  gap: 10px;
  align-items: center;
  width: 100%;
  text-align: left;
  border: 0;
  background: none;
  color: inherit;
  padding: 6px 0;
  line-height: 1.2;
}
.chip {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: 1fr;
  height: 34px;
  border-radius: 3px;
  overflow: hidden;
  border: 1px solid rgba(0, 0, 0, 0.25);
}
</style>
