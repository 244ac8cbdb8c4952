<script setup lang="ts">
import type { Improvement } from '#core/advice'
import { wholePlan } from '#core/document'
import type { Quantity } from '#core/units'
import type { StoredPlan } from '#shared/api'

/** What would have to change: every lever with its effect on the whole plan. */
const job = useJobStore()
const { bare, show, inUnits } = useUnits()
const beside = useImprovements()
const all = ref(false)
/** the picked fan gives less than is wanted */
const short = computed(() => {
  const { selection, need } = job.report ?? {}
  return selection && need?.wanted ? (selection.served.value ?? 0) < need.wanted : false
})
const SHORT = 5
const improvements = computed(() => beside.value.improvements ?? [])
const shown = computed(() => (all.value ? improvements.value : improvements.value.slice(0, SHORT)))
const groups = { path: 'air path', drive: 'drive', fans: 'fans', need: 'asks for less' }
/** Below these changes nobody would notice: share of airflow or need, dB, K, money. */
const HARDLY = { share: 0.005, level: 0.5, kelvin: 0.2, money: 0.01 }
const now = computed(() => {
  const { selection, need } = job.report!
  return {
    flow: selection?.served.value ?? null,
    need: need.wanted,
    level: selection?.candidate.level?.value ?? null,
    insideC: need.extras.find((f) => f.key === 'need.part' || f.key === 'need.inside')?.value ?? null,
    cost: selection?.candidate.cost ?? null,
  }
})
/** What a change does: before and after, of what it changes. */
function effectOf(i: Improvement): string {
  const was = now.value
  const share = (a: number | null, b: number | null) => a && b !== null && Math.abs(b / a - 1) > HARDLY.share
  const apart = (a: number | null, b: number | null, least: number) =>
    a !== null && b !== null && Math.abs(b - a) > least
  const step = (name: string, a: number | null, b: number | null, quantity: Quantity) =>
    `${name}${a === null ? '' : `${bare(a, quantity)} → `}${show(b, quantity)}`
  return (
    [
      share(was.flow, i.flow) ? step('air ', was.flow, i.flow, 'flow') : '',
      share(was.need, i.need) ? step('need ', was.need, i.need, 'flow') : '',
      apart(was.insideC, i.insideC, HARDLY.kelvin) ? step('', was.insideC, i.insideC, 'temperature') : '',
      apart(was.level, i.level, HARDLY.level) ? step('', was.level, i.level, 'level') : '',
      apart(was.cost, i.cost, HARDLY.money) ? step('', was.cost, i.cost, 'money') : '',
    ]
      .filter(Boolean)
      .join(' · ') || 'as it is'
  )
}

function attempt(improvement: Improvement) {
  job.replace(improvement.plan)
  useToast().show(`Tried: ${improvement.label}.`, { action: { label: 'Undo', run: job.undo } })
}
const saving = ref('')
async function keep(improvement: Improvement) {
  saving.value = improvement.key
  const name = `${job.plan!.job.name}: ${improvement.label}`.slice(0, 120)
  const result = await api<StoredPlan>(`jobs/${job.plan!.job.id}/variants`, {
    method: 'POST',
    body: { name, plan: wholePlan(toRaw(improvement.plan)) },
  })
  saving.value = ''
  if (!result.ok) return useToast().show(result.message, { tone: 'bad' })
  variantsChanged.value++
  useToast().show(`Kept as a variant: ${name}.`)
}
</script>

<template>
  <section class="sheet">
    <div class="sheet-head">
      <h2>What would change it</h2>
      <span v-if="beside.improvements === null" class="small soft">computing…</span>
    </div>
    <p v-if="!job.report?.selection" class="soft small">
      Pick a fan: then every lever is computed on the whole plan.
    </p>
    <p v-else-if="beside.improvements && !improvements.length" class="soft small">
      {{
        short
          ? 'No single change brings a quarter of what lacks: choose a stronger fan in the table, or combine several.'
          : 'No single change of path, drive, fans or wishes is worth a line.'
      }}
    </p>
    <ul v-else class="levers">
      <li v-for="improvement in shown" :key="improvement.key">
        <StateMark :state="improvement.meets ? 'settled' : 'fix'" />
        <span
          ><strong>{{ inUnits(improvement.label) }}</strong
          ><span class="small soft"> · {{ groups[improvement.group] }}</span></span
        >
        <span class="mono small effect">{{ effectOf(improvement) }}</span>
        <span class="row buttons">
          <el-button size="small" :aria-label="`Try: ${improvement.label}`" @click="attempt(improvement)">
            Try
          </el-button>
          <el-button
            size="small"
            text
            :disabled="saving !== ''"
            :aria-label="`Keep as a variant: ${improvement.label}`"
            @click="keep(improvement)"
          >
            Keep beside
          </el-button>
        </span>
      </li>
    </ul>
    <el-button v-if="improvements.length > SHORT" size="small" text @click="all = !all">
      {{ all ? 'Only the strongest' : `All ${improvements.length} levers` }}
    </el-button>
  </section>
</template>

<style scoped>
.levers {
  list-style: none;
  margin: 0;
  padding: 0;
}
.levers li {
  display: grid;
  grid-template-columns: 18px minmax(0, 1fr) auto;
  gap: 0 8px;
  align-items: center;
  padding: 4px 0;
  border-bottom: 1px solid var(--line);
  font-size: 14px;
  line-height: 1.3;
}
.effect {
  color: var(--ink-soft);
  grid-row: 2;
  grid-column: 2;
}
.levers .buttons {
  grid-row: 1 / span 2;
  grid-column: 3;
}
.buttons {
  gap: 2px;
  flex-wrap: nowrap;
}
</style>
