<script setup lang="ts">
/**
 * A helper that works a value out beside the page: a button opens it, what it hands over closes it, and the focus is back
 * at the button.
 */
defineProps<{ title: string; label?: string }>()
const open = ref(false)
defineExpose({ close: () => (open.value = false) })
</script>

<template>
  <el-button size="small" :aria-expanded="open" @click="open = true">{{ label ?? title }}</el-button>
  <el-drawer v-model="open" :title="title" size="min(460px, 100vw)" append-to-body destroy-on-close>
    <slot />
  </el-drawer>
</template>
