<script setup lang="ts">
import type { Paper } from '#core/drawing'
import { adapterLength, GENTLE_DEG } from '#core/fit'

/** The template of one fan at true scale, to print or to cut from. */
const { plan, mount: shown } = useFit()
const mount = computed(() => shown.value!)
const hole = computed(() => plan.value.job.holeM ?? mount.value.wantedM)
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
/** Sheets of paper that the drawing takes. */
const sheetWords = computed(() => {
  const made = drawing.value
  if (!made || !svg.value) return ''
  const count = made.tilesOf(svg.value, 'A4').sheets.length
  return count === 1 ? 'one sheet' : `${count} sheets of A4 with crosses to join`
})
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
const svg = computed(() => (template.value ? drawing.value!.templateSvg(template.value) : ''))
const name = computed(() => fileWords(template.value?.name ?? 'template'))
const saveSvgFile = () => saveText(svg.value, `${name.value}.svg`, 'image/svg+xml')
const saveDxf = () =>
  saveText(drawing.value!.templateDxf(template.value!), `${name.value}.dxf`, 'application/dxf')
const problem = ref('')
async function savePage(size: Paper) {
  try {
    const sheets = drawing.value!.tilesOf(svg.value, size)
    await saveTrueScale(sheets, template.value!.name, `${name.value}.pdf`, size)
    problem.value = ''
  } catch {
    problem.value = 'The PDF could not be made here: take the SVG, and print it at 100 %.'
  }
}
</script>

<template>
  <div class="stack">
    <SegmentChoice v-model="what" label="Template of" :options="options" />
    <p v-if="words" class="small">{{ words }}</p>
    <!-- eslint-disable-next-line vue/no-v-html -- made by our own drawing, from numbers -->
    <div v-if="svg" class="template" v-html="svg" />
    <div v-if="template" class="row no-print">
      <span class="small soft">At true scale, {{ sheetWords }}:</span>
      <el-button size="small" @click="saveSvgFile">SVG</el-button>
      <el-button size="small" @click="savePage('A4')">PDF, A4</el-button>
      <el-button size="small" @click="savePage('LETTER')">PDF, Letter</el-button>
      <el-button size="small" @click="saveDxf">DXF</el-button>
    </div>
    <p v-if="problem" class="small bad" role="alert">{{ problem }}</p>
    <p class="small soft">
      Red is cut, black is drilled, teal is only marked. Measure the printed ruler before you cut, and the fan’s
      own screw holes before you drill.
    </p>
  </div>
</template>

<style scoped>
.template {
  background: #ffffff;
  border-radius: 4px;
  padding: 6px;
}
.template :deep(svg) {
  display: block;
  width: 100%;
  height: auto;
  max-height: 340px;
}
/* on the page the lines are as thin as they look; in the file they keep their width */
.template :deep(circle),
.template :deep(line),
.template :deep(path) {
  vector-effect: non-scaling-stroke;
  stroke-width: 1.2px;
}
.bad {
  color: var(--stop);
  font-weight: 600;
}
</style>
