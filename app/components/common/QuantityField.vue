<script setup lang="ts">
import type { z } from 'zod'
import { parseQuantity, parseRange, type Quantity } from '#core/units'

/**
 * A field for a value with its unit. What is typed counts as soon as it can be read and lies in its range; until then
 * the message stands beside the field, the text stays, and the last good value stays in force.
 */
const props = defineProps<{
  label: string
  quantity: Quantity
  modelValue: number | null
  hint?: string
  placeholder?: string
  /** the same schema that the server checks with */
  schema?: z.ZodType
  required?: boolean
  hideLabel?: boolean
  /** a range such as "50 to 70 W" may be typed; null while there is none */
  range?: { low: number; high: number } | null
}>()
const emit = defineEmits<{ 'update:modelValue': [value: number | null]; range: [low: number, high: number] }>()

const { units, show, editable, symbol, fieldText } = useUnits()
const id = useId()
const text = ref('')
const error = ref('')
const focused = ref(false)

/** An empty field shows its unit; an area also that its sides can be typed. */
const unitShown = computed(() =>
  props.quantity === 'area' ? `${symbol('area')}, or a × b` : symbol(props.quantity),
)
const shown = () => {
  if (props.range)
    return `${editable(props.range.low, props.quantity)} to ${editable(props.range.high, props.quantity)} ${symbol(props.quantity)}`.trim()
  return fieldText(props.modelValue, props.quantity)
}
watch(
  [() => props.modelValue, () => props.range?.low, () => props.range?.high, units],
  () => {
    if (focused.value || error.value) return
    text.value = shown()
  },
  { immediate: true },
)

function refusal(value: number): string {
  const result = props.schema?.safeParse(value)
  if (!result || result.success) return ''
  const issue = result.error.issues[0]!
  if (issue.code === 'too_small' && Number(issue.minimum) !== 0)
    return `Not below ${show(Number(issue.minimum), props.quantity)}.`
  if (issue.code === 'too_big') return `Not above ${show(Number(issue.maximum), props.quantity)}.`
  return issue.message === 'Not below 0.' ? 'Cannot be negative.' : issue.message
}

/** What was in force when the typing began: what cannot be read leaves that, not the first digits of it. */
let before: number | null = null
function entered() {
  focused.value = true
  if (!error.value) before = props.modelValue
}
const restore = () => {
  if (props.modelValue !== before && !(props.required && before === null)) emit('update:modelValue', before)
}
function typed(value: string) {
  text.value = value
  if (!value.trim()) {
    error.value = props.required ? 'This is needed.' : ''
    if (!props.required && props.modelValue !== null) emit('update:modelValue', null)
    return
  }
  const range = props.range === undefined ? null : parseRange(value, props.quantity, units.value)
  if (range) {
    error.value = range.ok ? refusal(range.low) || refusal(range.high) : range.message
    if (range.ok && !error.value) emit('range', range.low, range.high)
    return
  }
  const parsed = parseQuantity(value, props.quantity, units.value)
  error.value = parsed.ok ? refusal(parsed.value) : parsed.message
  if (!parsed.ok || error.value) restore()
  else if (parsed.value !== props.modelValue || props.range) emit('update:modelValue', parsed.value)
}

function left() {
  focused.value = false
  if (!error.value) text.value = shown()
}
/** Escape gives up what cannot be read, shows the value in force again and leaves the field. */
function giveUp() {
  error.value = ''
  text.value = shown()
}
</script>

<template>
  <FieldShell
    :id="id"
    v-slot="{ describedBy }"
    :label="label"
    :hide-label="hideLabel"
    :error="error"
    :hint="hint"
  >
    <el-input
      :id="id"
      class="mono"
      autocomplete="off"
      spellcheck="false"
      :model-value="text"
      :placeholder="placeholder ?? unitShown"
      :aria-invalid="error ? 'true' : undefined"
      :aria-describedby="describedBy"
      @input="typed"
      @focus="entered"
      @blur="left"
      @keydown.esc="giveUp"
    />
  </FieldShell>
</template>
