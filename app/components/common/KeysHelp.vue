<script setup lang="ts">
import { globalKeys, keysOpen, pageKeys } from '~/composables/useKeys'

const rows = computed(() => [...pageKeys.value, ...globalKeys])
</script>

<template>
  <el-dialog v-model="keysOpen" title="Keys" width="min(420px, calc(100vw - 24px))" append-to-body>
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
