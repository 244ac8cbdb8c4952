<script setup lang="ts">
import { pwmOf, usualLimits } from '#core/day'
import { seenFrom, wholePlan, type Control, type StreamPlan } from '#core/document'
import { dayStreamsOf } from '#core/plan'
import {
  curveCsv,
  curveHeader,
  curveJson,
  readCurveCsv,
  readCurveHeader,
  readCurveJson,
} from '#shared/exchange/curve-file'

/** The curve as files: written for a controller, read back. A file that cannot be driven by is refused with its line. */
const props = defineProps<{ plan: StreamPlan; control: Control }>()
const emit = defineEmits<{ read: [control: Partial<Control>] }>()
const problem = ref('')
const inputOf = usePlanInput()
const input = useTemplateRef<HTMLInputElement>('input')

function file() {
  const streams = dayStreamsOf(inputOf(seenFrom(wholePlan(props.plan))))
  const sensor = props.plan.day?.parts.find((p) => p.id === props.control.sensedId)?.name ?? ''
  return toCurveFile(props.control, sensor, usualLimits(streams, props.control), pwmOf(props.control).hz)
}
const base = computed(() => props.plan.job.name.toLowerCase().replace(/[^a-z0-9]+/g, '-') || 'fan')
const ways = {
  csv: () => saveText(curveCsv(props.control.points), `${base.value}-curve.csv`, 'text/csv'),
  json: () => saveText(curveJson(file()), `${base.value}-curve.json`, 'application/json'),
  h: () => saveText(curveHeader(file(), props.plan.job.name), 'fan_curve.h', 'text/x-c'),
}
async function chosen(event: Event) {
  const field = event.target as HTMLInputElement
  const picked = field.files?.[0]
  field.value = ''
  if (!picked) return
  const text = await picked.text()
  problem.value = ''
  const ending = picked.name.toLowerCase().split('.').at(-1)
  if (ending === 'json' || ending === 'h') {
    const read = ending === 'h' ? readCurveHeader(text) : readCurveJson(text)
    if (read.ok) emit('read', fromCurveFile(read.value))
    else problem.value = read.message
    return
  }
  const read = readCurveCsv(text)
  if (read.ok) emit('read', { points: read.value })
  else problem.value = read.message
}
</script>

<template>
  <el-dropdown
    trigger="click"
    :disabled="!control.points.length"
    @command="(way: keyof typeof ways) => ways[way]()"
  >
    <el-button size="small" :disabled="!control.points.length">Write the curve</el-button>
    <template #dropdown>
      <el-dropdown-menu>
        <el-dropdown-item command="csv">Points, as CSV</el-dropdown-item>
        <el-dropdown-item command="json">All of it, as JSON</el-dropdown-item>
        <el-dropdown-item command="h">C header for a microcontroller</el-dropdown-item>
      </el-dropdown-menu>
    </template>
  </el-dropdown>
  <el-button size="small" @click="input?.click()">Read a curve</el-button>
  <input
    ref="input"
    class="visually-hidden"
    type="file"
    accept=".csv,.json,.h"
    tabindex="-1"
    aria-label="File of a curve"
    @change="chosen"
  />
  <span v-if="problem" class="error" role="alert">{{ problem }}</span>
</template>
