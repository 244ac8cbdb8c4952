<script setup lang="ts">
definePageMeta({ station: 'fit' })

const route = useRoute()
const { plan, mount, findings } = useFit()
const { show } = useUnits()
const view = ref<'section' | 'board' | 'template'>('section')
watch(
  () => route.hash,
  (hash) => {
    if (hash === '#field-positions') view.value = 'board'
  },
  { immediate: true },
)
const views = [
  { value: 'section' as const, label: 'Through the panel' },
  { value: 'board' as const, label: 'On the panel' },
  { value: 'template' as const, label: 'Template' },
]
/** Less of the air is nothing worth a word, share. */
const LITTLE = 0.01
/** What the gap that is left costs, in words. */
const gapWords = computed(() => {
  const m = mount.value
  if (!m || m.leftM === null || m.leftM < 0) return ''
  if (!m.gapSide) return 'Tell which way it blows: what the gap costs depends on its side.'
  const side = m.gapSide === 'intake' ? 'before the intake' : 'behind the outlet'
  if (!m.cost)
    return `${show(m.leftM, 'length')} ${side}: nearer than a tenth of its diameter, it hardly breathes.`
  const { flowLow, flowHigh, noiseLow, noiseHigh } = m.cost
  if (flowHigh < LITTLE) return `${show(m.leftM, 'length')} ${side}: enough, it costs nothing.`
  const least = noiseLow.toFixed(0)
  const most = noiseHigh === null ? ' dB more at least' : ` to ${noiseHigh.toFixed(0)} dB more`
  const noise = noiseLow > 0 ? `, ${least}${most}` : ''
  const air = `${(100 * flowLow).toFixed(0)} to ${(100 * flowHigh).toFixed(0)} % less air`
  return `${show(m.leftM, 'length')} ${side}: ${air}${noise} (common practice).`
})
const screwWords = computed(() => {
  const s = mount.value?.screw
  if (!s) return ''
  const thread = `M${s.thread}`
  if (s.lengthM === null)
    return `No usual ${thread} screw holds ${show(s.gripM, 'length')} without going too far: change the stack, or put washers under it.`
  const washers = s.washers === 0 ? 'no washers' : `${s.washers} ${s.washers === 1 ? 'washer' : 'washers'} each`
  return `${thread} × ${show(s.lengthM, 'length')}, ${washers}`
})
</script>

<template>
  <div class="layout">
    <div class="stack">
      <section class="sheet stack">
        <div class="sheet-head">
          <h2 class="visually-hidden">Will it go in?</h2>
          <SegmentChoice v-model="view" label="Show" :options="views" />
          <PlaceBar />
          <span v-if="mount" class="small soft">{{ mount.fan.model }}</span>
        </div>
        <p v-if="plan.place.aside" class="soft">
          This place is put aside: taken up again, it is told how its fans go in.
        </p>
        <p v-else-if="!mount" class="soft">
          Pick a fan in the Line-up: hole, screws and stack follow from its frame.
          <NuxtLink :to="`/job/${plan.job.id}/line-up`">To the Line-up</NuxtLink>
        </p>
        <template v-else-if="view === 'section'">
          <SectionDrawing :mount="mount" />
          <dl class="figures">
            <div v-for="f in mount.figures" :key="f.key">
              <dt class="small soft">{{ f.label }}</dt>
              <dd><FigureValue :figure="f" /></dd>
            </div>
            <div v-if="screwWords">
              <dt class="small soft">Screws</dt>
              <dd>{{ screwWords }}</dd>
            </div>
            <div v-if="mount.guardM !== null">
              <dt class="small soft">Guard, at least</dt>
              <dd>{{ show(mount.guardM, 'length') }} from the blades</dd>
            </div>
          </dl>
          <p v-if="gapWords" class="small">{{ gapWords }}</p>
          <PathPieces :mount="mount" />
          <KeepList v-if="mount.keeps.length" :keeps="mount.keeps" />
        </template>
        <PanelBoard v-else-if="view === 'board'" :mount="mount" />
        <TemplateSheet v-else />
      </section>
      <section class="sheet">
        <FindingList :findings="findings" empty="Nothing to fix in what has been checked." />
      </section>
    </div>
    <InTurn>
      <div class="stack">
        <FitForms />
        <SawTable v-if="mount && mount.fan.kind === 'axial'" />
      </div>
    </InTurn>
  </div>
</template>

<style scoped>
.layout {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 12px;
  align-items: start;
}
.figures {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(120px, 1fr));
  gap: 8px;
  margin: 0;
}
.figures dd {
  margin: 0;
}
@media (max-width: 960px) {
  .layout {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
