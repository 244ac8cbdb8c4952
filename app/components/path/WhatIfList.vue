<script setup lang="ts">
import { drivenArray, operatingFlow, pathSolver, type PathModel } from '#core/system'
import { elementWhatIfs, type WhatIf } from '#core/advice'
import type { PathElement } from '#core/document'

/** What each change of an element would do to the whole path and to the picked fan's flow. */
const props = defineProps<{ element: PathElement }>()
const emit = defineEmits<{ apply: [change: WhatIf] }>()
const job = useJobStore()
const { show, inUnits } = useUnits()
const report = computed(() => job.report!)
const flowOn = computed(() => {
  const selection = report.value.selection
  const driven =
    selection &&
    drivenArray(
      selection.fanArray,
      { volts: selection.candidate.driveV, duty: selection.candidate.duty },
      report.value.air,
    )
  return (path: PathModel) => {
    if (!selection || !driven) return null
    const flow = operatingFlow(pathSolver(path, selection.candidate.flow), driven.curve, driven.drive)
    return flow > 0 ? flow : null
  }
})
const atFlow = computed(() => report.value.path.atFlow)
const now = computed(() => report.value.path.drop.value)
const list = computed(() =>
  report.value.path.complete && job.plan
    ? elementWhatIfs(
        job.plan,
        report.value.air,
        report.value.path.model,
        props.element,
        atFlow.value,
        flowOn.value,
      )
    : [],
)
/** Below this share of change nobody would notice. */
const HARDLY = 0.005
const signed = (value: number, quantity: 'flow' | 'pressure') =>
  `${value > 0 ? '+' : ''}${show(value, quantity)}`
function effect(w: WhatIf): { size: number; text: string } {
  const flow = report.value.selection?.candidate.flow
  const [before, after, quantity] =
    w.flow !== null && flow ? [flow, w.flow, 'flow' as const] : [now.value ?? 0, w.dropPa, 'pressure' as const]
  const size = before > 0 ? ((after - before) / before) * (quantity === 'flow' ? 1 : -1) : 0
  return { size, text: Math.abs(size) < HARDLY ? 'hardly anything' : signed(after - before, quantity) }
}
const rows = computed(() =>
  list.value.map((w) => ({ ...w, effect: effect(w) })).sort((a, b) => b.effect.size - a.effect.size),
)
</script>

<template>
  <div v-if="rows.length" class="stack what-if">
    <h3>What if it were …</h3>
    <ul>
      <li v-for="w in rows" :key="w.key">
        <span>{{ inUnits(w.label) }}</span>
        <span class="mono small effect">{{ w.effect.text }}</span>
        <el-button size="small" :aria-label="`Try: ${w.label}`" @click="emit('apply', w)"> Try </el-button>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.what-if {
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 10px;
  align-items: center;
  padding: 2px 0;
  font-size: 14px;
}
.effect {
  color: var(--ink-soft);
  text-align: right;
}
@media (max-width: 480px) {
  li {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .effect {
    grid-row: 2;
    grid-column: 1 / -1;
    text-align: left;
  }
}
</style>
