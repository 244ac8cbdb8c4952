<script setup lang="ts">
import { facedStream, MAIN_STREAM, newTarget, type Target, type TargetKind } from '#core/document'
import type { z } from 'zod'
import { targetStart } from '#core/plan'
import { targetNames, targetQuantity, wantsLeast } from '#core/verification'
import { fanSchema, limits as within, targetSchema, usualStages } from '#core/document'

/** The targets that the verdict is judged by. */
const job = useJobStore()
const targets = computed(() => job.plan?.targets ?? [])
const kinds: { value: TargetKind; place: string; limit: z.ZodType }[] = [
  { value: 'temperature', place: 'inside', limit: within.temperature },
  { value: 'level', place: 'listener', limit: within.level },
  { value: 'flow', place: 'outlet', limit: within.flow },
  { value: 'pressure', place: 'inside', limit: within.pressure },
  { value: 'time', place: 'clear-out', limit: targetSchema.shape.limit.min(1, 'At least a second.') },
  { value: 'rotation', place: 'fan', limit: within.rotation },
  { value: 'current', place: 'fans', limit: within.current },
  { value: 'power', place: 'fans', limit: targetSchema.shape.limit.min(0, 'Cannot be negative.') },
  {
    value: 'runtime',

    place: 'on one charge',
    limit: targetSchema.shape.limit.min(60, 'At least a minute.'),
  },
  {
    value: 'money',

    place: '',
    limit: targetSchema.shape.limit.min(0, 'Cannot be negative.'),
  },
  { value: 'thickness', place: 'fan', limit: fanSchema.shape.thicknessM },
]
const nameOf = (t: Target) => targetNames[t.kind].toLowerCase()
/** Offered at once; the others stand in a list. */
const OFTEN: TargetKind[] = ['temperature', 'level', 'flow', 'runtime', 'money', 'thickness']
const common = kinds.filter((k) => OFTEN.includes(k.value))
const rare = kinds.filter((k) => !OFTEN.includes(k.value))
const kindOf = (t: Target) => kinds.find((k) => k.value === t.kind)!
/** What each air stream is judged by for itself; the others are the whole machine's. */
const ofStream = (kind: TargetKind) => kind === 'flow' || kind === 'temperature'
/** The usual side of a kind stands as long as nobody says otherwise. */
const senses = [
  { value: 'least' as const, label: 'at least' },
  { value: 'most' as const, label: 'at most' },
]
const senseOf = (t: Target) => (wantsLeast(t) ? ('least' as const) : ('most' as const))
/** Whether its number is read, in a stage, on either side of it; money and thickness follow from what is bought. */
const isRead = ({ kind }: Target) => kind !== 'money' && kind !== 'thickness'
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
        <el-button v-for="kind in common" :key="kind.value" size="small" @click="add(kind)">
          + {{ targetNames[kind.value] }}
        </el-button>
        <el-dropdown trigger="click" :persistent="false" @command="add">
          <el-button size="small">Another</el-button>
          <template #dropdown>
            <el-dropdown-menu>
              <el-dropdown-item v-for="kind in rare" :key="kind.value" :command="kind">
                {{ targetNames[kind.value] }}
              </el-dropdown-item>
            </el-dropdown-menu>
          </template>
        </el-dropdown>
      </div>
    </div>
    <p v-if="!targets.length" class="soft">
      Without a number no verdict is possible: add a temperature, a level, a flow, a running time or a sum of
      money.
    </p>
    <div v-for="target in targets" :key="target.id" class="target" :data-target="target.id">
      <QuantityField
        class="limit"
        :label="`${targetNames[target.kind]}, ${wantsLeast(target) ? 'at least' : 'at most'}`"
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
      <el-popover v-if="isRead(target)" trigger="click" :width="220" :persistent="false">
        <template #reference>
          <el-button text class="icon" :aria-label="`More of the ${nameOf(target)} target`">…</el-button>
        </template>
        <ChoiceField
          label="Wanted"
          :options="senses"
          :model-value="senseOf(target)"
          @update:model-value="
            edit(target.id, 'sense', (t) => {
              t.sense = $event
            })
          "
        />
        <TextField
          label="Judged in stage"
          placeholder="whichever is worst"
          :suggest="usualStages"
          :model-value="target.stage"
          @update:model-value="
            edit(target.id, 'stage', (t) => {
              t.stage = $event
            })
          "
        />
      </el-popover>
      <span v-else />
      <el-button
        text
        class="icon"
        :aria-label="`Remove the ${nameOf(target)} target`"
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
  grid-template-columns:
    minmax(142px, 1.2fr) minmax(70px, 0.8fr) minmax(62px, 0.7fr) minmax(84px, 1.3fr)
    auto auto;
  gap: 8px;
  align-items: end;
}
@media (max-width: 760px) {
  .target {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
