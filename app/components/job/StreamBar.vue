<script setup lang="ts">
import { MOST_STREAMS, streamNames, wholePlan } from '#core/document'

/** The air streams of a machine: which one is shown, its name and place, one more, one less. A job of one never sees it. */
const job = useJobStore()
const streams = computed(() => (job.plan ? wholePlan(job.plan).streams : []))
const options = computed(() => {
  const names = job.plan && streamNames(job.plan)
  return streams.value.map(({ id, job: { aside } }) => ({
    value: id,
    label: `${names?.get(id)}${aside ? ', put aside' : ''}`,
    state: job.report?.streams.find((s) => s.id === id)?.state ?? 'not-begun',
  }))
})
const at = computed(() => streams.value.findIndex((s) => s.id === shown.value))
const shown = computed({
  get: () => job.plan?.stream ?? '',
  set: (id) => {
    job.chosen = id
  },
})
const { naming, addStream } = useNewStream()
const put = (name: string) =>
  job.change((d) => (d.job.streamName = name), 'job.streamName', 'Name of the stream')
const aside = computed(() => job.plan?.job.aside === true)
/** Where another is left the shown one may be put aside. */
const mayGo = computed(() => aside.value || streams.value.some((s) => s.id !== shown.value && !s.job.aside))
const putAside = () =>
  job.change(
    (d) => {
      d.job.aside = !aside.value
    },
    '',
    aside.value ? 'air stream taken up again' : 'air stream put aside',
  )
function another() {
  naming.value = false
  job.copyAirStream()
}
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
        <el-button text size="small" :aria-expanded="naming">Name, order, remove</el-button>
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
        <div class="row">
          <el-button size="small" :disabled="at <= 0" @click="job.moveAirStream(-1)">Earlier</el-button>
          <el-button size="small" :disabled="at >= streams.length - 1" @click="job.moveAirStream(1)">
            Later
          </el-button>
          <el-button size="small" :disabled="streams.length >= MOST_STREAMS" @click="another">Copy</el-button>
          <el-button size="small" :disabled="!mayGo" @click="putAside">
            {{ aside ? 'Take it up again' : 'Put it aside' }}
          </el-button>
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
