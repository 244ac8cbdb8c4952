<script setup lang="ts" generic="T extends string">
/** One of a few, all in sight. */
defineProps<{ label: string; options: readonly { value: T; label: string }[]; modelValue: T | null }>()
const emit = defineEmits<{ 'update:modelValue': [value: T] }>()
</script>

<template>
  <el-segmented
    :model-value="modelValue ?? ''"
    :options="options.map((o) => ({ ...o }))"
    :aria-label="label"
    @change="emit('update:modelValue', $event as T)"
  />
</template>
