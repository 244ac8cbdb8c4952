<script setup lang="ts">
import guide from '../../docs/guide.md?raw'
import { beginTour } from '~/composables/useTour'
</script>

<template>
  <TextPage title="Guide: one worked job" :text="guide">
    <el-button @click="beginTour">Take the tour</el-button>
    <NuxtLink to="/words" class="button small quiet">What the words mean</NuxtLink>
  </TextPage>
</template>
