<script setup lang="ts">
import { newTarget, senseOf, type Target, type TargetKind } from '#core/document'
import { targetKinds, targetName, targetNumber, targetProblem, usualStages } from '#core/document'
import { targetStart } from '#core/plan'

/** The targets that the verdict is judged by, each with what the plan predicts of it. */
const job = useJobStore()
const { show } = useUnits()
const targets = computed(() => job.plan?.targets ?? [])
/** Offered at once; the others stand in a list. */
const OFTEN: TargetKind[] = ['temperature', 'level', 'flow', 'time', 'runtime', 'money']
const rare = (Object.keys(targetKinds) as TargetKind[]).filter((k) => !OFTEN.includes(k))
const senses = [
  { value: 'least' as const, label: 'at least' },
  { value: 'most' as const, label: 'at most' },
  { value: 'between' as const, label: 'between two' },
]
const senseWords = { least: 'at least', most: 'at most', between: 'from' }
const nameOf = (t: Target) => targetName(t).toLowerCase()
const labelOf = (t: Target) => `${targetName(t)}${t.unit ? ` in ${t.unit}` : ''}, ${senseWords[senseOf(t)]}`

/** What the plan predicts of a target, in words; '' where it predicts nothing. */
function predictedWords(t: Target): string {
  const predicted = job.report?.predictions[t.id]
  if (!predicted || predicted.value === null) return ''
  const { value, low, high, chance } = predicted
  const of = (x: number) => targetNumber(t, x, show)
  const range = low !== null && high !== null && high > low ? ` (${of(low)} to ${of(high)})` : ''
  const likely = chance === null || low === high ? '' : `, met in ${chanceWords(chance)}`
  return `the plan predicts ${of(value)}${range}${likely}`
}
/** A chance as of ten cases: no finer than what is known of it. */
function chanceWords(chance: number): string {
  const tens = Math.round(chance * 10)
  return chance > 0.98
    ? 'nearly every case'
    : chance < 0.02
      ? 'hardly any case'
      : `${tens || 'less than one'} of 10 cases`
}

function add(kind: TargetKind) {
  const id = newId('target')
  job.change((d) => {
    d.targets.push(
      newTarget(
        {
          id,
          kind,
          limit: targetStart(kind, d, job.report),
          place: kind === 'temperature' && d.job.goal === 'part' ? 'part' : targetKinds[kind].place,
        },
        d.stream,
      ),
    )
  })
  landIn(kind === 'other' ? `[data-target="${id}"] .own-name` : `[data-target="${id}"] .limit`)
}
const edit = (id: string, field: keyof Target, value: Target[keyof Target]) =>
  job.change((d) => {
    const target = d.targets.find((t) => t.id === id)
    if (target) Object.assign(target, { [field]: value })
  }, `target.${id}.${field}`)
/** Two limits begin with a tenth above the one that was there, so that they are two at once. */
function setSense(t: Target, sense: Target['sense']) {
  job.change((d) => {
    const target = d.targets.find((x) => x.id === t.id)
    if (!target) return
    target.sense = sense
    target.upper =
      sense === 'between' ? (target.upper ?? target.limit + Math.max(Math.abs(target.limit) / 10, 1e-3)) : null
  })
}
/** The upper limit has to lie above the lower one: told beside the field, before anything is taken. */
const upperSchema = (t: Target) =>
  targetKinds[t.kind].limit.refine((upper) => !targetProblem({ ...t, upper: upper as number }), {
    error: 'The upper limit does not lie above the lower one: swap them.',
  })
const lowerSchema = (t: Target) =>
  t.sense === 'between'
    ? targetKinds[t.kind].limit.refine((limit) => !targetProblem({ ...t, limit: limit as number }), {
        error: 'The lower limit does not lie below the upper one: swap them.',
      })
    : targetKinds[t.kind].limit
function remove(id: string) {
  job.removeWithUndo('Target removed.', (d) => {
    d.targets = d.targets.filter((t) => t.id !== id)
  })
  landIn('.targets')
}
</script>

