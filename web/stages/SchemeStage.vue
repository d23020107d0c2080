<script setup lang="ts">
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { BTab, BTabs } from 'bootstrap-vue-next/components/BTabs'
import { storeToRefs } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { text } from '../i18n'
import type { Scheme } from '../../contract/scheme'
import { TINT } from '../../core/defaults/paint'
import { undercoatBy } from '../../core/paint/coats/undercoat'
import { regionNames } from '../../core/paint/surface/vocabulary'
import FindingList from '../shell/FindingList.vue'
import CoatList from './scheme/CoatList.vue'
import CoatPictures from './scheme/CoatPictures.vue'
import MixFor from './scheme/MixFor.vue'
import EffectsPanel from './scheme/EffectsPanel.vue'
import EmblemPanel from './scheme/EmblemPanel.vue'
import EyesPanel from './scheme/EyesPanel.vue'
import LampBehind from './scheme/LampBehind.vue'
import LightPanel from './scheme/LightPanel.vue'
import OrderPanel from './scheme/OrderPanel.vue'
import PlacesPanel from './scheme/PlacesPanel.vue'
import ReferencePanel from './scheme/ReferencePanel.vue'
import RegionTools from './scheme/RegionTools.vue'
import StackPanel from './scheme/StackPanel.vue'
import StencilPanel from './scheme/StencilPanel.vue'
import UndercoatPanel from './scheme/UndercoatPanel.vue'
import { REACHES, useFill } from './scheme/useFill'
import { usePreview } from './scheme/usePreview'
import { useSchemeFindings } from './scheme/useSchemeFindings'
import { useRegions } from './scheme/useRegions'
import { useDelayedSave } from '../composables/useDelayedSave'
import { useRules } from '../composables/useRules'
import { useScheme } from '../stores/scheme'
import { usePiece } from '../stores/piece'
import type { Picked } from '../viewport/scene'
import { useViewport } from '../viewport/useViewport'
import ChoiceSelect from '../shell/ChoiceSelect.vue'
import FaultNote from '../shell/FaultNote.vue'
import NumberField from '../shell/NumberField.vue'

const store = usePiece(),
  book = useScheme(),
  viewport = useViewport()
const { scheme } = storeToRefs(book)
/** a panel waits for a place on the sculpt */
const asking = shallowRef<{ hint: string; taken: (p: Picked) => void } | null>(null)
const splitAlong = shallowRef<[number, number, number] | null>(null)
const list = ref<InstanceType<typeof CoatList> | null>(null)
/** what a press on the sculpt does to the region */
const tool = ref<'brush' | 'fill' | null>(null),
  radius = ref(4)
const { rule } = useRules()
const undercoat = computed(() => undercoatBy(rule('undercoat'), scheme.value?.tint ?? TINT))
const regions = useRegions(changed)
const { current, region, labels, ready, fresh, undoable } = regions
viewport.describe(() => ({ mesh: store.meshAfter('scale') ?? store.part?.sculptMesh ?? null }))
const filling = useFill()
const { reach, looking } = filling
/** What one decides at a time: coats, light, masks, eyes and ground. */
const leaf = ref(0)
const parts = ref(8)
async function propose(): Promise<void> {
  const next = await filling.propose(parts.value)
  if (next) regions.propose(next)
}
function start(how: 'brush' | 'fill'): void {
  tool.value = tool.value === how ? null : how
  if (tool.value === 'fill') void filling.look()
}
const preview = usePreview(labels, ready, undercoat)
const { facts, light, done, shown, refresh } = preview
watch(
  [() => viewport.shown, () => scheme.value === null],
  async () => {
    await regions.apply()
    await refresh()
  },
  { immediate: true },
)

