<script setup lang="ts">
import type { Figure } from '#core/figure'

/** A computed number; it opens to its working: formula, the values put in, the source, how sure it is. */
const props = defineProps<{
  figure: Figure
  signed?: boolean
  big?: boolean
  range?: boolean
  /** words before the value */ before?: string
  /** without its unit, which stands in the column's head */ bare?: boolean
}>()
const { show, bare: printBare, inUnits } = useUnits()
const open = ref(false)
/** the pop-over is made at the first opening: a table may hold hundreds of figures */
const made = ref(false)
const button = ref<HTMLElement>()
async function toggle() {
  made.value = true
  await nextTick()
  open.value = !open.value
}
const estimated = computed(() => props.figure.basis === 'estimated' && props.figure.value !== null)
const text = computed(() => {
  const { value, quantity } = props.figure
  const plus = props.signed && value !== null && value > 0 ? '+' : ''
  return `${props.before ?? ''}${mark.value}${plus}${show(value, quantity)}`
})
/** An estimate bears a tilde, the least that is told a sign of its own. */
const mark = computed(() =>
  props.figure.openLow && props.figure.value === props.figure.low ? '≤ ' : estimated.value ? '~' : '',
)
const unitOf = (text: string) => text.replace(/^[−-]?[\d\s.,]+/u, '')
const rangeText = computed(() => {
  const { low, high, openHigh, openLow, quantity } = props.figure
  if (low === null) return ''
  if (openLow && high !== null) return high === low ? 'or less' : `up to ${show(high, quantity)}`
  const own = show(low, quantity)
  // a duration or an energy chooses its unit by its size: what both ends share is told once
  const unit = unitOf(own)
  const shared = unit !== own && (high === null || unit === unitOf(show(high, quantity)))
  // nothing at all is told in words, as a bare zero could be overlooked
  const from =
    low === 0 && quantity === 'flow' ? 'none (0)' : shared ? own.slice(0, own.length - unit.length).trim() : own
  if (openHigh) return `${own} to no limit`
  return high === null ? '' : `${from} to ${show(high, quantity)}`
})
const bases = {
  claim: 'the maker’s claim',
  curve: 'a data-sheet curve',
  measured: 'your own measurement',
  estimated: 'an estimate',
  computed: 'computed from what you gave',
}
</script>

<template>
  <button
    ref="button"
    type="button"
    class="figure"
    :class="{ big, none: figure.value === null }"
    :aria-label="`${figure.label}: ${text}${rangeText ? `, range ${rangeText}` : ''}. Show working`"
    :aria-expanded="open"
    @click="toggle"
    @keydown.esc="open = false"
  >
    <span>{{
      bare && figure.quantity !== 'ratio' ? `${mark}${printBare(figure.value, figure.quantity)}` : text
    }}</span>
    <span v-if="range && rangeText" class="range">{{ rangeText }}</span>
  </button>
  <el-popover
    v-if="made"
    v-model:visible="open"
    :virtual-ref="button"
    virtual-triggering
    trigger="click"
    :width="340"
    placement="bottom-end"
    :persistent="false"
  >
    <div class="working">
      <h3>{{ figure.label }}</h3>
      <p class="formula mono">
        {{ figure.formula }}
      </p>
      <table v-if="figure.inputs.length" class="data">
        <tbody>
          <tr v-for="item in figure.inputs" :key="item.symbol + item.label">
            <td class="mono">
              {{ item.symbol }}
            </td>
            <td>{{ item.label }}</td>
            <td class="num">
              {{ show(item.value, item.quantity) }}
            </td>
          </tr>
        </tbody>
      </table>
      <p>
        <strong class="mono">= {{ text }}</strong
        ><span v-if="rangeText"> · range {{ rangeText }}</span>
      </p>
      <p class="small">
        Rests on {{ bases[figure.basis] }}.<template v-if="figure.note">
          {{ inUnits(figure.note) }}
        </template>
      </p>
      <p v-if="figure.source" class="small soft">Source: {{ figure.source }}</p>
    </div>
  </el-popover>
</template>

<style scoped>
.figure {
  border: 0;
  background: none;
  color: inherit;
  font-family: var(--mono);
  padding: 3px 4px;
  margin: -3px -4px;
  cursor: help;
  text-align: right;
  border-radius: 4px;
  min-height: 26px;
  text-decoration: underline dotted var(--line-strong) 1px;
  text-underline-offset: 4px;
  white-space: nowrap;
}
.figure:hover {
  background: var(--teal-soft);
}
.figure.big {
  font-size: 20px;
  font-weight: 600;
}
.range {
  display: block;
  font-size: 12.5px;
  font-weight: 400;
  color: var(--ink-soft);
}
.working {
  display: grid;
  gap: 8px;
}
.formula {
  background: var(--sheet-soft);
  padding: 6px 8px;
  border-radius: 5px;
  overflow-wrap: anywhere;
  font-size: 13px;
}
.working table {
  font-size: 13px;
}
.working td {
  padding: 3px 4px;
}
</style>
