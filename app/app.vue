<script setup lang="ts">
import { refDebounced, useTimeout } from '@vueuse/core'
import { paletteOpen } from '~/composables/useKeys'
import { tourAt } from '~/composables/useTourStep'

const { ready, doing } = useStartup()
/** not told of a moment that passes by itself */
const trouble = refDebounced(serverTrouble, 1000)
/** a server that is ready answers sooner: no flash of a page that is not needed */
const late = useTimeout(300)
useTheme()
useGlobalKeys()
useOthers()
/** fetched when it is first asked for: it knows every sum and every finding */
const palette = ref(false)
watch(paletteOpen, (open) => (palette.value ||= open))
</script>

<template>
  <div class="app">
    <template v-if="ready">
      <el-alert v-if="trouble" class="trouble" type="warning" :closable="false" role="alert">
        <template #title
          >{{ trouble }} What you change is kept in this browser and saved as soon as it can be.</template
        >
      </el-alert>
      <a class="skip" href="#main" @click.prevent="landIn('#main')">Skip to the page</a>
      <NuxtPage />
      <KeysHelp />
      <LazyGuidedTour v-if="tourAt !== null" />
      <LazyCommandPalette v-if="palette" />
      <ToastList />
    </template>
    <StartingPage v-else-if="late" :doing="doing" />
  </div>
</template>

<style scoped>
.app {
  min-height: 100%;
}
.trouble {
  position: sticky;
  top: 0;
  z-index: 3000;
  border-radius: 0;
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