const { saving, changed: saveLater } = useDelayedSave(async () => {
  if (await store.guarded(regions.keep)) await book.save()
})
/** Seen at once, and kept when the hand rests. */
function changed(): void {
  void refresh()
  saveLater()
}
const hint = (): string => {
  const called = `“${region.value?.name}”`
  if (asking.value) return asking.value.hint
  if (splitAlong.value) return text('stages.schemeStage.clickWhereIsTo', { called })
  if (tool.value === 'brush') return text('stages.schemeStage.brushOntoTheSculpt', { called })
  return looking.value
    ? text('stages.schemeStage.lookingForCreases')
    : text('stages.schemeStage.clickOrDragTo', { called })
}
viewport.describe(() =>
  asking.value || splitAlong.value
    ? { mode: 'pick', hint: hint(), onPick: pressed }
    : tool.value
      ? { mode: 'brush', hint: hint(), onPick: pressed }
      : null,
)
function pressed(p: Picked): void {
  const normal = splitAlong.value
  if (asking.value) asking.value.taken(p)
  else if (normal && region.value) {
    splitAlong.value = null
    void regions.splitAt(p.point, normal)
  } else if (tool.value === 'brush') regions.brush(p, radius.value)
  else if (tool.value === 'fill') {
    const marked = filling.pressed(p)
    if (marked) regions.take(marked)
  }
}
function setOrder(ids: string[]): void {
  scheme.value!.order = ids
  changed()
}
function setTint(hex: string): void {
  scheme.value!.tint = hex
  changed()
}
/** Its sprayed coats are brushed from now on. */
function brushAll(id: number): void {
  for (const c of scheme.value!.coats) {
    if (c.regionId !== id || c.technique === 'varnish') continue
    c.tool = 'brush'
    if (c.technique === 'airbrush') c.technique = 'layer'
  }
  changed()
}
function replace(next: Scheme['regions'][number]): void {
  Object.assign(region.value!, next)
  changed()
}
function setTarget(hex: string): void {
  region.value!.target = hex
  changed()
}
const { judged, orderFixes } = useSchemeFindings({
  newSkin: () => (ready.value ? fresh.value : null),
  setOrder,
  brushAll,
})
const said = computed(() => regions.fault.value || book.fault || preview.problem.value)
/** The colour that a region's first coat ends at. */
const swatch = (id: number): string =>
  facts.value.get(scheme.value!.coats.find((c) => c.regionId === id)?.id ?? '')?.hex ?? '#b9ac98'
</script>

