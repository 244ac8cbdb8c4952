<script setup lang="ts">
import type { Job, Place } from '#core/document'
import { isOneOfSeveral, jobSchema, placeSchema } from '#core/document'

definePageMeta({ station: 'brief' })

const { plan, set, put, putPlace, findings } = useJob('brief')
const job = computed(() => plan.value.job)
const about: Field<keyof Job>[] = [
  { key: 'name', label: 'Name of the job', text: true, required: true },
  {
    key: 'equipment',
    label: 'Equipment',
    text: true,
    placeholder: 'Steel box with two relays, 30 × 30 × 10 cm',
  },
]
const sides = optionsOf(
  { front: 'front', back: 'back', left: 'left', right: 'right', top: 'top', bottom: 'bottom' },
  'not known',
)
const told: Field<keyof Job>[] = [
  { key: 'complaint', label: 'The complaint, in your words', text: true, lines: 2 },
  { key: 'untouchable', label: 'What may not be touched', text: true, lines: 2 },
]
const breathingWords: Field<keyof Job>[] = [
  { key: 'breathesIn', label: 'It breathes in', text: true, placeholder: 'room air, front slots' },
  { key: 'breathesOut', label: 'It breathes out', text: true, placeholder: 'room, window' },
]
const breathing: Field<keyof Job>[] = [
  {
    key: 'airOutlet',
    label: 'The air ends',
    options: optionsOf(
      { outdoors: 'outdoors', 'same-room': 'in the same room', 'other-room': 'in another room' },
      'not known',
    ),
  },
]
const breathingMore: Field<keyof Job>[] = [
  { key: 'intakeSide', label: 'Planned intake, side', options: sides },
  { key: 'outletSide', label: 'Planned outlet, side', options: sides },
  { key: 'intakeHeightM', label: 'Intake above the floor', quantity: 'distance' },
  { key: 'outletHeightM', label: 'Outlet above the floor', quantity: 'distance' },
  {
    key: 'outletToOpeningM',
    label: 'Outlet to the next window',
    quantity: 'distance',
    hint: 'yours or a neighbour’s',
  },
  { key: 'intakeAirC', label: 'Air measured at its intake', quantity: 'temperature', hint: 'while it runs' },
  { key: 'gasketed', label: 'Joints sealed', yesNo: true },
  { key: 'backflowFlap', label: 'A flap shuts it when off', yesNo: true },
]
const place: Field<keyof Job>[] = [
  { key: 'ambientC', label: 'Air at its intake', quantity: 'temperature', required: true },
  { key: 'ambientMaxC', label: 'Hottest it may get', quantity: 'temperature' },
  { key: 'altitudeM', label: 'Altitude', quantity: 'altitude', required: true },
  { key: 'humidity', label: 'Relative humidity', quantity: 'ratio', required: true },
  { key: 'listenerM', label: 'Listener at', quantity: 'distance', required: true },
  { key: 'roomDbA', label: 'Room without it', quantity: 'level', hint: 'other sources' },
  { key: 'hoursPerDay', label: 'Hours a day', quantity: 'number', required: true },
]
/** Of the place of the fans that is shown. */
const blows: Field<keyof Place>[] = [
  { key: 'direction', label: 'The fan', options: optionsOf({ in: 'blows in', out: 'draws out' }, 'not known') },
]
const mounted: Field<keyof Place>[] = [
  {
    key: 'mountedDirection',
    label: 'As mounted, it',
    options: optionsOf({ in: 'blows in', out: 'draws out' }, 'not fitted yet'),
  },
]
const room: Field<keyof Place>[] = [
  { key: 'fitDepthM', label: 'Depth for the fan', quantity: 'length' },
  { key: 'fitWidthM', label: 'Width for the frame', quantity: 'length' },
  { key: 'inletClearM', label: 'Free before its intake', quantity: 'length' },
  { key: 'outletClearM', label: 'Free after its outlet', quantity: 'length' },
]
const space: Field<keyof Job>[] = [
  { key: 'openingGapM', label: 'Intake to outlet opening', quantity: 'length' },
  { key: 'baffled', label: 'A wall or duct between them', yesNo: true },
  { key: 'hotPartInPath', label: 'Hottest part is in the stream', yesNo: true },
]
const usedIn = {
  key: 'domain',
  label: 'Used in',
  options: optionsOf({
    general: 'home or workshop',
    vehicle: 'vehicle or boat',
    aircraft: 'aircraft',
    medical: 'medical',
    'life-safety': 'life safety, lift, fire',
  }),
} satisfies Field<keyof Job>
</script>

