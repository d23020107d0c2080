<script setup lang="ts">
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { onBeforeUnmount, ref } from 'vue'
import { text } from '../../i18n'
import { usePicking } from '../../composables/usePicking'
import { usePictureView } from '../../composables/usePictureView'
import { useViewport } from '../../viewport/useViewport'
import FaultNote from '../../shell/FaultNote.vue'
import FileButton from '../../shell/FileButton.vue'

/** A picture laid behind the sculpt, at the view it was taken from. */
const viewport = useViewport(),
  picking = usePicking()
const { size, pairs, half, fault, matrix, dots, told, enough, begin, pair, inPicture, match } = usePictureView(
  picking.ask,
  picking.stop,
)
const url = ref('')
const strength = ref(55)
async function choose(f: File): Promise<void> {
  fault.value = ''
  const next = URL.createObjectURL(f)
  const image = new Image()
  image.src = next
  try {
    await image.decode()
  } catch {
    URL.revokeObjectURL(next)
    fault.value = text('pose.referencePanel.isNotAPicture', { name: f.name })
    return
  }
  forget()
  url.value = next
  begin(image.naturalWidth, image.naturalHeight)
}
function forget(): void {
  if (url.value) URL.revokeObjectURL(url.value)
  url.value = ''
  begin(1, 1)
}
onBeforeUnmount(forget)
viewport.describe(() =>
  url.value
    ? { backdrop: { url: url.value, size: size.value, opacity: strength.value / 100, matrix: matrix.value } }
    : null,
)
</script>

<template>
  <FoldPanel class="mb-3">
    <template #title>{{ $t('pose.referencePanel.againstAPicture') }}</template>
    <FaultNote :text="fault" class="my-1" />
    <FileButton
      v-if="!url"
      class="mt-2"
      accept="image/*"
      :label="$t('pose.referencePanel.referencePicture')"
      @files="choose($event[0]!)"
      >{{ $t('pose.referencePanel.addAPictureBehind') }}</FileButton
    >
    <template v-else>
      <div class="shot mt-2">
        <img
          :src="url"
          :alt="$t('pose.referencePanel.theReferencePicture')"
          :class="{ aim: half }"
          @click="inPicture"
        />
        <span v-for="(d, i) in dots" :key="i" :style="{ left: `${d.x}%`, top: `${d.y}%` }">{{ i + 1 }}</span>
      </div>
      <label class="d-flex gap-2 align-items-center"
        ><span class="soft small">{{ $t('pose.referencePanel.opacity') }}</span
        ><BFormInput
          v-model.number="strength"
          type="range"
          min="0"
          max="100"
          :aria-label="$t('pose.referencePanel.opacityOfThePicture')"
      /></label>
      <div class="d-flex flex-wrap gap-1">
        <BButton variant="primary" size="sm" @click="picking.asking.value ? picking.stop() : pair()">
          {{
            picking.asking.value
              ? $t('pose.referencePanel.cancel')
              : $t('pose.referencePanel.clickPlace', { pairs: pairs.length + 1 })
          }}
        </BButton>
        <BButton v-if="pairs.length >= enough" variant="quiet" size="sm" @click="match">{{
          $t('pose.referencePanel.matchTheView')
        }}</BButton>
        <BButton variant="quiet" size="sm" @click="forget">{{ $t('pose.referencePanel.remove') }}</BButton>
      </div>
      <p class="soft small mt-1 mb-0">
        {{ told }}
      </p>
    </template>
  </FoldPanel>
</template>

<style scoped>
.shot {
  position: relative;
  border: 1px solid var(--line);
  margin-bottom: 6px;
}
.shot img {
  width: 100%;
  display: block;
}
.shot img.aim {
  cursor: crosshair;
}
.shot span {
  position: absolute;
  transform: translate(-50%, -50%);
  background: var(--action);
  color: var(--white);
  border-radius: 9px;
  min-width: 17px;
  text-align: center;
  font-size: 0.72rem;
  pointer-events: none;
}
</style>
