<script setup lang="ts">
import { compareRuns } from '#core/verification'
import { runStates, streamNames, usualPair, type Run } from '#core/document'

definePageMeta({ station: 'verdict' })

/** Any runs against any others. */
const { plan } = useJob('verdict')
const states = computed(() => runStates(plan.value.runs))
const pair = usualPair(states.value)
const before = ref<string[]>(pair.before?.runs.map((r) => r.id) ?? [])
const after = ref<string[]>(pair.after?.runs.map((r) => r.id) ?? [])
const runsOf = (ids: string[]): Run[] =>
  plan.value.runs.filter((r) => ids.includes(r.id)).toSorted((a, b) => a.takenAt.localeCompare(b.takenAt))
const both = computed(() => before.value.some((id) => after.value.includes(id)))
const comparison = computed(() => {
  const [b, a] = [runsOf(before.value), runsOf(after.value)]
  return b.length && a.length && !both.value
    ? compareRuns(b, a, plan.value.job.goal === 'quieten', streamNames(plan.value))
    : null
})
const voltageWasTheChange = useVoltageChange()
function toggle(list: typeof before, id: string) {
  list.value = list.value.includes(id) ? list.value.filter((x) => x !== id) : [...list.value, id]
}
const sides = [
  { list: before, title: 'before' },
  { list: after, title: 'after' },
]
const date = (iso: string) => new Date(iso).toLocaleDateString(undefined, { dateStyle: 'medium' })
</script>

<template>
  <div class="stack">
    <VerdictTabs />
    <div class="layout">
      <section class="sheet stack">
        <h2>Which runs</h2>
        <p v-if="states.length === 0" class="soft">
          No run yet: the <NuxtLink :to="`/job/${plan.job.id}/log`"> Log </NuxtLink> takes them.
        </p>
        <table v-else class="data">
          <thead>
            <tr>
              <th>Run</th>
              <th v-for="s in sides" :key="s.title">
                {{ s.title }}
              </th>
            </tr>
          </thead>
          <tbody>
            <template v-for="state in states" :key="state.key">
              <tr v-for="run in state.runs" :key="run.id">
                <td>
                  {{ run.name }}<span class="small soft block">{{ state.name }}, {{ date(run.takenAt) }}</span>
                </td>
                <td v-for="s in sides" :key="s.title">
                  <el-checkbox
                    class="tick"
                    :aria-label="`${run.name} counts as ${s.title}`"
                    :model-value="s.list.value.includes(run.id)"
                    @change="toggle(s.list, run.id)"
                  ></el-checkbox>
                </td>
              </tr>
            </template>
          </tbody>
        </table>
        <p class="small soft">
          Several runs on a side are replicates: their scatter gives the interval. Pairs taken within the hour
          are compared pair by pair.
        </p>
      </section>
      <section class="sheet stack">
        <h2>Against each other</h2>
        <p v-if="both" class="bad" role="alert">A run cannot stand on both sides.</p>
        <p v-else-if="!comparison" class="soft">Tick at least one run on each side.</p>
        <p v-else-if="!comparison.comparisons.length" class="soft">
          These runs share no reading of the same kind at the same place.
        </p>
        <ComparisonPanel
          v-else
          :comparison="comparison"
          before-name="before"
          after-name="after"
          @voltage-changed="voltageWasTheChange(after)"
        />
      </section>
    </div>
  </div>
</template>

<style scoped>
.layout {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.6fr);
  gap: 12px;
  align-items: start;
}
.block {
  display: block;
}
.tick {
  display: inline-flex;
  min-width: 28px;
  min-height: 28px;
  align-items: center;
  position: relative;
}
.bad {
  color: var(--stop);
  font-weight: 600;
}
@media (max-width: 900px) {
  .layout {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