<template>
  <div class="two">
    <StreamTable v-if="isOneOfSeveral(plan)" class="machine" />
    <section class="sheet stack">
      <h2>What is it, and what must become better?</h2>
      <FieldGrid class="wide" :record="job" :fields="about" :shape="jobSchema.shape" @set="put" />
      <div>
        <el-radio-group
          class="goals"
          aria-label="Goal"
          :model-value="job.goal"
          @change="set('goal')($event as Job['goal'])"
        >
          <el-radio v-for="goal in goalCards" :key="goal.value" border :value="goal.value">{{
            goal.name
          }}</el-radio>
        </el-radio-group>
        <p class="small soft">{{ goalCards.find((g) => g.value === job.goal)?.what }}.</p>
      </div>
      <FieldGrid class="wide" :record="job" :fields="told" :shape="jobSchema.shape" @set="put" />
      <h2>Where it breathes</h2>
      <FieldGrid class="wide" :record="job" :fields="breathingWords" :shape="jobSchema.shape" @set="put" />
      <PlaceBar />
      <div class="pair">
        <FieldGrid :record="plan.place" :fields="blows" :shape="placeSchema.shape" @set="putPlace" />
        <FieldGrid :record="job" :fields="breathing" :shape="jobSchema.shape" @set="put" />
      </div>
      <FoldBox :open="plan.ports.length > 0">
        <template #title>The equipment’s own openings</template>
        <PortTable />
      </FoldBox>
      <FoldBox title="Sides, heights, sealing, what was measured there">
        <FieldGrid tight :record="job" :fields="breathingMore" :shape="jobSchema.shape" @set="put" />
        <FieldGrid tight :record="plan.place" :fields="mounted" :shape="placeSchema.shape" @set="putPlace" />
      </FoldBox>
    </section>
    <InTurn>
      <div class="stack">
        <section class="sheet stack">
          <h2>Where it stands</h2>
          <FieldGrid class="four" :record="job" :fields="place" :shape="jobSchema.shape" @set="put" />
          <FoldBox title="Space around the fan">
            <FieldGrid :record="plan.place" :fields="room" :shape="placeSchema.shape" @set="putPlace" />
            <FieldGrid :record="job" :fields="space" :shape="jobSchema.shape" @set="put" />
          </FoldBox>
        </section>
        <section class="sheet stack">
          <SituationList>
            <ChoiceField
              data-field="domain"
              :label="usedIn.label"
              :model-value="job.domain"
              :options="usedIn.options"
              @update:model-value="put('domain', $event)"
            />
          </SituationList>
          <FindingList :findings="findings" />
          <p class="small soft">
            Redpoll plans below 60 V DC only. Work on the mains side belongs to a licensed electrician; local
            rules come first.
          </p>
        </section>
        <StreamTable v-if="!isOneOfSeveral(plan)" />
      </div>
    </InTurn>
  </div>
</template>

<style scoped>
.machine {
  grid-column: 1 / -1;
}
.goals {
  gap: 6px;
  margin-bottom: 3px;
}
.four {
  grid-template-columns: repeat(4, minmax(0, 1fr));
}
.fields.wide {
  grid-template-columns: 1fr 1fr;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px 16px;
  align-items: start;
}
@media (max-width: 760px) {
  .four {
    grid-template-columns: 1fr 1fr;
  }
  .fields.wide,
  .pair {
    grid-template-columns: 1fr;
  }
}
</style>
