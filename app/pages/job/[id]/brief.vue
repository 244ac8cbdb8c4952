<script setup lang="ts">
import type { Job } from '../../../../core/plan/document'
import { jobSchema } from '../../../../shared/schemas/plan'

const { plan, set, put, findings } = useJob('brief')
const job = computed(() => plan.value.job)
const goals = [
  { value: 'cool', name: 'Cool a box', what: 'It runs hot: carry its heat off' },
  { value: 'ventilate', name: 'Ventilate', what: 'It smells or is damp: change its air' },
  { value: 'quieten', name: 'Quieten', what: 'It is too loud: keep its air, drop the sound' },
] as const
const about: Field<keyof Job>[] = [
  { key: 'name', label: 'Name of the job', text: true, required: true },
  { key: 'equipment', label: 'Equipment', text: true, placeholder: 'Steel box with two relays, 30 × 30 × 10 cm' },
]
const breathing: Field<keyof Job>[] = [
  { key: 'untouchable', label: 'What may not be touched', text: true },
  { key: 'breathesIn', label: 'It breathes in', text: true, placeholder: 'room air, front slots' },
  { key: 'breathesOut', label: 'It breathes out', text: true, placeholder: 'room, window' },
  { key: 'direction', label: 'The fan', options: optionsOf({ in: 'blows in', out: 'draws out' }, 'not known') },
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
  { key: 'flammable', label: 'Vapour, gas or dust can ignite', yesNo: true },
  { key: 'openFlue', label: 'Open-flued burner in the room', yesNo: true },
  { key: 'wet', label: 'Splashed or wet', yesNo: true },
  { key: 'mustNotFail', label: 'Harm if the air stops', yesNo: true },
  { key: 'domain', label: 'Where it is used', options: optionsOf({ 'general': 'home or workshop', 'vehicle': 'vehicle or boat', 'aircraft': 'aircraft', 'medical': 'medical', 'life-safety': 'life safety, lift, fire' }) },
]
</script>

<template>
  <div class="two">
    <section class="sheet stack">
      <h2>What is it, and what must become better?</h2>
      <FieldGrid
        class="wide"
        :record="job"
        :fields="about"
        :shape="jobSchema.shape"
        @set="put"
      />
      <fieldset class="goals">
        <legend class="field-label">
          Goal
        </legend>
        <label
          v-for="goal in goals"
          :key="goal.value"
          :class="{ on: job.goal === goal.value }"
        >
          <input
            type="radio"
            name="goal"
            :value="goal.value"
            :checked="job.goal === goal.value"
            @change="set('goal')(goal.value)"
          >
          <span><strong>{{ goal.name }}</strong><br><span class="small soft">{{ goal.what }}</span></span>
        </label>
      </fieldset>
      <TextField
        label="The complaint, in your words"
        :lines="2"
        :model-value="job.complaint"
        @update:model-value="set('complaint')($event)"
      />
      <FieldGrid
        :record="job"
        :fields="breathing"
        :shape="jobSchema.shape"
        @set="put"
      />
    </section>
    <div class="stack">
      <section class="sheet stack">
        <h2>Where it stands</h2>
        <FieldGrid
          tight
          :record="job"
          :fields="place"
          :shape="jobSchema.shape"
          @set="put"
        />
        <details class="fold">
          <summary>Space around the fan</summary>
          <FieldGrid
            :record="job"
            :fields="space"
            :shape="jobSchema.shape"
            @set="put"
          />
        </details>
      </section>
      <section class="sheet stack">
        <h2>What can hurt</h2>
        <FieldGrid
          :record="job"
          :fields="dangers"
          :shape="jobSchema.shape"
          @set="put"
        />
        <FindingList :findings="findings" />
        <p class="small soft">
          Redpoll plans below 60 V DC only. Work on the mains side belongs to a licensed electrician; local rules come first.
        </p>
      </section>
    </div>
  </div>
</template>

<style scoped>
.goals { border: 0; margin: 0; padding: 0; display: grid; grid-template-columns: repeat(3, minmax(0, 1fr)); gap: 8px; }
.goals legend { padding: 0; margin-bottom: 3px; }
.goals label { display: flex; gap: 8px; align-items: flex-start; border: 1px solid var(--line-strong); border-radius: 6px; padding: 8px 10px; cursor: pointer; line-height: 1.3; }
.goals label.on { border-color: var(--cap); background: var(--cap-soft); }
.goals input { margin: 3px 0 0; accent-color: var(--cap); }
.fields.wide { grid-template-columns: 1fr 1fr; }
@media (max-width: 760px) { .goals, .fields.wide { grid-template-columns: 1fr; } }
</style>
