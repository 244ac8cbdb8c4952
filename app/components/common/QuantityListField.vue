<script setup lang="ts">
import type { z } from 'zod'
import { parseQuantity, type Quantity } from '#core/units'

/** Several values of one kind in a row: `33.8 34.1 33.6`, with or without units. What cannot be read is told beside the field. */
const props = defineProps<{
  label: string
  quantity: Quantity
  modelValue: number[]
  schema?: z.ZodType
  hint?: string
  placeholder?: string
  hideLabel?: boolean
  required?: boolean
}>()
const emit = defineEmits<{ 'update:modelValue': [values: number[]] }>()
const { units, editable, symbol } = useUnits()
const id = useId()
const text = ref('')
const error = ref('')
const focused = ref(false)
const shown = () =>
  props.modelValue.length
    ? `${props.modelValue.map((v) => editable(v, props.quantity)).join('  ')} ${symbol(props.quantity)}`.trim()
    : ''
watch(
  [() => props.modelValue, units],
  () => {
    if (!focused.value && !error.value) text.value = shown()
  },
  { immediate: true },
)

function typed(value: string) {
  text.value = value
  const parts = value.trim() ? value.trim().split(/\s*;\s*|,\s+|\s+(?=[-+−]?[\d.])/) : []
  if (!parts.length) {
    error.value = props.required ? 'This is needed.' : ''
    if (!props.required) emit('update:modelValue', [])
    return
  }
  const values: number[] = []
  for (const part of parts) {
    const parsed = parseQuantity(part, props.quantity, units.value)
    const refused = parsed.ok ? props.schema?.safeParse(parsed.value) : null
    if (!parsed.ok || refused?.success === false) {
      error.value = parsed.ok
        ? refused!.error!.issues[0]!.message
        : parts.length > 1
          ? `“${part}” cannot be read.`
          : parsed.message
      return
    }
    values.push(parsed.value)
  }
  error.value = ''
  emit('update:modelValue', values)
}
function left() {
  focused.value = false
  if (!error.value) text.value = shown()
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
      :placeholder="placeholder"
      :aria-invalid="error ? 'true' : undefined"
      :aria-describedby="describedBy"
      @input="typed"
      @focus="focused = true"
      @blur="left"
    />
  </FieldShell>
</template>
