<script setup lang="ts">
/** Ranges that are usual, each with a button that takes its middle. */
defineProps<{
  title: string
  rows: { name: string; low: number; high: number }[]
  unit: string
  what: string
}>()
const emit = defineEmits<{ use: [value: number] }>()
</script>

<template>
  <FoldBox>
    <template #title>{{ title }}</template>
    <table class="data">
      <tbody>
        <tr v-for="row in rows" :key="row.name">
          <td>{{ row.name }}</td>
          <td class="num">{{ row.low === row.high ? row.low : `${row.low} to ${row.high}` }} {{ unit }}</td>
          <td>
            <el-button
              size="small"
              :aria-label="`Use ${(row.low + row.high) / 2} ${what} for: ${row.name}`"
              @click="emit('use', (row.low + row.high) / 2)"
            >
              Use {{ (row.low + row.high) / 2 }}
            </el-button>
          </td>
        </tr>
      </tbody>
    </table>
  </FoldBox>
</template>
