<script setup lang="ts">
/** What every field has around its input: the label, and below it what is wrong with it or a hint. */
defineProps<{ id: string; label: string; hideLabel?: boolean; error?: string; hint?: string }>()
</script>

<template>
  <div class="field">
    <label :for="id" :class="{ 'visually-hidden': hideLabel }">{{ label }}</label>
    <slot :described-by="error ? `${id}-error` : hint ? `${id}-hint` : undefined" />
    <span v-if="error" :id="`${id}-error`" class="error" role="alert">{{ error }}</span>
    <span v-else-if="hint" :id="`${id}-hint`" class="hint">{{ hint }}</span>
  </div>
</template>
