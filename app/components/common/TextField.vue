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
/** The usual words that what is typed may become; all of them in an empty field. */
function alike(query: string, found: (words: { value: string }[]) => void) {
  const wanted = query.trim().toLowerCase()
  found(
    (props.suggest ?? [])
      .filter((word) => word.toLowerCase().includes(wanted) && word.toLowerCase() !== wanted)
      .map((value) => ({ value })),
  )
}
const suggesting = useTemplateRef('suggesting')
useComboboxRole(() => suggesting.value)
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
    <el-autocomplete
      v-if="suggest"
      :id="id"
      ref="suggesting"
      :model-value="text"
      :placeholder="placeholder"
      :maxlength="maxlength ?? 120"
      :aria-invalid="error ? 'true' : undefined"
      :aria-describedby="describedBy"
      :fetch-suggestions="alike"
      :teleported="true"
      @update:model-value="typed(String($event))"
      @focus="focused = true"
      @blur="left"
    />
    <el-input
      v-else
      :id="id"
      :type="lines ? 'textarea' : 'text'"
      :rows="lines"
      :model-value="text"
      :placeholder="placeholder"
      :maxlength="maxlength ?? (lines ? 4000 : 120)"
      :aria-invalid="error ? 'true' : undefined"
      :aria-describedby="describedBy"
      autocomplete="off"
      @input="typed"
      @focus="focused = true"
      @blur="left"
    />
  </FieldShell>
</template>
