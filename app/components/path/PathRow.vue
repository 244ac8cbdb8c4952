<script setup lang="ts">
import { elementNames } from '#core/document'
import type { PathElement } from '#core/document'
import type { ElementReport } from '#core/plan'

/** One element in the list: its name, its loss, its share, and where it can go. */
const props = defineProps<{
  element: PathElement
  report: ElementReport | null
  chosen: boolean
  worst: boolean
  first: boolean
  last: boolean
  severity: 'stop' | 'fix' | 'note' | null
}>()
defineEmits<{ pick: []; move: [by: number]; remove: [] }>()
const { show } = useUnits()
const sizes = computed(() => {
  const { kind, areaM2, diameterM, diameter2M, lengthM } = props.element
  const parts = [elementNames[kind].toLowerCase()]
  if (areaM2) parts.push(show(areaM2, 'area'))
  if (diameterM)
    parts.push(`Ø ${show(diameterM, 'length')}${diameter2M ? ` to ${show(diameter2M, 'length')}` : ''}`)
  if (lengthM && kind === 'duct') parts.push(show(lengthM, 'distance'))
  return parts.join(' · ')
})
const percent = computed(() => (props.report?.share == null ? null : Math.round(props.report.share * 100)))
</script>

<template>
  <li class="path-row" :class="{ chosen, worst }" :data-id="element.id">
    <span class="handle" aria-hidden="true" title="Drag">⠿</span>
    <button type="button" class="pick" :aria-pressed="chosen" @click="$emit('pick')">
      <strong>{{ element.name || elementNames[element.kind] }}</strong>
      <span class="small soft">{{ sizes }}</span>
    </button>
    <StateMark v-if="severity" :state="severity" />
    <span v-else />
    <span class="loss">
      <span v-if="element.kind === 'fan'" class="soft">fan</span>
      <span v-else-if="report?.missing" class="missing">size?</span>
      <FigureValue v-else-if="report && element.kind !== 'chamber'" :figure="report.figure" />
    </span>
    <span
      v-if="percent !== null && element.kind !== 'fan' && element.kind !== 'chamber'"
      class="bar"
      :aria-label="`${percent} per cent of what the path takes`"
      role="img"
      ><span :style="{ width: `${percent}%` }"
    /></span>
    <span v-else class="no-bar" />
    <span class="tools">
      <el-button
        text
        size="small"
        class="icon"
        :disabled="first"
        :aria-label="`Move ${element.name} towards the intake`"
        @click="$emit('move', -1)"
      >
        ↑
      </el-button>
      <el-button
        text
        size="small"
        class="icon"
        :disabled="last"
        :aria-label="`Move ${element.name} towards the outlet`"
        @click="$emit('move', 1)"
      >
        ↓
      </el-button>
      <el-button text size="small" class="icon" :aria-label="`Remove ${element.name}`" @click="$emit('remove')">
        ×
      </el-button>
    </span>
  </li>
</template>

<style scoped>
.path-row {
  display: grid;
  grid-template-columns: 18px minmax(0, 1fr) 18px 80px 66px auto;
  gap: 6px;
  align-items: center;
  border-bottom: 1px solid var(--line);
  padding: 2px 4px 2px 2px;
  background: var(--sheet);
}
.path-row.chosen {
  background: var(--cap-soft);
  box-shadow: inset 3px 0 0 var(--cap);
}
.handle {
  cursor: grab;
  color: var(--ink-soft);
  text-align: center;
  user-select: none;
}
.pick {
  border: 0;
  background: none;
  color: inherit;
  text-align: left;
  display: grid;
  cursor: pointer;
  padding: 2px 4px;
  width: 100%;
  min-height: 34px;
  line-height: 1.25;
  align-content: center;
}
.loss {
  text-align: right;
  font-family: var(--mono);
  font-size: 14px;
}
.missing {
  color: var(--amber);
  font-weight: 600;
  font-family: var(--sans);
}
.bar {
  display: block;
  height: 10px;
  background: var(--sheet-soft);
  border: 1px solid var(--line);
  border-radius: 3px;
}
.bar span {
  display: block;
  height: 100%;
  background: var(--bark);
  border-radius: 2px;
}
.worst .bar span {
  background: var(--amber-mark);
}
.tools {
  display: flex;
}
.ghost {
  opacity: 0.5;
}
@media (max-width: 760px) {
  .path-row {
    grid-template-columns: minmax(0, 1fr) 18px 74px auto;
  }
  .bar,
  .no-bar,
  .handle {
    display: none;
  }
}
</style>
