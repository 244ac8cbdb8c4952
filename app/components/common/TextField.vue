<script setup lang="ts">
const props = defineProps<{
  label: string
  modelValue: string
  hint?: string
  placeholder?: string
  lines?: number
  required?: boolean
  maxlength?: number
  hideLabel?: boolean
  /** words that are usual here */ suggest?: readonly string[]
}>()
const emit = defineEmits<{ 'update:modelValue': [value: string] }>()
const id = useId()
const text = ref(props.modelValue)
const error = ref('')
const focused = ref(false)
watch(
  () => props.modelValue,
  (value) => {
    if (!focused.value) text.value = value
  },
)
function typed(value: string) {
  text.value = value
  error.value = props.required && !value.trim() ? 'This is needed.' : ''
  if (!error.value) emit('update:modelValue', value)
}
function left() {
  focused.value = false
  if (error.value) return
  text.value = props.modelValue
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
      :type="lines ? 'textarea' : 'text'"
      :rows="lines"
      :model-value="text"
      :placeholder="placeholder"
      :maxlength="maxlength ?? (lines ? 4000 : 120)"
      :aria-invalid="error ? 'true' : undefined"
      :aria-describedby="describedBy"
      autocomplete="off"
      :list="suggest?.length ? `${id}-list` : undefined"
      @input="typed"
      @focus="focused = true"
      @blur="left"
    />
    <datalist v-if="suggest?.length" :id="`${id}-list`">
      <option v-for="word in suggest" :key="word" :value="word" />
    </datalist>
  </FieldShell>
</template>
