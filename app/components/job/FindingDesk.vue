<script setup lang="ts">
import { findingMessage, subjectKey, type Finding, type StationKey } from '#core/rules'
import type { Report } from '#core/plan'

/**
 * All findings as a list to work through: by station, the one with a stop first; then what was put aside as known; then
 * what could not be judged.
 */
const props = defineProps<{ report: Report; jobId: string }>()
const emit = defineEmits<{ went: [] }>()
const job = useJobStore()
const { units } = useUnits()
const grave = { stop: 0, fix: 1, note: 2 }
const gravest = (list: readonly Finding[]) => Math.min(...list.map((f) => grave[f.severity]))
const groups = computed(() => {
  const { findings } = props.report.findings
  return props.report.stations
    .map((s) => ({
      key: s.key as StationKey,
      title: s.title,
      list: findings
        .filter((f) => f.station === s.key)
        .toSorted((a, b) => grave[a.severity] - grave[b.severity]),
    }))
    .filter((g) => g.list.length)
    .toSorted((a, b) => gravest(a.list) - gravest(b.list))
})
const known = computed(() =>
  props.report.findings.known.map(({ finding, reason }) => ({
    finding,
    reason,
    text: `${finding.subject?.name ? `${finding.subject.name}: ` : ''}${findingMessage(finding, units.value)}`,
  })),
)
function judgeAgain(finding: Finding) {
  job.change((d) => {
    d.job.known = d.job.known.filter((k) => k.rule !== finding.id || k.subject !== subjectKey(finding))
  })
  landIn('.desk')
}
const numbers = computed(() => {
  const { passed, notChecked } = props.report.findings
  const open = notChecked.length
  return `${passed.length} checks passed; ${open} could not be judged${open ? ', for what is told below' : ''}.`
})
</script>

<template>
  <div class="desk stack">
    <p v-if="!groups.length" class="soft small">Nothing to fix in what has been checked.</p>
    <section v-for="g in groups" :key="g.key" :aria-label="`Findings at ${g.title}`">
      <h3>{{ g.title }}</h3>
      <FindingList :findings="g.list" @went="emit('went')" />
    </section>
    <section v-if="known.length" aria-label="Known">
      <h3>Known, and left as it is</h3>
      <ul class="known">
        <li v-for="k in known" :key="`${k.finding.id}.${k.finding.subject?.id}`">
          <StateMark :state="k.finding.severity" />
          <span
            >{{ k.text }}. <span class="soft">Known, because: {{ k.reason }}</span></span
          >
          <el-button size="small" text :aria-label="`Judge again: ${k.text}`" @click="judgeAgain(k.finding)"
            >Judge again</el-button
          >
        </li>
      </ul>
    </section>
    <p class="small soft">{{ numbers }}</p>
    <OpenFacts :evaluation="report.findings" :job-id="jobId" @went="emit('went')" />
  </div>
</template>

<style scoped>
section h3 {
  margin-bottom: 4px;
}
.known {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
.known li {
  display: grid;
  grid-template-columns: 18px minmax(0, 1fr) auto;
  gap: 6px;
  align-items: start;
  font-size: 14px;
}
</style>
