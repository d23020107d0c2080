<script setup lang="ts">
import { computed, ref } from 'vue'
import { CircleCheck, Info, OctagonAlert, TriangleAlert } from 'lucide-vue-next'
import { ranked, type Finding } from '../../core/findings/finding'

const props = defineProps<{
  findings: readonly Finding[]
  checked: string
  acts?: readonly string[]
  measuring?: boolean
}>()
const emit = defineEmits<{ show: [place: [number, number, number]]; act: [act: string, finding: Finding] }>()
const list = computed(() => ranked(props.findings))
const LEVEL = {
  settle: { icon: OctagonAlert, word: 'settle' },
  know: { icon: TriangleAlert, word: 'know' },
  note: { icon: Info, word: 'note' },
}
const headline = computed(() => {
  const n = (l: Finding['level']): number => list.value.filter((f) => f.level === l).length
  const words = [
    n('settle') && `${n('settle')} to settle`,
    n('know') && `${n('know')} to know`,
    n('note') && `${n('note')} to note`,
  ].filter(Boolean)
  return words.length > 0 ? words.join(', ') : props.measuring ? 'Measuring …' : 'Nothing to settle'
})
const at = ref<Record<string, number>>({})
/** Each press shows the next of the finding's places. */
function showNext(f: Finding): void {
  const i = (at.value[f.id] ?? -1) + 1
  at.value[f.id] = i % f.places.length
  emit('show', f.places[i % f.places.length]!)
}
const open = ref<string | null>(null)
const offered = (f: Finding): Finding['fixes'] =>
  f.fixes.filter((x) => props.acts?.some((a) => x.act === a || x.act.startsWith(`${a}:`)) ?? false)
</script>

<template>
  <section aria-label="Findings">
    <h2 class="head">
      <CircleCheck v-if="list.length === 0 && !measuring" :size="17" class="fine" aria-hidden="true" />{{ headline }}
    </h2>
    <p v-if="list.length === 0 && !measuring" class="soft small mb-2">{{ checked }}</p>
    <article v-for="f in list" :key="f.id" class="finding" :class="f.level" :data-finding="f.id">
      <div class="d-flex align-items-baseline gap-2">
        <component :is="LEVEL[f.level].icon" :size="16" class="sign" :aria-label="`to ${LEVEL[f.level].word}`" />
        <button
          class="figure value"
          :title="'How we know: ' + f.how"
          :aria-expanded="open === f.id"
          @click="open = open === f.id ? null : f.id"
        >
          {{ f.value }}
        </button>
        <span class="soft">{{ f.unit }}</span>
      </div>
      <p class="sentence">{{ f.sentence }}</p>
      <p v-if="open === f.id" class="how">{{ f.how }}</p>
      <div class="d-flex gap-2 flex-wrap">
        <button v-if="f.places.length > 0" class="btn btn-sm btn-quiet" @click="showNext(f)">
          Show me{{ f.places.length > 1 ? ` (${(at[f.id] ?? -1) + 1 || 1} of ${f.places.length})` : '' }}
        </button>
        <button
          v-for="x in offered(f)"
          :key="x.act"
          class="btn btn-sm btn-primary"
          :title="x.effect"
          @click="emit('act', x.act, f)"
        >
          {{ x.label }}
        </button>
      </div>
      <p v-if="offered(f).length === 1" class="effect soft">{{ offered(f)[0]!.effect }}</p>
    </article>
  </section>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  gap: 6px;
  margin-bottom: 6px;
}
.fine {
  color: var(--fine);
}
.finding {
  background: var(--paper-raised);
  border: 1px solid var(--line);
  border-left-width: 4px;
  border-radius: 5px;
  padding: 9px 12px 10px;
  margin-bottom: 9px;
}
.settle {
  border-left-color: var(--settle);
}
.settle .sign {
  color: var(--settle);
}
.know {
  border-left-color: var(--know);
}
.know .sign {
  color: var(--know);
}
.note {
  border-left-color: var(--note);
}
.note .sign {
  color: var(--note);
}
.value {
  background: none;
  border: 0;
  padding: 0;
  color: inherit;
}
.sentence {
  margin: 4px 0 8px;
}
.how {
  font-size: 0.85rem;
  background: var(--paper-sunk);
  padding: 6px 8px;
  border-radius: 4px;
}
.effect {
  font-size: 0.84rem;
  margin: 5px 0 0;
}
</style>
