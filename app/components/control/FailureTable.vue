<script setup lang="ts">
import type { Failure } from '#core/day'

/** What this control really does when one of its parts fails. */
defineProps<{ failures: Failure[] }>()
const partNames = {
  sensor: 'Sensor',
  controller: 'Controller',
  fan: 'Fan',
  supply: 'Supply',
  host: 'Host asleep',
}
</script>

<template>
  <table class="data failures">
    <thead>
      <tr>
        <th>If it fails</th>
        <th>what happens</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="f in failures" :key="f.part">
        <td>
          <StateMark :state="f.safe === true ? 'settled' : f.safe === false ? 'fix' : 'not-begun'" />
          {{ partNames[f.part] }}
          <span class="visually-hidden">{{
            f.safe === true ? 'safe' : f.safe === false ? 'not safe' : 'not known'
          }}</span>
        </td>
        <td class="small">
          {{ f.happens }} <span v-if="f.remedy" class="soft">{{ f.remedy }}</span>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.failures td {
  vertical-align: top;
  padding: 4px 6px;
}
.failures td:first-child {
  white-space: nowrap;
}
</style>
