<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'
import { starterSpace, STARTER_SIZES, type StarterPrinter } from '../../../core/defaults/stock'
import { SCULPT_ENDINGS } from '../../../core/formats/endings'
import { tell } from '../../api'
import { useAttempt } from '../../composables/useAttempt'
import { figure, unitName } from '../../manner'
import ChoiceSelect from '../../shell/ChoiceSelect.vue'
import FaultNote from '../../shell/FaultNote.vue'
import FileButton from '../../shell/FileButton.vue'
import { useStock } from '../../stores/stock'

/** The page of a workshop without pieces: a sculpt of one's own, the demo, or one's own printer and stock first. */
defineProps<{ busy: boolean }>()
defineEmits<{ files: [files: File[]] }>()
const stock = useStock()
const { attempt, fault } = useAttempt()
const size = ref<StarterPrinter>('medium')
const spaceOf = (s: StarterPrinter): string =>
  `${starterSpace(s)
    .map((v) => figure(v, 0, 'mm'))
    .join(' × ')} ${unitName('mm')}`
const isStocked = computed(() => stock.items.length > 0)
const filling = computed(() => stock.workshop?.demo === 'filling')
const demo = (): Promise<void> => attempt(() => tell('POST', '/workshop/demo'))
const starter = (): Promise<void> => attempt(() => stock.addStarter(size.value))
</script>

<template>
  <FaultNote :text="fault" />
  <div class="doors">
    <section class="sheet door first" :aria-label="$t('places.firstSteps.openASculpt')">
      <h2>{{ $t('places.firstSteps.openASculpt') }}</h2>
      <p>{{ $t('places.firstSteps.dropItAnywhere') }}</p>
      <FileButton
        multiple
        variant="primary"
        :disabled="busy"
        :accept="SCULPT_ENDINGS.map((e) => `.${e}`).join(',')"
        :label="$t('places.firstSteps.sculptFiles')"
        @files="$emit('files', $event)"
        >{{ busy ? $t('places.firstSteps.uploading') : $t('places.firstSteps.chooseFiles') }}</FileButton
      >
    </section>
    <section class="sheet door" :aria-label="$t('places.firstSteps.setUp')">
      <h2>{{ $t('places.firstSteps.setUp') }}</h2>
      <template v-if="isStocked">
        <p>
          {{
            $t('places.firstSteps.inStock', {
              printers: stock.printers.length,
              resins: stock.resins.length,
              paints: stock.paints.length,
              materials: stock.materials.length,
            })
          }}
        </p>
        <RouterLink to="/stock" class="btn btn-quiet btn-sm">{{ $t('places.firstSteps.openStock') }}</RouterLink>
      </template>
      <template v-else>
        <p>{{ $t('places.firstSteps.starterHolds') }}</p>
        <label class="d-block soft small" for="starter-size">{{ $t('places.firstSteps.printerSize') }}</label>
        <ChoiceSelect id="starter-size" v-model="size" size="sm" class="mb-2 w-auto">
          <option v-for="s in STARTER_SIZES" :key="s" :value="s">
            {{ $t('places.firstSteps.size', { size: s, space: spaceOf(s) }) }}
          </option>
        </ChoiceSelect>
        <div class="d-flex gap-2">
          <BButton variant="quiet" size="sm" @click="starter">{{ $t('places.firstSteps.addStarter') }}</BButton>
          <RouterLink to="/stock" class="btn btn-quiet btn-sm">{{ $t('places.firstSteps.enterMine') }}</RouterLink>
        </div>
      </template>
    </section>
    <section class="sheet door" :aria-label="$t('places.firstSteps.demo')">
      <h2>{{ $t('places.firstSteps.demo') }}</h2>
      <p v-if="filling" role="status">{{ $t('places.firstSteps.demoFills') }}</p>
      <template v-else>
        <p>{{ $t('places.firstSteps.demoHolds') }}</p>
        <BButton variant="quiet" size="sm" :disabled="isStocked" @click="demo">{{
          $t('places.firstSteps.fillDemo')
        }}</BButton>
        <p v-if="isStocked" class="soft small mt-2 mb-0">{{ $t('places.firstSteps.demoNeedsEmpty') }}</p>
      </template>
    </section>
  </div>
</template>

<style scoped>
.doors {
  display: grid;
  grid-template-columns: 1.25fr 1fr 1fr;
  gap: 14px;
  max-width: 1180px;
}
.door {
  padding: 20px 22px 22px;
}
.first {
  border: 2px dashed var(--action);
}
@media (max-width: 800px) {
  .doors {
    grid-template-columns: 1fr;
  }
}
</style>
