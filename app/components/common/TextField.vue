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
/** The list with its pop-over is made when the field is first come near (by then it is a combobox): forty of them take a second. */
const awake = ref(false)
async function wake(event: Event) {
  if (awake.value) return
  awake.value = true
  if (event.type !== 'focus') return
  // it was reached by a key, which takes all of its text: so does the field that takes its place
  await nextTick()
  suggesting.value?.focus()
  suggesting.value?.inputRef?.select()
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
    <el-autocomplete
      v-if="suggest && awake"
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
      v-else-if="suggest"
      :id="id"
      :model-value="text"
      :placeholder="placeholder"
      :aria-describedby="describedBy"
      autocomplete="off"
      @pointerenter="wake"
      @focus="wake"
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
