<script setup lang="ts">
import { jobSchema, type Job } from '#core/document'
import { applies, say, sayNoneElse, situations, type Situation } from '#core/safety'

/**
 * What can hurt: one tick for each situation that applies; what it asks and what to mind stand below. What nobody said of
 * stays "not known", and is told so once.
 */
const { store, plan, put } = useJob('brief')
const job = computed(() => plan.value.job)
const rows = computed(() => situations.map((s) => ({ ...s, state: applies(job.value, s) })))
const ticked = computed(() => rows.value.filter((r) => r.state === true))
const open = computed(() => rows.value.filter((r) => r.says && r.state === null).length)
const change = (s: Situation, yes: boolean) => store.change((d) => say(d.job, s, yes))

function noneElse() {
  store.change((d) => sayNoneElse(d.job))
  landIn('.ticks')
}
const asked: Partial<Record<keyof Job, Field<keyof Job>>> = {
  storedV: { key: 'storedV', label: 'Voltage stored in it', quantity: 'voltage' },
  discharged: { key: 'discharged', label: 'Discharged and measured', yesNo: true },
  earthRefitted: { key: 'earthRefitted', label: 'Earth leads refitted, measured', yesNo: true },
  adapterInWet: { key: 'adapterInWet', label: 'The adapter stands in the wet', yesNo: true },
  supplyOpening: { key: 'supplyOpening', label: 'Supply air confirmed by a fitter', yesNo: true },
  lightBaffle: { key: 'lightBaffle', label: 'Light-tight baffle at the opening', yesNo: true },
  thermalCutout: { key: 'thermalCutout', label: 'Independent thermal cut-out', yesNo: true },
  touchC: { key: 'touchC', label: 'Hottest surface in reach', quantity: 'temperature' },
}
const fieldsOf = (s: Situation) => s.asks.flatMap((k) => asked[k] ?? [])
</script>

<template>
  <div class="head">
    <h2>What can hurt</h2>
    <slot />
  </div>
  <div class="ticks" role="group" aria-label="What can hurt: tick what applies">
    <el-checkbox
      v-for="row in rows"
      :key="row.key"
      :data-field="row.says ?? row.key"
      :model-value="row.state === true"
      @change="change(row, Boolean($event))"
      >{{ row.label }}</el-checkbox
    >
  </div>
  <p v-if="open" class="small soft rest">
    <span>{{ open === 1 ? 'One is' : `${open} are` }} not known yet: checks that hang on them wait.</span>
    <el-button size="small" @click="noneElse"> None of the others applies </el-button>
  </p>
  <div v-for="row in ticked" :key="row.key" class="caution">
    <p class="small">
      <StateMark state="fix" /> <strong>{{ row.label }}.</strong> {{ row.caution }}
    </p>
    <FieldGrid
      v-if="row.asks.length"
      tight
      :record="job"
      :fields="fieldsOf(row)"
      :shape="jobSchema.shape"
      @set="put"
    />
  </div>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
}
.head :deep(.field) {
  display: flex;
  align-items: center;
  gap: 8px;
}
.head :deep(.el-select) {
  width: 170px;
}
.ticks {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0 12px;
}
.rest {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 8px;
}
.caution {
  display: grid;
  gap: 6px;
  border-left: 3px solid var(--amber-mark);
  padding-left: 10px;
}
@media (max-width: 760px) {
  .head {
    flex-wrap: wrap;
  }
  .ticks {
    grid-template-columns: 1fr;
  }
}
</style>
