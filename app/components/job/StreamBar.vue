<script setup lang="ts">
import { MOST_STREAMS } from '#core/document'

/** The air streams of a machine: which one is shown, what it is called, one more, one less. A job of one never sees it. */
const job = useJobStore()
const streams = computed(() => job.report?.streams ?? [])
const options = computed(() => streams.value.map((s) => ({ value: s.id, label: s.name, state: s.state })))
const shown = computed({
  get: () => job.plan?.stream ?? '',
  set: (id) => {
    job.chosen = id
  },
})
const { naming, addStream } = useNewStream()
const put = (name: string) =>
  job.change((d) => (d.job.streamName = name), 'job.streamName', 'Name of the stream')
function remove() {
  naming.value = false
  job.removeAirStream()
  landIn('.stream-bar')
}
</script>

<template>
  <section class="stream-bar" aria-label="Air streams of this job">
    <el-segmented v-model="shown" :options="options" aria-label="Air stream shown">
      <template #default="{ item }">
        <span class="stream"><StateMark :state="item.state" /> {{ item.label }}</span>
      </template>
    </el-segmented>
    <el-popover v-model:visible="naming" trigger="click" :width="280" placement="bottom-start">
      <template #reference>
        <el-button text size="small" :aria-expanded="naming">Name, remove</el-button>
      </template>
      <div class="stack">
        <TextField
          class="stream-name"
          label="Name of this air stream"
          :model-value="job.plan?.job.streamName ?? ''"
          placeholder="Supply fan"
          :maxlength="60"
          @update:model-value="put"
        />
        <div>
          <el-button size="small" @click="remove">Remove this stream</el-button>
        </div>
      </div>
    </el-popover>
    <el-button text size="small" :disabled="streams.length >= MOST_STREAMS" @click="addStream"
      >Add an air stream</el-button
    >
  </section>
</template>

<style scoped>
.stream-bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  min-width: 0;
}
.stream-bar > :deep(.el-segmented) {
  max-width: 100%;
}
.stream-bar :deep(.el-segmented__group) {
  flex-wrap: wrap;
}
.stream {
  display: inline-flex;
  align-items: center;
  gap: 6px;
}
</style>
