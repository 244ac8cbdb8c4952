<script setup lang="ts">
import { replacementNotes } from '#core/selection'

/** Quieten what is there: what to mind when the picked fan takes the old one's place. */
const job = useJobStore()
const shelf = useShelfStore()
const { say } = useUnits()
const of = (id: string | null | undefined) => shelf.known.find((f) => f.id === id) ?? null
const old = computed(() => of(job.plan?.job.existingFanId))
const next = computed(() => of(job.report?.selection?.fanArray.model.fan.id))
const notes = computed(() => {
  const candidate = job.report?.selection?.candidate
  return job.plan && old.value && next.value && candidate
    ? replacementNotes(
        job.plan.job,
        old.value,
        job.plan.job.existingV ?? old.value.ratedV,
        next.value,
        candidate,
      )
    : []
})
</script>

<template>
  <section v-if="notes.length" class="sheet stack">
    <h2>{{ old!.model }} out, {{ next!.model }} in</h2>
    <ul>
      <li v-for="(n, i) in notes" :key="i">
        <StateMark :state="n.severity" /> <span>{{ say(n.text) }}.</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
  font-size: 14px;
}
li {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
</style>
