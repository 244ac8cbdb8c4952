<script setup lang="ts">
import { facedStream, MAIN_STREAM, newTarget, targetOf, type Target, type TargetKind } from '#core/document'
import type { z } from 'zod'
import { targetStart } from '#core/plan'
import { targetNames, targetQuantity } from '#core/verification'
import { fanSchema, limits as within, targetSchema } from '#core/document'

/** The targets that the verdict is judged by. */
const job = useJobStore()
const targets = computed(() => job.plan?.targets ?? [])
const kinds: { value: TargetKind; sense: string; place: string; limit: z.ZodType }[] = [
  { value: 'temperature', sense: 'at most', place: 'inside', limit: within.temperature },
  { value: 'level', sense: 'at most', place: 'listener', limit: within.level },
  { value: 'flow', sense: 'at least', place: 'outlet', limit: within.flow },
  {
    value: 'runtime',
    sense: 'at least',
    place: 'on one charge',
    limit: targetSchema.shape.limit.min(60, 'At least a minute.'),
  },
  {
    value: 'money',
    sense: 'at most',
    place: '',
    limit: targetSchema.shape.limit.min(0, 'Cannot be negative.'),
  },
  { value: 'thickness', sense: 'at most', place: 'fan', limit: fanSchema.shape.thicknessM },
]
const kindOf = (t: Target) => kinds.find((k) => k.value === t.kind)!
/** What each air stream is judged by for itself; the others are the whole machine's. */
const ofStream = (kind: TargetKind) => kind === 'flow' || kind === 'temperature'
const free = computed(() =>
  kinds.filter(
    (k) => !(ofStream(k.value) ? targetOf(job.plan!, k.value) : targets.value.some((t) => t.kind === k.value)),
  ),
)
function add(kind: (typeof kinds)[number]) {
  const id = newId('target')
  job.change((d) => {
    d.targets.push(
      newTarget({
        id,
        kind: kind.value,
        limit: targetStart(kind.value, d, job.report),
        place: kind.value === 'temperature' && d.job.goal === 'part' ? 'part' : kind.place,
        streamId: ofStream(kind.value) && facedStream(d) !== MAIN_STREAM ? facedStream(d) : null,
      }),
    )
  })
  landIn(`[data-target="${id}"] .limit`)
}
const edit = (id: string, field: string, mutate: (t: Target) => void) =>
  job.change((d) => {
    const target = d.targets.find((t) => t.id === id)
    if (target) mutate(target)
  }, `target.${id}.${field}`)
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
        <el-button v-for="kind in free" :key="kind.value" size="small" @click="add(kind)">
          + {{ targetNames[kind.value] }}
        </el-button>
      </div>
    </div>
    <p v-if="!targets.length" class="soft">
      Without a number no verdict is possible: add a temperature, a level, a flow, a running time or a sum of
      money.
    </p>
    <div v-for="target in targets" :key="target.id" class="target" :data-target="target.id">
      <QuantityField
        class="limit"
        :label="`${targetNames[target.kind]}, ${kindOf(target).sense}`"
        :quantity="targetQuantity[target.kind]"
        required
        :schema="kindOf(target).limit"
        :model-value="target.limit"
        @update:model-value="
          edit(target.id, 'limit', (t) => {
            t.limit = $event!
          })
        "
      />
      <TextField
        v-if="target.kind !== 'money'"
        label="Where"
        :model-value="target.place"
        @update:model-value="
          edit(target.id, 'place', (t) => {
            t.place = $event
          })
        "
      />
      <span v-else />
      <TextField
        label="Set by"
        :model-value="target.setBy"
        @update:model-value="
          edit(target.id, 'setBy', (t) => {
            t.setBy = $event
          })
        "
      />
      <TextField
        label="Why"
        :model-value="target.why"
        @update:model-value="
          edit(target.id, 'why', (t) => {
            t.why = $event
          })
        "
      />
      <el-button
        text
        class="icon"
        :aria-label="`Remove the ${targetNames[target.kind].toLowerCase()} target`"
        @click="remove(target.id)"
      >
        ×
      </el-button>
    </div>
  </section>
</template>

<style scoped>
.target {
  display: grid;
  grid-template-columns: minmax(142px, 1.2fr) minmax(70px, 0.8fr) minmax(62px, 0.7fr) minmax(84px, 1.3fr) auto;
  gap: 8px;
  align-items: end;
}
@media (max-width: 760px) {
  .target {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
