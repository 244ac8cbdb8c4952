<script setup lang="ts">
import { subjectKey, type Finding } from '#core/rules'

/** A finding may stand if one says why; the reason is kept with the job, printed in its report, and can be taken back. */
const props = defineProps<{ finding: Finding }>()
const job = useJobStore()
const open = ref(false)
const reason = ref('')
const error = ref('')
const id = useId()
const field = useTemplateRef('field')
async function begin() {
  open.value = true
  await nextTick()
  field.value?.focus()
}
function take() {
  if (!reason.value.trim()) {
    error.value = 'Say why it may stand.'
    return
  }
  const { finding } = props
  const subject = subjectKey(finding)
  job.removeWithUndo('Put aside as known.', (d) => {
    d.job.known = [
      ...d.job.known.filter((k) => k.rule !== finding.id || k.subject !== subject),
      { rule: finding.id, subject, reason: reason.value.trim() },
    ]
  })
  landIn('.findings')
}
</script>

<template>
  <el-button v-if="!open" size="small" text @click="begin">Known, because …</el-button>
  <form v-else class="known" @submit.prevent="take" @keydown.esc.stop="open = false">
    <FieldShell :id="id" v-slot="{ describedBy }" label="Known, because" :error="error">
      <el-input
        :id="id"
        ref="field"
        v-model="reason"
        maxlength="120"
        placeholder="it stands on a damped shelf"
        :aria-invalid="error ? 'true' : undefined"
        :aria-describedby="describedBy"
        @input="error = ''"
      />
    </FieldShell>
    <el-button size="small" native-type="submit">Put aside</el-button>
  </form>
</template>

<style scoped>
.known {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px;
  align-items: end;
  width: 100%;
}
</style>
