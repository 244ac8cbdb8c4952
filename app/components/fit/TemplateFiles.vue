<script setup lang="ts">
import type { Paper, Template } from '#core/drawing'

/** A drawing at true scale as files: to print, to plot, to cut from. */
const props = defineProps<{ template: Template }>()
const drawing = shallowRef<typeof import('#core/drawing') | null>(null)
onMounted(async () => {
  drawing.value = await import('#core/drawing')
})
const svg = computed(() => drawing.value?.templateSvg(props.template) ?? '')
const name = computed(() => fileWords(props.template.name || 'template'))
/** Sheets of paper that the drawing takes. */
const sheetWords = computed(() => {
  if (!svg.value) return ''
  const count = drawing.value!.tilesOf(svg.value, 'A4').sheets.length
  return count === 1 ? 'one sheet' : `${count} sheets of A4 with crosses to join`
})
const saveSvgFile = () => saveText(svg.value, `${name.value}.svg`, 'image/svg+xml')
const saveDxf = () =>
  saveText(drawing.value!.templateDxf(props.template), `${name.value}.dxf`, 'application/dxf')
const problem = ref('')
async function savePage(size: Paper) {
  try {
    const sheets = drawing.value!.tilesOf(svg.value, size)
    await saveTrueScale(sheets, props.template.name, `${name.value}.pdf`, size)
    problem.value = ''
  } catch {
    problem.value = 'The PDF could not be made here: take the SVG, and print it at 100 %.'
  }
}
</script>

<template>
  <!-- eslint-disable-next-line vue/no-v-html -- made by our own drawing, from numbers -->
  <div v-if="svg" class="template" v-html="svg" />
  <div v-if="svg" class="row no-print">
    <span class="small soft">At true scale, {{ sheetWords }}:</span>
    <el-button size="small" @click="saveSvgFile">SVG</el-button>
    <el-button size="small" @click="savePage('A4')">PDF, A4</el-button>
    <el-button size="small" @click="savePage('LETTER')">PDF, Letter</el-button>
    <el-button size="small" @click="saveDxf">DXF</el-button>
  </div>
  <p v-if="problem" class="small bad" role="alert">{{ problem }}</p>
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
  font-weight: 600;
  color: var(--stop);
}
</style>
