<script setup lang="ts">
const job = useJobStore()
const words = {
  saved: 'saved',
  saving: 'saving',
  unsaved: 'unsaved',
  failed: 'not saved',
  conflict: 'changed elsewhere',
}
</script>

<template>
  <span class="badge">
    <span class="tag state" :class="job.saveState" role="status" aria-live="polite">{{
      words[job.saveState]
    }}</span>
    <span v-if="job.saveState === 'unsaved'" class="small"
      >Server not reached. What you type is kept and saved when it is back.</span
    >
    <template v-else-if="job.saveState === 'failed'">
      <span class="small">{{ job.saveMessage }}</span>
      <el-button size="small" @click="job.retry">Try again</el-button>
    </template>
    <template v-else-if="job.saveState === 'conflict'">
      <el-button size="small" @click="job.resolveConflict('mine')">Keep mine</el-button>
      <el-button size="small" @click="job.resolveConflict('theirs')">Take the other</el-button>
    </template>
  </span>
</template>

<style scoped>
.badge {
  display: inline-flex;
  align-items: center;
  gap: 8px;
  flex-wrap: wrap;
}
.state {
  color: var(--ink-soft);
}
.state.unsaved,
.state.failed,
.state.conflict {
  color: var(--stop);
  border-color: var(--stop);
  font-weight: 600;
}
</style>
