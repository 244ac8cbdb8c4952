<script setup lang="ts">
/** A day, typed as 2026-05-31 or picked. */
defineProps<{ label: string; modelValue: string | null; placeholder?: string }>()
const emit = defineEmits<{ 'update:modelValue': [value: string | null] }>()
const id = useId()
</script>

<template>
  <FieldShell :id="id" v-slot="{ describedBy }" :label="label">
    <el-date-picker
      :id="id"
      :model-value="modelValue ?? ''"
      type="date"
      value-format="YYYY-MM-DD"
      format="YYYY-MM-DD"
      :placeholder="placeholder ?? '2026-05-31'"
      :aria-describedby="describedBy"
      @update:model-value="emit('update:modelValue', ($event as string | null) || null)"
    />
  </FieldShell>
</template>

<style scoped>
.field :deep(.el-date-editor) {
  width: 100%;
}
</style>