<template>
  <FindingList :judged="judged" :fixes="orderFixes" />
  <FaultNote :text="said" />
  <p v-if="preview.measuring.value" class="soft">{{ $t('stages.schemeStage.analysingTheSurfaceFor') }}</p>
  <template v-if="scheme">
    <div class="d-flex justify-content-between align-items-baseline mb-2">
      <h2>{{ $t('stages.schemeStage.regions') }}</h2>
      <span class="soft small">{{
        $t('stages.schemeStage.overUndercoatSaving', {
          undercoat: undercoat === 'zenithal',
          undercoat2: undercoat.replace('#', 'primer of #'),
          saving,
        })
      }}</span>
    </div>
    <div class="regions">
      <BButton
        variant="card"
        v-for="r in scheme.regions"
        :key="r.id"
        class="region"
        :class="{ on: r.id === current }"
        :aria-pressed="r.id === current"
        @click="current = r.id"
      >
        <span class="swatch" :style="{ background: swatch(r.id) }" />
        {{ r.name }}
      </BButton>
      <BButton variant="card" class="region add" @click="regions.add">{{ $t('stages.schemeStage.addRegion') }}</BButton>
    </div>
    <div
      v-if="scheme.regions.length === 1 && scheme.coats.length === 0 && ready"
      class="d-flex gap-2 align-items-center mt-2"
    >
      <BButton variant="quiet" size="sm" :disabled="looking" @click="propose">{{
        $t('stages.schemeStage.proposeRegions')
      }}</BButton>
      <label class="d-flex gap-2 align-items-center small"
        >{{ $t('stages.schemeStage.about')
        }}<NumberField
          v-model="parts"
          bare
          :min="2"
          :max="40"
          whole
          :label="$t('stages.schemeStage.aboutHowManyRegions')"
      /></label>
    </div>
    <section v-if="region" class="sheet p-3 my-3">
      <label class="name"
        ><span class="soft">{{ $t('stages.schemeStage.name') }}</span
        ><BFormInput v-model="region.name" size="sm" maxlength="60" list="region-words" @change="changed"
      /></label>
      <datalist id="region-words">
        <option v-for="w in regionNames()" :key="w.id">{{ $t(w.id) }}</option>
      </datalist>
      <div class="d-flex gap-2 mt-2 flex-wrap align-items-center">
        <BButton
          :variant="tool === 'brush' ? 'primary' : 'quiet'"
          size="sm"
          :aria-pressed="tool === 'brush'"
          @click="start('brush')"
        >
          {{ tool === 'brush' ? $t('stages.schemeStage.doneBrushing') : $t('stages.schemeStage.brush') }}
        </BButton>
        <BButton
          :variant="tool === 'fill' ? 'primary' : 'quiet'"
          size="sm"
          :aria-pressed="tool === 'fill'"
          @click="start('fill')"
        >
          {{ tool === 'fill' ? $t('stages.schemeStage.doneFilling') : $t('stages.schemeStage.fillToCrease') }}
        </BButton>
        <BButton variant="quiet" size="sm" @click="regions.fill">{{ $t('stages.schemeStage.wholePart') }}</BButton>
        <label v-if="tool === 'fill'" class="d-flex gap-2 align-items-center small w-100"
          >{{ $t('stages.schemeStage.aClickFills')
          }}<BFormInput
            v-model.number="reach"
            type="range"
            min="0"
            :max="REACHES.length - 1"
            :aria-label="$t('stages.schemeStage.howFarAClick')"
          /><span class="text-nowrap">{{
            reach < 3
              ? $t('stages.schemeStage.aSmallArea')
              : reach < 8
                ? $t('stages.schemeStage.upToTheNext')
                : $t('stages.schemeStage.aWholeSide')
          }}</span></label
        >
        <label v-else-if="tool === 'brush'" class="d-flex gap-2 align-items-center small w-100"
          >{{ $t('stages.schemeStage.size')
          }}<BFormInput
            v-model.number="radius"
            type="range"
            min="1"
            max="25"
            :aria-label="$t('stages.schemeStage.brushRadiusInMm')"
          /><span class="num text-nowrap">{{ $t('stages.schemeStage.mm', { radius }) }}</span></label
        >
      </div>
      <RegionTools
        v-if="viewport.shown && ready"
        :mesh="viewport.shown.mesh"
        :labels="labels"
        :region="region.id"
        :others="scheme.regions.filter((r) => r.id !== current)"
        :splitting="splitAlong !== null"
        :undoable="undoable"
        @labels="regions.relabel"
        @split="splitAlong = $event"
        @undo="regions.takeBack"
        @join="regions.joinTo"
      />
      <label class="name mt-2"
        ><span class="soft">{{ $t('stages.schemeStage.material') }}</span
        ><ChoiceSelect
          v-model="region.takes"
          size="sm"
          :aria-label="$t('stages.schemeStage.whatCanBePut')"
          @update:model-value="changed"
        >
          <option value="paint">{{ $t('stages.schemeStage.anyPaint') }}</option>
          <option value="light">{{ $t('stages.schemeStage.inksOnlyItIs') }}</option>
          <option value="glue">{{ $t('stages.schemeStage.noPaintItIs') }}</option>
        </ChoiceSelect></label
      >
      <LampBehind v-if="region.takes === 'light'" v-model="region.behind" @update:model-value="changed" />
    </section>
    <BTabs v-model:index="leaf" class="leaves" no-fade :aria-label="$t('stages.schemeStage.partOfTheScheme')">
      <BTab :title="$t('stages.schemeStage.coats')">
        <CoatList ref="list" v-model="scheme.coats" :region="current" :facts="facts" @update:model-value="changed" />
        <MixFor v-if="region" :region="region" @target="setTarget" @take="list?.take($event)" />
        <StackPanel
          v-if="region"
          :region="region"
          :shown="shown"
          :sent="preview.sent"
          :kelvin="light.kelvin"
          @changed="changed"
        />
        <CoatPictures
          v-model="done"
          :region="current"
          :coats="scheme.coats"
          :shown="shown"
          :sent="preview.sent"
          :kelvin="light.kelvin"
        />
        <ReferencePanel
          v-if="region"
          :model-value="region"
          @update:model-value="replace"
          @target="setTarget"
          @ask="asking = $event"
        />
      </BTab>
      <BTab :title="$t('stages.schemeStage.light')">
        <LightPanel v-model="light" />
        <PlacesPanel v-if="region" :region="region" :light="light" :shown="shown" :sent="preview.sent" />
        <UndercoatPanel :undercoat="rule('undercoat')" :shown="leaf === 1" @tint="setTint" />
      </BTab>
      <BTab :title="$t('stages.schemeStage.masks')">
        <OrderPanel :fixes="orderFixes" @order="setOrder" />
        <StencilPanel
          v-if="region && viewport.shown && ready"
          :region="region"
          :mesh="viewport.shown.mesh"
          :labels="labels"
        />
        <EmblemPanel v-if="ready" @ask="asking = $event" @region="regions.addOf" />
      </BTab>
      <BTab :title="$t('stages.schemeStage.eyesAndGround')">
        <EyesPanel v-model="scheme.eyes" @update:model-value="changed" @ask="asking = $event" />
        <EffectsPanel v-if="region" :region="region" @changed="changed" />
      </BTab>
    </BTabs>
  </template>
</template>

<style scoped>
.how-many {
  width: 64px;
}
.regions {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}
.region {
  border: 1px solid var(--line);
  background: var(--paper-raised);
  border-radius: 4px;
  padding: 3px 9px 3px 5px;
}
.region.on {
  border-color: var(--action);
  box-shadow: inset 0 -3px 0 var(--action);
}
.region.add {
  color: var(--action);
  padding-left: 9px;
}
.leaves :deep(.nav-tabs) {
  position: sticky;
  /* The panel is padded: nothing shows above the bar. */
  top: -12px;
  padding-top: 12px;
  z-index: 2;
  background: var(--bs-body-bg);
  margin-bottom: 8px;
}
.leaves :deep(.nav-link) {
  padding: 6px 9px;
  white-space: nowrap;
}
.name {
  display: grid;
  grid-template-columns: 60px 1fr;
  align-items: center;
}
</style>
