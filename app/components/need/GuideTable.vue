<script setup lang="ts">
/** Ranges that are usual, each with a button that takes its middle. */
defineProps<{
  title: string
  /** on the button that opens it */
  label: string
  rows: { name: string; low: number; high: number }[]
  unit: string
  what: string
}>()
const emit = defineEmits<{ use: [value: number, working: string] }>()
/** The middle, as round as such a guide is: steps of 0.05 below 1, two digits above. */
const middle = ({ low, high }: { low: number; high: number }) => {
  const mean = (low + high) / 2
  return mean < 1 ? Math.round(20 * mean) / 20 : Number(mean.toPrecision(2))
}
const drawer = ref<{ close: () => void }>()
function use(row: { name: string; low: number; high: number }) {
  emit('use', middle(row), `usual: ${row.name}, ${row.low} to ${row.high}`)
  drawer.value?.close()
}
</script>

<template>
  <HelperDrawer ref="drawer" :title="title" :label="label">
    <table class="data">
      <tbody>
        <tr v-for="row in rows" :key="row.name">
          <td>{{ row.name }}</td>
          <td class="num">{{ row.low === row.high ? row.low : `${row.low} to ${row.high}` }} {{ unit }}</td>
          <td>
            <el-button
              size="small"
              :aria-label="`Use ${middle(row)} ${what} for: ${row.name}`"
              @click="use(row)"
            >
              Use {{ middle(row) }}
            </el-button>
          </td>
        </tr>
      </tbody>
    </table>
  </HelperDrawer>
</template>
