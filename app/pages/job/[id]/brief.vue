<script setup lang="ts">
import type { Job } from '#core/document'
import { jobSchema } from '#core/document'

definePageMeta({ station: 'brief' })

const { plan, set, put, findings } = useJob('brief')
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
const untouchable: Field<keyof Job>[] = [{ key: 'untouchable', label: 'What may not be touched', text: true }]
const breathingWords: Field<keyof Job>[] = [
  { key: 'breathesIn', label: 'It breathes in', text: true, placeholder: 'room air, front slots' },
  { key: 'breathesOut', label: 'It breathes out', text: true, placeholder: 'room, window' },
]
const breathing: Field<keyof Job>[] = [
  { key: 'direction', label: 'The fan', options: optionsOf({ in: 'blows in', out: 'draws out' }, 'not known') },
  { key: 'intakeSide', label: 'Planned intake, side', options: sides },
  { key: 'outletSide', label: 'Planned outlet, side', options: sides },
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
  { key: 'intakeHeightM', label: 'Intake above the floor', quantity: 'distance' },
  { key: 'outletHeightM', label: 'Outlet above the floor', quantity: 'distance' },
  {
    key: 'outletToOpeningM',
    label: 'Outlet to the next window',
    quantity: 'distance',
    hint: 'yours or a neighbour’s',
  },
  {
    key: 'mountedDirection',
    label: 'As mounted, it',
    options: optionsOf({ in: 'blows in', out: 'draws out' }, 'not fitted yet'),
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
  { key: 'listenerM', label: 'Listener’s distance', quantity: 'distance', required: true },
  { key: 'roomDbA', label: 'Room without it', quantity: 'level', hint: 'all other sources, at the listener' },
  { key: 'hoursPerDay', label: 'Hours a day', quantity: 'number', required: true },
]
const space: Field<keyof Job>[] = [
  { key: 'fitDepthM', label: 'Depth for the fan', quantity: 'length' },
  { key: 'fitWidthM', label: 'Width for the frame', quantity: 'length' },
  { key: 'inletClearM', label: 'Free before its intake', quantity: 'length' },
  { key: 'outletClearM', label: 'Free after its outlet', quantity: 'length' },
  { key: 'openingGapM', label: 'Intake to outlet opening', quantity: 'length' },
  { key: 'baffled', label: 'A wall or duct between them', yesNo: true },
  { key: 'hotPartInPath', label: 'Hottest part is in the stream', yesNo: true },
]
const dangers: Field<keyof Job>[] = [
  { key: 'mains', label: 'Live mains parts within reach', yesNo: true },
  { key: 'opensSupply', label: 'A mains supply unit would be opened', yesNo: true },
  { key: 'storedV', label: 'Voltage stored in it', quantity: 'voltage' },
  { key: 'discharged', label: 'Discharged and measured', yesNo: true },
  { key: 'earthRefitted', label: 'Earth leads refitted, measured', yesNo: true },
  { key: 'flammable', label: 'Vapour, gas or dust can ignite', yesNo: true },
  { key: 'openFlue', label: 'Open-flued burner in the room', yesNo: true },
  { key: 'supplyOpening', label: 'Its supply air confirmed by a fitter', yesNo: true },
  { key: 'wet', label: 'Splashed or wet', yesNo: true },
  { key: 'adapterInWet', label: 'Adapter stands in the wet', yesNo: true },
  { key: 'mustNotFail', label: 'Harm if the air stops', yesNo: true },
  { key: 'thermalCutout', label: 'Independent thermal cut-out', yesNo: true },
  { key: 'laser', label: 'Laser enclosure', yesNo: true },
  { key: 'lightBaffle', label: 'Light-tight baffle at the opening', yesNo: true },
  { key: 'touchC', label: 'Hottest surface in reach', quantity: 'temperature' },
  {
    key: 'domain',
    label: 'Where it is used',
    options: optionsOf({
      general: 'home or workshop',
      vehicle: 'vehicle or boat',
      aircraft: 'aircraft',
      medical: 'medical',
      'life-safety': 'life safety, lift, fire',
    }),
  },
]
</script>

<template>
  <div class="two">
    <section class="sheet stack">
      <h2>What is it, and what must become better?</h2>
      <FieldGrid class="wide" :record="job" :fields="about" :shape="jobSchema.shape" @set="put" />
      <fieldset class="goals">
        <legend class="field-label">Goal</legend>
        <label
          v-for="goal in goalCards"
          :key="goal.value"
          :class="{ on: job.goal === goal.value }"
          :title="goal.what"
        >
          <input
            type="radio"
            name="goal"
            :value="goal.value"
            :checked="job.goal === goal.value"
            :aria-description="goal.what"
            @change="set('goal')(goal.value)"
          />
          <span>{{ goal.name }}</span>
        </label>
        <p class="small soft what">{{ goalCards.find((g) => g.value === job.goal)?.what }}.</p>
      </fieldset>
      <TextField
        label="The complaint, in your words"
        :lines="2"
        :model-value="job.complaint"
        @update:model-value="set('complaint')($event)"
      />
      <FieldGrid class="wide" :record="job" :fields="untouchable" :shape="jobSchema.shape" @set="put" />
      <h2>Where it breathes</h2>
      <FieldGrid class="wide" :record="job" :fields="breathingWords" :shape="jobSchema.shape" @set="put" />
      <FieldGrid tight :record="job" :fields="breathing" :shape="jobSchema.shape" @set="put" />
      <FoldBox :open="plan.ports.length > 0">
        <template #title>The equipment’s own openings</template>
        <PortTable />
      </FoldBox>
      <FoldBox title="Heights, sealing, what was measured there">
        <FieldGrid tight :record="job" :fields="breathingMore" :shape="jobSchema.shape" @set="put" />
      </FoldBox>
    </section>
    <div class="stack">
      <section class="sheet stack">
        <h2>Where it stands</h2>
        <FieldGrid tight :record="job" :fields="place" :shape="jobSchema.shape" @set="put" />
        <FoldBox title="Space around the fan">
          <FieldGrid :record="job" :fields="space" :shape="jobSchema.shape" @set="put" />
        </FoldBox>
      </section>
      <section class="sheet stack">
        <h2>What can hurt</h2>
        <FieldGrid :record="job" :fields="dangers" :shape="jobSchema.shape" @set="put" />
        <FindingList :findings="findings" />
        <p class="small soft">
          Redpoll plans below 60 V DC only. Work on the mains side belongs to a licensed electrician; local
          rules come first.
        </p>
      </section>
    </div>
  </div>
</template>

<style scoped>
.goals {
  border: 0;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.goals legend {
  padding: 0;
  margin-bottom: 3px;
}
.goals label {
  display: flex;
  gap: 8px;
  align-items: center;
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  padding: 5px 10px;
  min-height: 34px;
  cursor: pointer;
  line-height: 1.25;
}
.goals label.on {
  border-color: var(--cap);
  background: var(--cap-soft);
}
.what {
  width: 100%;
}
.goals input {
  margin: 0;
  accent-color: var(--cap);
}
.fields.wide {
  grid-template-columns: 1fr 1fr;
}
@media (max-width: 760px) {
  .fields.wide {
    grid-template-columns: 1fr;
  }
}
</style>
