<script setup lang="ts">
import { careStart, careTasks, driftReport, type CareTask } from '#core/care'
import { hoursOnOf } from '#core/day'
import { jobSchema, type Job } from '#core/document'

definePageMeta({ station: 'build' })

const { plan, report, put } = useJob('build')
const { show } = useUnits()
const book = useLogBook()
const today = new Date().toISOString().slice(0, 10)
const from = computed(() => careStart(plan.value, today))
const tasks = computed(() => careTasks(plan.value, report.value, from.value))
const drift = computed(() => driftReport(plan.value))
const fields: Field<keyof Job>[] = [
  { key: 'bladesDays', label: 'Cleanings, days', quantity: 'number', placeholder: 'as below' },
  { key: 'filterDays', label: 'Filter, days', quantity: 'number', placeholder: 'as below' },
  { key: 'tariff', label: 'Price of a kWh', quantity: 'money' },
]
const dusts: { value: Job['airDust']; label: string }[] = [
  { value: null, label: 'not said' },
  { value: 'clean', label: 'clean' },
  { value: 'usual', label: 'a room that is lived in' },
  { value: 'dusty', label: 'dusty: floor, pets, workshop' },
]
const every = (days: number) =>
  days >= 365
    ? `every ${days === 365 ? 'year' : `${Number((days / 365).toPrecision(2))} years`}`
    : days >= 60
      ? `every ${Math.round(days / 30)} months`
      : `every ${days} days`
const often = ({ everyDays, seasons }: CareTask) =>
  seasons.length ? 'spring, autumn' : everyDays === null ? 'once' : every(everyDays)
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
const percent = (x: number) => `${x > 0 ? '+' : '−'}${Math.abs(Math.round(100 * x))} %`
const done = (t: CareTask) => book.add({ kind: 'care', what: t.title, careKey: t.key })
</script>

<template>
  <div class="stack">
    <BuildTabs />
    <section class="sheet stack">
      <div class="sheet-head">
        <h2>What keeps it so</h2>
        <a class="button small" :href="`/api/jobs/${plan.job.id}/care.ics`" download>Calendar file</a>
      </div>
      <div class="fields tight">
        <ChoiceField
          :model-value="plan.job.airDust"
          label="Air that it draws in"
          :options="dusts"
          @update:model-value="put('airDust', $event, 'Air that it draws in')"
        />
        <DayField
          :model-value="plan.job.maintenanceFrom ?? from"
          label="Counted from"
          @update:model-value="put('maintenanceFrom', $event, 'Counted from')"
        />
        <FieldGrid
          class="inline"
          tight
          :record="plan.job"
          :fields="fields"
          :shape="jobSchema.shape"
          @set="put"
        />
      </div>
      <div class="scroll-x" tabindex="0" role="region" aria-label="What is due">
        <table class="data">
          <thead>
            <tr>
              <th>Due</th>
              <th>What</th>
              <th>How often</th>
              <th>How, and why so often</th>
              <th><span class="visually-hidden">Done</span></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="t in tasks" :key="t.key">
              <td class="mono due">
                <StateMark v-if="t.due && t.due < today" state="fix" />
                {{ t.due }}
                <span v-if="t.last" class="small soft block">done {{ t.last }}</span>
              </td>
              <td>{{ t.title }}</td>
              <td>{{ often(t) }}</td>
              <td class="small">
                {{ t.how }} <span class="soft">{{ t.why }}.</span>
              </td>
              <td>
                <el-button v-if="t.due" size="small" @click="done(t)"
                  >Done<span class="visually-hidden">: {{ t.title }}</span></el-button
                >
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="small soft">
        <template v-if="energy"
          >It takes about {{ Number((energy.perYear / 3.6e6).toPrecision(2)) }} kWh a year at
          {{ Number(hours.toPrecision(2)) }} h a day<template v-if="energy.money !== null"
            >, {{ show(energy.money, 'money') }}</template
          >.
        </template>
        Intervals are common practice. What is done stands in the log book, and is counted from then.
      </p>
    </section>
    <section class="sheet stack">
      <h2>Drift since the build</h2>
      <p v-if="!drift.first" class="soft">
        Nothing to hold it against yet: log a run right after the change, then one like it after a month.
      </p>
      <p v-else-if="!drift.latest" class="soft">
        Held against “{{ drift.first.name }}” of {{ drift.first.takenAt.slice(0, 10) }}, once a second run of
        the same state is logged: same places, load, voltage and distance.
      </p>
      <template v-else>
        <p class="small soft">
          {{ drift.latest.takenAt.slice(0, 10) }} against {{ drift.first.takenAt.slice(0, 10) }}, the first run
          after the last change.
        </p>
        <div v-if="drift.rows.length" class="scroll-x" tabindex="0" role="region" aria-label="What drifted">
          <table class="data">
            <thead>
              <tr>
                <th>What</th>
                <th>Where</th>
                <th class="num">at first</th>
                <th class="num">now</th>
                <th class="num">change</th>
                <th class="num">looked at from</th>
                <th>What it means</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="r in drift.rows" :key="`${r.kind} ${r.place}`">
                <td><StateMark :state="r.state === 'drifted' ? 'fix' : 'settled'" /> {{ r.name }}</td>
                <td>{{ r.place }}</td>
                <td class="num">{{ show(r.before, r.quantity) }}</td>
                <td class="num">{{ show(r.after, r.quantity) }}</td>
                <td class="num">
                  {{ r.kind === 'level' ? show(r.change, 'levelDifference') : percent(r.change) }}
                </td>
                <td class="num">
                  {{ r.kind === 'level' ? show(r.limit, 'levelDifference') : percent(r.limit) }}
                </td>
                <td class="small">{{ r.means || 'as it was' }}</td>
              </tr>
            </tbody>
          </table>
        </div>
        <ul v-if="drift.unlike.length" class="small">
          <li v-for="u in drift.unlike" :key="u">Not compared. {{ u }}</li>
        </ul>
      </template>
    </section>
  </div>
</template>

<style scoped>
.due {
  white-space: nowrap;
}
.block {
  display: block;
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
