<script setup lang="ts">
import words from '../../docs/words.md?raw'
</script>

<template>
  <TextPage title="What the words mean" :text="words">
    <NuxtLink to="/guide" class="button small quiet">Guide</NuxtLink>
  </TextPage>
</template>
