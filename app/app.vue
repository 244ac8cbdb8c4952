<script setup lang="ts">
import { useTimeout } from '@vueuse/core'

const { ready, doing } = useStartup()
/** a server that is ready answers sooner: no flash of a page that is not needed */
const late = useTimeout(300)
useTheme()
useGlobalKeys()
</script>

<template>
  <div class="app">
    <template v-if="ready">
      <a class="skip" href="#main" @click.prevent="landIn('#main')">Skip to the page</a>
      <NuxtPage />
      <KeysHelp />
      <CommandPalette />
      <ToastList />
    </template>
    <StartingPage v-else-if="late" :doing="doing" />
  </div>
</template>

<style scoped>
.app {
  min-height: 100%;
}
.skip {
  position: fixed;
  left: 8px;
  top: -60px;
  z-index: 4000;
  padding: 8px 14px;
  background: var(--ink);
  color: var(--sheet);
  border-radius: 6px;
}
.skip:focus {
  top: 8px;
}
</style>
