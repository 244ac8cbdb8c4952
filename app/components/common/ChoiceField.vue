<script setup lang="ts" generic="T extends string | number | boolean | null">
/** One of a few: the browser's own list, which every keyboard, reader and phone knows. */
const props = defineProps<{
  label: string
  modelValue: T
  options: { value: T; label: string }[]
  hint?: string
  hideLabel?: boolean
}>()
const emit = defineEmits<{ 'update:modelValue': [value: T] }>()
const id = useId()
const index = computed(() => props.options.findIndex((o) => o.value === props.modelValue))
function chosen(event: Event) {
  const option = props.options[Number((event.target as HTMLSelectElement).value)]
  if (option) emit('update:modelValue', option.value)
}
</script>

<template>
  <FieldShell :id="id" v-slot="{ describedBy }" :label="label" :hide-label="hideLabel" :hint="hint">
    <select :id="id" class="choice" :aria-describedby="describedBy" :value="index" @change="chosen">
      <option v-if="index < 0" :value="-1" disabled>choose</option>
      <option v-for="(option, i) in options" :key="i" :value="i">
        {{ option.label }}
      </option>
    </select>
  </FieldShell>
</template>
