<script setup lang="ts">
import guide from '../../docs/guide.md?raw'
import { beginTour } from '~/composables/useTour'

/** One worked job, told with the demo. */
useHead({ title: 'Guide · Redpoll' })
</script>

<template>
  <div>
    <AppHeader title="Guide: one worked job">
      <el-button @click="beginTour">Take the tour</el-button>
      <NuxtLink to="/words" class="button small quiet">What the words mean</NuxtLink>
    </AppHeader>
    <main id="main" class="page">
      <DocText :text="guide" />
    </main>
  </div>
</template>

<style scoped>
.page {
  padding: 0 20px 20px;
}
@media (max-width: 760px) {
  .page {
    padding: 0 10px 20px;
  }
}
</style>
