<script setup lang="ts">
import { hoursOnOf } from '#core/day'
import { maintenanceTasks } from '#core/print'
import type { Job } from '#core/document'
import { jobSchema } from '#core/document'

definePageMeta({ station: 'verdict' })

const { plan, report, put } = useJob('verdict')
const { show } = useUnits()
const today = new Date().toISOString().slice(0, 10)
const from = computed(() => plan.value.job.maintenanceFrom ?? today)
const tasks = computed(() => maintenanceTasks(plan.value, report.value, from.value))
const fields: Field<keyof Job>[] = [
  { key: 'bladesDays', label: 'Cleanings, days', quantity: 'number', placeholder: '180' },
  { key: 'filterDays', label: 'Filter changes, days', quantity: 'number', placeholder: '90' },
  { key: 'tariff', label: 'Price of a kWh', quantity: 'money' },
]
const fromId = useId()
const every = (days: number) =>
  days >= 365
    ? `every ${Number((days / 365).toPrecision(2))} years`
    : days >= 60
      ? `every ${Math.round(days / 30)} months`
      : `every ${days} days`
const words = (key: string, days: number) => (key === 'tight' ? 'once' : every(days))
const hours = computed(() => hoursOnOf(report.value.day, plan.value))
const energy = computed(() => {
  const watts = report.value.selection?.candidate.powerW
  if (!watts) return null
  const { day } = report.value
  const perDay =
    day && plan.value.controls.length ? day.usual.energyJ : watts * plan.value.job.hoursPerDay * 3600
  const perYear = perDay * 365
  return { perYear, money: plan.value.job.tariff === null ? null : (perYear / 3.6e6) * plan.value.job.tariff }
})
</script>

<template>
  <div class="stack">
    <VerdictTabs />
    <section class="sheet stack">
      <div class="sheet-head">
        <h2>What keeps it so</h2>
        <a class="button small" :href="`/api/jobs/${plan.job.id}/care.ics`" download>Calendar file</a>
      </div>
      <div class="fields tight">
        <div class="field">
          <label :for="fromId">Counted from</label>
          <input
            :id="fromId"
            class="text-input"
            type="date"
            :value="from"
            @change="put('maintenanceFrom', ($event.target as HTMLInputElement).value || null)"
          />
        </div>
        <FieldGrid
          class="inline"
          tight
          :record="plan.job"
          :fields="fields"
          :shape="jobSchema.shape"
          @set="put"
        />
      </div>
      <table class="data">
        <thead>
          <tr>
            <th>First due</th>
            <th>What</th>
            <th>How often</th>
            <th>Why</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="t in tasks" :key="t.key">
            <td class="mono due">
              {{ t.due }}
            </td>
            <td>{{ t.title }}</td>
            <td>{{ words(t.key, t.everyDays) }}</td>
            <td class="soft">
              {{ t.why }}
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="energy" class="small soft">
        It takes about {{ Number((energy.perYear / 3.6e6).toPrecision(2)) }} kWh a year at
        {{ Number(hours.toPrecision(2)) }} h a day<template v-if="energy.money !== null">
          , {{ show(energy.money, 'money') }} </template
        >. Intervals are common practice; the air of a dusty shed asks for shorter ones.
      </p>
    </section>
  </div>
</template>

<style scoped>
.due {
  white-space: nowrap;
}
.inline {
  grid-column: span 3;
}
@media (max-width: 600px) {
  .due {
    white-space: nowrap;
  }
  .inline {
    grid-column: auto;
  }
}
</style>
