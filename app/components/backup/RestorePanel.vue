<script setup lang="ts">
import type { UploadFile } from 'element-plus'
import { backupKinds, type BackupItem, type BackupKind, type ConflictChoice } from '#shared/schemas/backup'

/** A backup comes in: what it would do is seen and decided before anything is written. */
const props = defineProps<{ restore: ReturnType<typeof useRestore> }>()
const { preview, name, doing, problem, done, conflicts, wanted, progress } = props.restore

const kinds: Record<BackupKind, [one: string, many: string]> = {
  job: ['job', 'jobs'],
  fan: ['fan', 'fans'],
  part: ['part', 'parts'],
  log: ['log', 'logs'],
  picture: ['picture', 'pictures'],
  instrument: ['instrument', 'instruments'],
  settings: ['settings', 'settings'],
}
const counted = (state: BackupItem['state']) =>
  backupKinds
    .map((kind) => ({ kind, n: preview.value!.counts[kind][state] }))
    .filter(({ n }) => n > 0)
    .map(({ kind, n }) => `${n} ${kinds[kind][n === 1 ? 0 : 1]}`)
    .join(', ') || 'nothing'
const fresh = computed(() => preview.value?.items.filter((i) => i.state === 'new') ?? [])
const optionsOf = (item: BackupItem): { value: ConflictChoice; label: string }[] => [
  { value: 'keep', label: 'Keep mine' },
  { value: 'take', label: 'Take it' },
  ...(item.kind === 'job' ? [{ value: 'both' as const, label: 'Both' }] : []),
]
const moment = (iso: string) => new Date(iso).toLocaleString()
const made = computed(() => (preview.value ? moment(preview.value.made) : ''))
const differenceOf = ({ changed, detail }: BackupItem) =>
  changed ? `changed here ${moment(changed.here)}, in the backup ${moment(changed.there)}` : detail
const far = computed(() => {
  const { done: n = 0, of = 0 } = progress.value ?? {}
  return of ? Math.min(100, Math.round((100 * n) / of)) : 0
})
const chosen = (file: UploadFile) => file.raw && void props.restore.open(file.raw)
</script>

<template>
  <section class="sheet stack" aria-labelledby="restore-title">
    <h2 id="restore-title">Restore</h2>
    <p class="soft small">
      Choose a backup, of this workshop or another, or a job that somebody sent you. You see what it would do
      before anything is written.
    </p>
    <el-upload
      v-if="!preview"
      class="drop"
      drag
      accept=".zip,application/zip"
      :auto-upload="false"
      :show-file-list="false"
      :disabled="doing !== ''"
      aria-label="Choose a backup file"
      :on-change="chosen"
    >
      <p><strong>Choose a backup file</strong> or drop it here</p>
      <p class="soft small">a zip file that Redpoll wrote</p>
    </el-upload>
    <p v-if="doing" role="status">{{ doing }} …</p>
    <div v-if="progress && progress.doing !== 'stopped'" class="row">
      <el-progress v-if="progress.of" class="far" :percentage="far" :aria-label="`${far} % restored`" />
      <span class="soft small">{{ progress.done }}{{ progress.of ? ` of ${progress.of}` : '' }} done</span>
      <el-button v-if="progress.doing === 'writing'" size="small" @click="restore.stop()">Stop</el-button>
    </div>
    <el-alert v-else-if="progress && !doing" type="warning" :closable="false" role="status">
      <template #title>A restore was stopped before its end. What it has written so far stays.</template>
      <div class="row">
        <el-button size="small" type="primary" @click="restore.goOn()">Go on</el-button>
        <el-button size="small" @click="restore.stop()">Leave it as it is</el-button>
      </div>
    </el-alert>
    <el-alert v-if="problem" type="error" :closable="false" :title="problem" role="alert" />
    <el-alert v-if="done" type="success" :closable="false" role="status">
      <template #title
        >Restored from {{ name }}: {{ done.written }} written, {{ done.kept }} left as they were{{
          done.stopped ? ', then stopped' : ''
        }}.</template
      >
      <p v-for="w in done.warnings" :key="w">{{ w }}</p>
    </el-alert>
    <template v-if="preview">
      <p>
        <strong>{{ name }}</strong>, {{ preview.scope === 'job' ? 'one job' : 'a whole workshop' }}, made
        {{ made }}
      </p>
      <ul class="plain">
        <li><StateMark state="settled" /> New here: {{ counted('new') }}</li>
        <li><StateMark state="not-begun" /> The same here: {{ counted('same') }}</li>
        <li v-if="conflicts.length"><StateMark state="fix" /> Different here: {{ counted('conflict') }}</li>
      </ul>
      <el-alert v-for="w in preview.warnings" :key="w" type="warning" :closable="false" :title="w" />
      <el-table v-if="conflicts.length" :data="conflicts" row-key="id" aria-label="What is different here">
        <el-table-column label="What" min-width="180">
          <template #default="{ row }">
            <strong>{{ row.name }}</strong>
            <span class="soft small">{{ kinds[row.kind as BackupKind][0] }}</span>
          </template>
        </el-table-column>
        <el-table-column label="How it differs" min-width="220">
          <template #default="{ row }">{{ differenceOf(row as BackupItem) }}</template>
        </el-table-column>
        <el-table-column label="What to do" width="270">
          <template #default="{ row }">
            <SegmentChoice
              :label="`What to do with ${row.name}`"
              :options="optionsOf(row as BackupItem)"
              :model-value="restore.choiceOf(row as BackupItem)"
              @update:model-value="restore.choose(row as BackupItem, $event)"
            />
          </template>
        </el-table-column>
      </el-table>
      <el-collapse v-if="fresh.length">
        <el-collapse-item :title="`What is new (${fresh.length + preview.more})`" name="new">
          <ul class="names small">
            <li v-for="item in fresh" :key="`${item.kind}/${item.id}`">
              {{ item.name }}
              <span class="soft">{{ kinds[item.kind][0] }}{{ item.detail && `, ${item.detail}` }}</span>
            </li>
          </ul>
          <p v-if="preview.more" class="soft small">and {{ preview.more }} more</p>
        </el-collapse-item>
      </el-collapse>
      <div class="row">
        <el-button type="primary" :disabled="!wanted || doing !== ''" @click="restore.write()">
          {{ wanted ? (wanted === 1 ? 'Write 1 thing' : `Write ${wanted} things`) : 'Nothing to write' }}
        </el-button>
        <el-button :disabled="doing !== ''" @click="restore.giveUp()">Leave it</el-button>
        <span class="soft small">Each thing is written whole or not at all; others can work on meanwhile.</span>
      </div>
    </template>
  </section>
</template>

<style scoped>
.far {
  flex: 1;
}
.plain,
.names {
  margin: 0;
  padding: 0;
  list-style: none;
}
.plain li {
  display: flex;
  gap: 8px;
  align-items: center;
}
.names {
  columns: 260px auto;
}
</style>