<template>
  <section class="sheet stack targets">
    <div class="sheet-head">
      <h2>Targets: what the verdict is judged by</h2>
      <div class="row">
        <el-button v-for="kind in OFTEN" :key="kind" size="small" @click="add(kind)">
          + {{ targetKinds[kind].name }}
        </el-button>
        <el-dropdown trigger="click" :persistent="false" @command="add">
          <el-button size="small">Another</el-button>
          <template #dropdown>
            <el-dropdown-menu>
              <el-dropdown-item v-for="kind in rare" :key="kind" :command="kind">
                {{ targetKinds[kind].name }}
              </el-dropdown-item>
            </el-dropdown-menu>
          </template>
        </el-dropdown>
      </div>
    </div>
    <p v-if="!targets.length" class="soft">
      Without a number no verdict is possible: add a temperature, a level, a flow, a time or a sum of money.
    </p>
    <div v-for="target in targets" :key="target.id" class="target" :data-target="target.id">
      <template v-if="target.kind === 'other'">
        <TextField
          class="own-name"
          label="What is counted"
          placeholder="clock rate"
          :model-value="target.name"
          @update:model-value="edit(target.id, 'name', $event)"
        />
        <TextField
          label="Its unit"
          placeholder="MHz"
          :model-value="target.unit"
          @update:model-value="edit(target.id, 'unit', $event)"
        />
        <span class="rest" />
      </template>
      <div class="limits" :class="{ two: senseOf(target) === 'between' }">
        <QuantityField
          class="limit"
          :label="labelOf(target)"
          :quantity="targetKinds[target.kind].quantity"
          required
          :schema="lowerSchema(target)"
          :model-value="target.limit"
          @update:model-value="edit(target.id, 'limit', $event!)"
        />
        <QuantityField
          v-if="senseOf(target) === 'between'"
          label="to"
          :quantity="targetKinds[target.kind].quantity"
          required
          :schema="upperSchema(target)"
          :model-value="target.upper"
          @update:model-value="edit(target.id, 'upper', $event!)"
        />
      </div>
      <TextField
        v-if="target.kind !== 'money'"
        label="Where"
        :model-value="target.place"
        @update:model-value="edit(target.id, 'place', $event)"
      />
      <span v-else />
      <TextField
        label="Set by"
        :model-value="target.setBy"
        @update:model-value="edit(target.id, 'setBy', $event)"
      />
      <TextField label="Why" :model-value="target.why" @update:model-value="edit(target.id, 'why', $event)" />
      <el-popover trigger="click" :width="220" :persistent="false">
        <template #reference>
          <el-button text class="icon" :aria-label="`More of the ${nameOf(target)} target`">…</el-button>
        </template>
        <ChoiceField
          label="Wanted"
          :options="senses"
          :model-value="senseOf(target)"
          @update:model-value="setSense(target, $event)"
        />
        <TextField
          v-if="targetKinds[target.kind].reading"
          label="Judged in stage"
          placeholder="whichever is worst"
          :suggest="usualStages"
          :model-value="target.stage"
          @update:model-value="edit(target.id, 'stage', $event)"
        />
      </el-popover>
      <el-button
        text
        class="icon"
        :aria-label="`Remove the ${nameOf(target)} target`"
        @click="remove(target.id)"
      >
        ×
      </el-button>
      <p v-if="predictedWords(target)" class="predicted small soft">{{ predictedWords(target) }}</p>
    </div>
  </section>
</template>

<style scoped>
.target {
  display: grid;
  grid-template-columns:
    minmax(142px, 1.2fr) minmax(70px, 0.8fr) minmax(62px, 0.7fr) minmax(84px, 1.3fr)
    auto auto;
  gap: 2px 8px;
  align-items: end;
}
.limits {
  display: grid;
  gap: 6px;
  align-items: end;
}
.limits.two {
  grid-template-columns: 1fr 1fr;
}
.predicted,
.rest {
  grid-column: 1 / -1;
  margin: 0;
}
.rest {
  grid-column: 3 / -1;
}
@media (max-width: 760px) {
  .target {
    grid-template-columns: 1fr 1fr;
  }
  .rest {
    display: none;
  }
}
</style>
