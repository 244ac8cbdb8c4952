<script setup lang="ts">
/** The template of one fan at true scale, to print or to cut from. */
const { plan, report } = useJob('fit')
const mount = computed(() => report.value.mount!)
const hole = computed(() => plan.value.job.holeM ?? mount.value.wantedM)
const drawing = shallowRef<typeof import('#core/drawing') | null>(null)
onMounted(async () => {
  drawing.value = await import('#core/drawing')
})
const what = ref<'hole' | 'panel'>('hole')
const options = [
  { value: 'hole' as const, label: 'One fan' },
  { value: 'panel' as const, label: 'Whole panel' },
]
const template = computed(
  () =>
    drawing.value?.[what.value === 'hole' ? 'fanTemplate' : 'panelTemplate'](
      plan.value,
      mount.value,
      hole.value,
    ) ?? null,
)
const { show } = useUnits()
/** How the fans stand in the panel, or why there is no drawing of it. */
const panelWords = computed(() => {
  const { layout, room } = mount.value
  if (room === null) return 'Tell width and height of the panel: the fans are spread over it'
  if (!layout) return `They do not go on this panel: it has room for ${room}`
  const { columns, rows, pitchXM, pitchYM } = layout
  const beside = columns > 1 ? `${show(pitchXM, 'length')} from middle to middle` : ''
  const above = rows > 1 ? `rows ${show(pitchYM, 'length')} apart` : ''
  return [beside, above].filter(Boolean).join(', ') || 'In the middle of the panel'
})
const svg = computed(() => (template.value ? drawing.value!.templateSvg(template.value) : ''))
const name = computed(() => template.value?.name.replaceAll(/[^\p{L}\p{N}]+/gu, '-') ?? 'template')
const saveSvgFile = () => saveText(svg.value, `${name.value}.svg`, 'image/svg+xml')
const saveDxf = () =>
  saveText(drawing.value!.templateDxf(template.value!), `${name.value}.dxf`, 'application/dxf')
const problem = ref('')
async function savePage(size: 'A4' | 'LETTER') {
  problem.value = await saveTrueScale(svg.value, template.value!.name, `${name.value}.pdf`, size)
}
</script>

<template>
  <div class="stack">
    <SegmentChoice v-model="what" label="Template of" :options="options" />
    <p v-if="what === 'panel'" class="small">{{ panelWords }}.</p>
    <!-- eslint-disable-next-line vue/no-v-html -- made by our own drawing, from numbers -->
    <div v-if="svg" class="template" v-html="svg" />
    <div v-if="template" class="row no-print">
      <span class="small soft">At true scale:</span>
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
.template :deep(line) {
  vector-effect: non-scaling-stroke;
  stroke-width: 1.2px;
}
.bad {
  color: var(--stop);
  font-weight: 600;
}
</style>
