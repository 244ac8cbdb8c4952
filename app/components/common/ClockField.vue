<script setup lang="ts">
/** A time of the day, typed as 8, 8:30 or 08:30; empty is not known. */
const props = defineProps<{ label: string; modelValue: number | null; hint?: string }>()
const emit = defineEmits<{ 'update:modelValue': [value: number | null] }>()
const id = useId()
const shown = () => (props.modelValue === null ? '' : printClock(props.modelValue))
const text = ref(shown())
const error = ref('')
const focused = ref(false)
watch(
  () => props.modelValue,
  () => {
    if (!focused.value && !error.value) text.value = shown()
  },
)
function typed(value: string) {
  text.value = value
  const seconds = parseClock(value)
  error.value = value.trim() && seconds === null ? 'A time of the day: 8 or 8:30.' : ''
  if (!error.value) emit('update:modelValue', value.trim() ? seconds : null)
}
function left() {
  focused.value = false
  if (!error.value) text.value = shown()
}
</script>

<template>
  <FieldShell :id="id" v-slot="{ describedBy }" :label="label" :error="error" :hint="hint">
    <el-input
      :id="id"
      :model-value="text"
      inputmode="numeric"
      placeholder="hh:mm"
      :aria-invalid="error ? 'true' : undefined"
      :aria-describedby="describedBy"
      autocomplete="off"
      @input="typed"
      @focus="focused = true"
      @blur="left"
    />
  </FieldShell>
</template>
