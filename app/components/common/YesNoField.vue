<script setup lang="ts">
/** Yes, no, or not known yet: a fact that is not known leaves its checks unjudged. */
defineProps<{ label: string; modelValue: boolean | null; hint?: string }>()
const emit = defineEmits<{ 'update:modelValue': [value: boolean | null] }>()
const options = [
  { value: null, label: 'not known' },
  { value: true, label: 'yes' },
  { value: false, label: 'no' },
]
</script>

<template>
  <ChoiceField
    :label="label"
    :model-value="modelValue"
    :options="options"
    :hint="hint"
    @update:model-value="emit('update:modelValue', $event)"
  />
</template>
