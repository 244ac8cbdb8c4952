<script setup lang="ts">
import { globalKeys, keysOpen, pageKeys } from '~/composables/useKeys'

/** It knows the open job: fetched when it is taken. */
async function tour() {
  keysOpen.value = false
  const { beginTour } = await import('~/composables/useTour')
  await beginTour()
}
const rows = computed(() => [...pageKeys.value, ...globalKeys])
</script>

<template>
  <el-dialog v-model="keysOpen" title="Help and keys" width="min(420px, calc(100vw - 24px))" append-to-body>
    <p class="row">
      <NuxtLink to="/guide" class="button small" @click="keysOpen = false">Guide: one worked job</NuxtLink>
      <el-button size="small" @click="tour">Take the tour</el-button>
      <NuxtLink to="/words" class="button small quiet" @click="keysOpen = false">What the words mean</NuxtLink>
    </p>
    <table class="data">
      <tbody>
        <tr v-for="row in rows" :key="row.key">
          <td>
            <kbd class="mono">{{ row.key }}</kbd>
          </td>
          <td>{{ row.what }}</td>
        </tr>
        <tr>
          <td><kbd class="mono">Esc</kbd></td>
          <td>Close, or give up what a field cannot read</td>
        </tr>
      </tbody>
    </table>
  </el-dialog>
</template>

<style scoped>
kbd {
  border: 1px solid var(--line-strong);
  border-radius: 4px;
  padding: 1px 7px;
  background: var(--sheet-soft);
}
</style>
