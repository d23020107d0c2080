<script setup lang="ts">
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref } from 'vue'
import { text, fixed } from '../../i18n'
import { resin as resinSchema } from '../../../contract/stock'
import { calibrateSupports } from '../../../core/print/support/supportCalibration'
import { peelOn } from '../../../core/print/slice/printer'
import { usePrinterAndResin } from '../../composables/usePrinterAndResin'
import { useStock } from '../../stores/stock'
import FaultNote from '../../shell/FaultNote.vue'
import { messageOf } from '../../messageOf'

/** How the print went, kept with its resin; and what all its prints say about how hard the film pulls. */
const props = defineProps<{ utilisation: number; peelPressure: number; greenStrength: number }>()
const stock = useStock()
const { printer, resin } = usePrinterAndResin()
const fault = ref(''),
  noted = ref('')
const learned = computed(() =>
  resin.value
    ? calibrateSupports(resin.value.prints ?? [], {
        ...resinSchema.parse(resin.value),
        // Prints were worked by what resin and film pull together.
        peelPressure: peelOn(printer.value ?? {}, resin.value),
      })
    : null,
)
const pressure = computed(() => (resin.value && learned.value ? resin.value.peelPressure * learned.value.factor : 0))
/** Worth saying once the figure is known better than it is off. */
const tells = computed(() => {
  const l = learned.value
  return l !== null && l.prints >= 3 && (l.low > 1.05 || l.high < 0.95)
})
async function save(data: Partial<NonNullable<typeof resin.value>>, said: string): Promise<void> {
  const r = resin.value
  if (!r) return
  fault.value = noted.value = ''
  try {
    await stock.change('resin', r.id, data)
    noted.value = said
  } catch (e) {
    fault.value = messageOf(e)
  }
}
const log = (held: boolean): Promise<void> =>
  save(
    {
      prints: [...(resin.value?.prints ?? []), { on: stock.today(), held, ...props }].slice(-400),
    },
    held ? text('orient.outcomePanel.notedAllTipsHeld') : text('orient.outcomePanel.notedTipsFailed'),
  )
</script>

<template>
  <FoldPanel v-if="resin" class="mt-1">
    <template #title
      >{{ $t('orient.outcomePanel.printResult')
      }}<span v-if="learned && learned.prints > 0" class="soft">{{
        $t('orient.outcomePanel.printsNotedWithFailed', { prints: learned.prints, failures: learned.failures })
      }}</span>
    </template>
    <div class="d-flex gap-1 flex-wrap my-1">
      <BButton variant="quiet" size="sm" @click="log(true)">{{ $t('orient.outcomePanel.allTipsHeld') }}</BButton>
      <BButton variant="quiet" size="sm" @click="log(false)">{{ $t('orient.outcomePanel.tipsFailed') }}</BButton>
    </div>
    <p v-if="noted" role="status" class="soft small mb-1">{{ noted }}</p>
    <FaultNote :text="fault" class="mb-1" />
    <template v-if="learned && tells">
      <p class="mb-1">
        {{
          $t('orient.outcomePanel.byPrintsPeelsTimes', {
            name: resin.name,
            factor: fixed(learned.factor, 2),
            low: fixed(learned.low, 2),
            high: fixed(learned.high, 2),
            prints: learned.prints,
          })
        }}
      </p>
      <BButton
        variant="primary"
        size="sm"
        @click="save({ peelPressure: Math.round(pressure / 100) * 100 }, 'Used from the next supports on.')"
      >
        {{ $t('orient.outcomePanel.calculateWithKpa', { pressure: fixed(pressure / 1000, 1) }) }}
      </BButton>
    </template>
    <p v-else class="soft small mb-0">
      {{ $t('orient.outcomePanel.highestLoadOfA', { round: Math.round(100 * utilisation) }) }}
    </p>
  </FoldPanel>
</template>
