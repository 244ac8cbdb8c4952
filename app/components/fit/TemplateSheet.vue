<script setup lang="ts">
import { adapterLength, GENTLE_DEG } from '#core/fit'

/** The template of one fan at true scale, to print or to cut from. */
const { plan, mount: shown } = useFit()
const mount = computed(() => shown.value!)
const hole = computed(() => plan.value.place.holeM ?? mount.value.wantedM)
const drawing = shallowRef<typeof import('#core/drawing') | null>(null)
onMounted(async () => {
  drawing.value = await import('#core/drawing')
})
const what = ref<'hole' | 'panel' | 'adapter'>('hole')
const options = [
  { value: 'hole' as const, label: 'One fan' },
  { value: 'panel' as const, label: 'Whole panel' },
  { value: 'adapter' as const, label: 'Adapter' },
]
const template = computed(() => {
  const made = drawing.value
  if (!made) return null
  const { adapter } = mount.value
  if (what.value === 'adapter') return adapter && made.adapterTemplate(plan.value, adapter)
  const of = what.value === 'hole' ? made.fanTemplate : made.panelTemplate
  return of(plan.value, mount.value, hole.value)
})
const { show } = useUnits()
/** How the fans stand in the panel, or why there is no drawing of it. */
function panelWords(): string {
  const { layout, room } = mount.value
  if (room === null) return 'Tell width and height of the panel: the fans are spread over it.'
  if (!layout) return `They do not go on this panel: it has room for ${room}.`
  if (layout.gaps) return 'As they were placed by hand.'
  const { columns, rows, pitchXM, pitchYM } = layout
  const beside = columns > 1 ? `${show(pitchXM, 'length')} from middle to middle` : ''
  const above = rows > 1 ? `rows ${show(pitchYM, 'length')} apart` : ''
  return `${[beside, above].filter(Boolean).join(', ') || 'In the middle of the panel'}.`
}
function adapterWords(): string {
  const { adapter } = mount.value
  if (!adapter) return 'Tell, under “Hose”, the bore that it leads to and how long it is.'
  const { fanEnd, farEnd, steepDeg, way } = adapter
  if (fanEnd.shape === 'round' && farEnd.shape === 'round' && steepDeg < 0.1)
    return `Both ends are ${show(farEnd.widthM, 'length')}: a tube, which is a plain rectangle.`
  const step = Math.max(Math.abs(fanEnd.widthM - farEnd.widthM), Math.abs(fanEnd.heightM - farEnd.heightM))
  const least = (most: number) => show(adapterLength(step, 0, most), 'length')
  const { narrowing, widening } = GENTLE_DEG
  const most = way === null ? widening : GENTLE_DEG[way]
  const steep =
    steepDeg <= most
      ? 'Gentle enough.'
      : way === null
        ? `Tell which way it blows: ${least(narrowing)} long is enough where it narrows, ${least(widening)} where it widens.`
        : `Too steep where it ${way === 'widening' ? 'widens' : 'narrows'}: ${least(most)} is enough.`
  return `Half angle ${steepDeg.toFixed(0)}°. ${steep} Cut the red lines, fold at the teal ones, glue the tab under.`
}
const words = computed(() =>
  what.value === 'panel' ? panelWords() : what.value === 'adapter' ? adapterWords() : '',
)
</script>

<template>
  <div class="stack">
    <SegmentChoice v-model="what" label="Template of" :options="options" />
    <p v-if="words" class="small">{{ words }}</p>
    <TemplateFiles v-if="template" :template="template" />
    <p class="small soft">
      Red is cut, black is drilled, teal is only marked. Measure the printed ruler before you cut, and the fan’s
      own screw holes before you drill.
    </p>
  </div>
</template>
