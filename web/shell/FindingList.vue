<script setup lang="ts" generic="A extends Act">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref } from 'vue'
import { CircleCheck, Info, OctagonAlert, TriangleAlert } from 'lucide-vue-next'
import { text } from '../i18n'
import { manner } from '../manner'
import { ranked, spoken, type Finding, type SpokenFinding } from '../../core/findings/finding'
import type { Act, Fix, SpokenFix } from '../../core/findings/fix'
import { say } from '../../core/words/say'
import { explained } from '../../core/words/glossary'
import { complete, measuredOf, type RuleState } from '../../core/findings/judge'
import type { Handlers } from './fixHandlers'
import TermText from './TermText.vue'

/** What was found in a stage, how far its rules are measured, and what can be done: every fix that is offered has its handler. */
const props = defineProps<{
  judged: { findings: readonly Finding<A>[]; rules: readonly RuleState[] }
  /** said in place of what was checked, when all was measured and nothing found */
  checked?: string
  fixes: Handlers<A>
}>()
const emit = defineEmits<{ show: [place: [number, number, number]] }>()
const list = computed(() => ranked(props.judged.findings).map((f) => spoken(f, manner)))
/** Words of the craft are explained where the list first uses them. */
const sentences = computed(() => {
  const known = new Set<string>()
  return new Map(list.value.map((f) => [f, explained(f.sentence, known)]))
})
const LEVEL = {
  problem: { icon: OctagonAlert, word: text('shell.findingList.problem') },
  warning: { icon: TriangleAlert, word: text('shell.findingList.warning') },
  note: { icon: Info, word: text('shell.findingList.note') },
}
const progress = computed(() => measuredOf(props.judged))
const fine = computed(() => list.value.length === 0 && progress.value.of > 0 && complete(props.judged))
const measuring = computed(() => props.judged.rules.some((r) => r.state === 'measuring'))
const headline = computed(() => {
  const n = (l: Finding['level']): number => list.value.filter((f) => f.level === l).length
  const words = [
    n('problem') && text('shell.findingList.n', { n: n('problem') }),
    n('warning') && text('shell.findingList.n2', { n: n('warning') }),
    n('note') && text('shell.findingList.n3', { n: n('note') }),
  ].filter(Boolean)
  if (words.length > 0) return words.join(', ')
  return fine.value ? text('shell.findingList.noProblemsFound') : ''
})
const far = computed(() => {
  const { measured, of } = progress.value
  if (measured === of) return ''
  return text('shell.findingList.measuringOf', { measuring: Boolean(measuring.value), measured, of })
})
const measured = computed(() =>
  props.judged.rules.flatMap((r) => (r.state === 'measured' ? [say(r.title, manner)] : [])).join('; '),
)
/** What keeps the rest from being checked, each reason once. */
const held = computed(() => {
  const by = new Map<string, string[]>()
  for (const r of props.judged.rules) {
    const why =
      r.state === 'waiting'
        ? text('shell.findingList.needs', { for: r.for.join(' and ') })
        : r.state === 'failed'
          ? r.sentence.replace(/\.$/, '')
          : null
    if (why) by.set(why, [...(by.get(why) ?? []), say(r.title, manner)])
  }
  return [...by].map(([why, titles]) => ({ why, titles: titles.join('; ') }))
})
const at = ref<Record<string, number>>({})
/** Each press shows the next of the finding's places. */
function showNext(f: SpokenFinding<A>): void {
  const i = (at.value[f.id] ?? -1) + 1
  at.value[f.id] = i % f.places.length
  emit('show', f.places[i % f.places.length]!)
}
const open = ref<string | null>(null)
type Doing = { run: (fix: Fix) => unknown; unless?: (fix: Fix) => string | null }
const handler = (fix: SpokenFix<A>): Doing => {
  const h = props.fixes[fix.act as A] as unknown as Doing | Doing['run']
  return typeof h === 'function' ? { run: h } : h
}
/** Why a fix cannot be done now; null: it can. */
const refusal = (fix: SpokenFix<A>): string | null => handler(fix).unless?.(fix as Fix) ?? null
const press = (fix: SpokenFix<A>): void => {
  if (refusal(fix) === null) void handler(fix).run(fix as Fix)
}
</script>

<template>
  <section :aria-label="$t('shell.findingList.findings')">
    <h2 v-if="headline || far" class="head">
      <CircleCheck v-if="fine" :size="17" class="fine" aria-hidden="true" />{{ headline }}
      <span v-if="far" class="far" :class="{ soft: headline }">{{ far }}</span>
    </h2>
    <p v-if="fine" class="soft small mb-2">{{ checked ?? $t('shell.findingList.checked', { measured }) }}</p>
    <article v-for="f in list" :key="f.id" class="finding" :class="f.level" :data-finding="f.id">
      <div class="d-flex align-items-baseline gap-2">
        <component
          :is="LEVEL[f.level].icon"
          :size="16"
          class="sign"
          :aria-label="$t('shell.findingList.value', { word: LEVEL[f.level].word })"
        />
        <BButton
          variant="card"
          class="figure value"
          :title="$t('shell.findingList.howThisIsKnown') + f.how"
          :aria-expanded="open === f.id"
          @click="open = open === f.id ? null : f.id"
        >
          {{ f.value }}
        </BButton>
        <span class="soft">{{ f.unit }}</span>
      </div>
      <p class="sentence"><TermText :pieces="sentences.get(f)!" /></p>
      <p v-if="open === f.id" class="how">{{ f.how }}</p>
      <div class="d-flex gap-2 flex-wrap">
        <BButton v-if="f.places.length > 0" variant="quiet" size="sm" @click="showNext(f)">
          {{ $t('shell.findingList.showPlacesOf', { places: f.places.length, at: (at[f.id] ?? -1) + 1 || 1 }) }}
        </BButton>
        <BButton
          v-for="x in f.fixes"
          :key="x.act"
          variant="primary"
          size="sm"
          :title="refusal(x) ?? x.effect"
          :disabled="refusal(x) !== null"
          @click="press(x)"
        >
          {{ x.label }}
        </BButton>
      </div>
      <p v-if="f.fixes.length === 1" class="effect soft">{{ refusal(f.fixes[0]!) ?? f.fixes[0]!.effect }}</p>
      <p v-else-if="f.fixes.some((x) => refusal(x))" class="effect soft">
        {{ f.fixes.flatMap((x) => (refusal(x) ? [`${x.label}: ${refusal(x)}`] : [])).join(' ') }}
      </p>
    </article>
    <p v-for="h in held" :key="h.why" class="soft small mb-2">
      {{ $t('shell.findingList.notChecked', { titles: h.titles, why: h.why }) }}
    </p>
  </section>
</template>

<style scoped>
.head {
  display: flex;
  align-items: baseline;
  gap: 6px;
  margin-bottom: 6px;
}
.fine {
  color: var(--fine);
  align-self: center;
}
.far.soft {
  font-size: 0.9rem;
  font-weight: 400;
}
.finding {
  background: var(--paper-raised);
  border: 1px solid var(--line);
  border-left-width: 4px;
  border-radius: 5px;
  padding: 9px 12px 10px;
  margin-bottom: 9px;
}
.problem {
  border-left-color: var(--problem);
}
.problem .sign {
  color: var(--problem);
}
.warning {
  border-left-color: var(--warning);
}
.warning .sign {
  color: var(--warning);
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
