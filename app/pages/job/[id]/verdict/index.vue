<script setup lang="ts">
import { calibratedBy, predictionsOf, worseOf } from '#core/advice'
import { wholePlan } from '#core/document'
import type { StoredPlan } from '#shared/api'

definePageMeta({ station: 'verdict' })

const { plan, report, findings } = useJob('verdict')
const { show, bare } = useUnits()
const toast = useToast()
const verdict = computed(() => report.value.verdict)
const predicted = computed(() => predictionsOf(report.value))
const headline = computed(() => {
  const { targets, after } = verdict.value
  if (!targets.length) return 'No target with a number yet: the Need station takes them.'
  if (!after) return 'Waiting for a run after the change.'
  const met = targets.filter((t) => t.verdict === 'met')
  const missed = targets.filter((t) => t.verdict === 'not-met').length
  if (missed) return `${missed} of ${targets.length} targets are not met yet.`
  if (!met.length) return 'It cannot be told yet: no target could be judged by what was measured.'
  if (met.length < targets.length)
    return `${met.length} of ${targets.length} targets are met; the others cannot be told.`
  return met.some((t) => t.looks.length)
    ? 'It looks as if it worked: what was not noted would make it sure.'
    : 'It worked: every target is met.'
})
const calibration = computed(() =>
  verdict.value.after ? calibratedBy(plan.value, verdict.value.after, newId('calibration')) : null,
)
const voltageWasTheChange = useVoltageChange()
/** What the list of unfair conditions says is not said again by its rule. */
const FAIRNESS = new Set([
  'meas-voltage-differs',
  'meas-soak-differs',
  'meas-load-differs',
  'meas-distance-differs',
  'meas-lid-differs',
  'meas-two-changes',
  'meas-opening-differs',
])
const toldBesides = computed(() =>
  findings.value.filter((f) => !verdict.value.comparisons.length || !FAIRNESS.has(f.id)),
)
const worse = computed(() => worseOf(report.value))
const busy = ref(false)
/** The measured flow scales the path, in a variant beside the plan. */
async function correctPath() {
  if (!calibration.value) return
  busy.value = true
  const result = await api<StoredPlan>(`jobs/${plan.value.job.id}/variants`, {
    method: 'POST',
    body: { name: `${plan.value.job.name}, path as measured`, plan: wholePlan(calibration.value) },
  })
  busy.value = false
  if (!result.ok) return toast.show(result.message, { tone: 'bad' })
  const { id, name } = result.data.plan.job
  toast.show(`“${name}” is kept: its path gives the flow that was measured.`, {
    action: { label: 'Open it', run: () => navigateTo(`/job/${id}/air-path`) },
  })
}
const improvements = useImprovements()
const best = computed(() =>
  (improvements.value.improvements ?? []).filter((l) => l.gain > 0 || l.meets).slice(0, 3),
)
</script>

<template>
  <div class="stack">
    <VerdictTabs />
    <div class="two">
      <div class="stack">
        <section class="sheet stack">
          <h2>Did it work?</h2>
          <p class="headline">
            {{ headline }}
          </p>
          <p v-for="w in worse" :key="w.place + w.quantity" class="row">
            <StateMark state="fix" />
            {{ show(w.by, w.quantity) }} {{ w.quantity === 'levelDifference' ? 'louder' : 'warmer' }} at
            {{ w.place || 'the probe' }} than before.
          </p>
          <TargetVerdicts v-if="verdict.targets.length" :targets="verdict.targets" />
          <NuxtLink v-if="!plan.targets.length" :to="`/job/${plan.job.id}/need`"> Write a target </NuxtLink>
          <NuxtLink v-else-if="!verdict.after" :to="`/job/${plan.job.id}/log`"> Log a run </NuxtLink>
        </section>
        <section v-if="predicted.length" class="sheet stack">
          <h2>Prediction against measurement</h2>
          <div class="scroll-x" tabindex="0" role="region" aria-label="Prediction against measurement">
            <table class="data blocks">
              <thead>
                <tr>
                  <th>Quantity</th>
                  <th class="num">predicted</th>
                  <th class="num">measured</th>
                  <th>what it teaches</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="row in predicted" :key="row.label">
                  <td class="wide">{{ row.label }}</td>
                  <td class="num" data-label="predicted">
                    {{ row.estimated ? '~' : '' }}{{ show(row.predicted, row.quantity) }}
                    <span v-if="row.low !== null" class="small soft block"
                      >{{ bare(row.low, row.quantity) }} to {{ bare(row.high, row.quantity) }}</span
                    >
                  </td>
                  <td class="num" data-label="measured">
                    {{ show(row.measured, row.quantity) }}
                  </td>
                  <td class="wide">{{ row.teaches }}</td>
                </tr>
              </tbody>
            </table>
          </div>
          <div class="row">
            <el-button size="small" :disabled="!calibration || busy" @click="correctPath">
              Scale the path to the measured flow, as a variant
            </el-button>
            <span v-if="!calibration" class="small soft"
              >It takes a flow, not read in the jet, and the fan’s voltage.</span
            >
          </div>
        </section>
      </div>
      <InTurn>
        <div class="stack">
          <section class="sheet stack">
            <h2>Before against after</h2>
            <p v-if="!verdict.beforeState || !verdict.afterState" class="soft">
              It takes a baseline and a run after the change.
            </p>
            <p v-else-if="!verdict.comparisons.length" class="soft">
              The two states share no reading of the same kind at the same place.
            </p>
            <ComparisonPanel
              v-else
              :comparison="verdict"
              before-name="before"
              after-name="after"
              @voltage-changed="voltageWasTheChange(verdict.afterState?.runs.map((r) => r.id) ?? [])"
            />
            <FindingList :findings="toldBesides" />
          </section>
          <GainPanel />
          <section
            v-if="
              best.length && verdict.targets.some((t) => t.verdict === 'not-met' || t.verdict === 'not-decided')
            "
            class="sheet stack"
          >
            <h2>What to try next</h2>
            <ul class="levers">
              <li v-for="l in best" :key="l.key">
                <span>{{ l.label }}</span>
                <span class="mono small"
                  >{{ show(l.flow, 'flow') }}{{ l.level === null ? '' : `, ${show(l.level, 'level')}` }}</span
                >
              </li>
            </ul>
            <p class="small">
              <NuxtLink :to="`/job/${plan.job.id}/line-up`">All levers on the Line-up</NuxtLink> ·
              <NuxtLink :to="`/job/${plan.job.id}/verdict/ladder`">which noise source next</NuxtLink>
            </p>
          </section>
        </div>
      </InTurn>
    </div>
  </div>
</template>

<style scoped>
.headline {
  font-size: 17px;
  font-weight: 650;
}
.block {
  display: block;
  font-family: var(--sans);
  white-space: normal;
}
.levers {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 5px;
}
.levers li {
  display: flex;
  justify-content: space-between;
  gap: 10px;
}
</style>
