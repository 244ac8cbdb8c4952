<script setup lang="ts">
import type { Copies } from '#shared/schemas/backup'

/** The copies that are made by themselves. */
const emit = defineEmits<{ restore: [name: string] }>()
const copies = shallowRef<Copies | null>(null)
const problem = ref('')
function take(result: ApiResult<Copies>) {
  problem.value = result.ok ? '' : result.message
  if (result.ok) copies.value = result.data
}
take(await api<Copies>('backup/copies'))
const keep = async (n: number | undefined) =>
  n !== undefined && take(await api<Copies>('backup/copies', { method: 'PUT', body: { keep: n } }))
const size = (bytes: number) =>
  bytes < 1e6 ? `${Math.max(1, Math.round(bytes / 1e3))} kB` : `${(bytes / 1e6).toFixed(1)} MB`
</script>

<template>
  <section class="sheet stack" aria-labelledby="copies-title">
    <h2 id="copies-title">Daily copies</h2>
    <p class="soft small">
      A copy is saved on each day with changes, in the workshop’s folder “copies”. They help against a mistake,
      not against a broken disk: take a backup elsewhere now and then.
    </p>
    <FieldShell v-if="copies" id="copies-kept" label="Copies that are kept">
      <el-input-number
        id="copies-kept"
        :model-value="copies.keep"
        :min="0"
        :max="60"
        :step="1"
        step-strictly
        @change="keep"
      />
    </FieldShell>
    <el-alert
      v-if="problem || copies?.problem"
      type="error"
      :closable="false"
      :title="problem || copies!.problem"
      role="alert"
    />
    <el-alert
      v-if="copies?.proof?.problem"
      type="error"
      :closable="false"
      :title="`The copy ${copies.proof.name} cannot be read back in full: ${copies.proof.problem}`"
      role="alert"
    />
    <p v-else-if="copies?.proof" class="proof small">
      <StateMark state="settled" />
      <span>
        The copy {{ copies.proof.name }} was read back in full on {{ localTime(copies.proof.at) }}:
        {{ copies.proof.things }} things, all as they were written.
      </span>
    </p>
    <p v-if="copies && !copies.copies.length" class="soft">
      {{ copies.keep ? 'None yet: the first one is made within the hour.' : 'None are made.' }}
    </p>
    <el-table v-else-if="copies" :data="copies.copies" row-key="name" size="small" aria-label="Daily copies">
      <el-table-column label="Made" min-width="150">
        <template #default="{ row }">{{ new Date(row.made).toLocaleString() }}</template>
      </el-table-column>
      <el-table-column label="Size" width="90" align="right">
        <template #default="{ row }"
          ><span class="mono">{{ size(row.size) }}</span></template
        >
      </el-table-column>
      <el-table-column label="Do" width="190">
        <template #default="{ row }">
          <el-button text size="small" :aria-label="`Restore ${row.name}`" @click="emit('restore', row.name)"
            >Restore</el-button
          >
          <a
            class="button small quiet"
            :href="`/api/backup/copies/${row.name}`"
            :aria-label="`Download ${row.name}`"
            download
            >Download</a
          >
        </template>
      </el-table-column>
    </el-table>
  </section>
</template>

<style scoped>
.proof {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
</style>
