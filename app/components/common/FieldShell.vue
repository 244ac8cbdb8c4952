<script setup lang="ts">
/** What every field has around its input: the label, and below it what is wrong with it or a hint. */
defineProps<{ id: string; label: string; hideLabel?: boolean; error?: string; hint?: string }>()
const { inUnits } = useUnits()
</script>

<template>
  <el-form-item
    class="field"
    :class="{ 'label-hidden': hideLabel }"
    label-position="top"
    :label="label"
    :for="id"
    :error="error"
  >
    <slot :described-by="error ? `${id}-error` : hint ? `${id}-hint` : undefined" />
    <span v-if="!error && hint" :id="`${id}-hint`" class="hint">{{ inUnits(hint) }}</span>
    <template #error>
      <span :id="`${id}-error`" class="error" role="alert">{{ error }}</span>
    </template>
  </el-form-item>
</template>
