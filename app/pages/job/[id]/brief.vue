<script setup lang="ts">
import { jobSchema } from '../../../../shared/schemas/plan'

const { plan, set, findings } = useJob('brief')
const job = computed(() => plan.value.job)
const s = jobSchema.shape
const goals = [
  { value: 'cool', name: 'Cool a box', what: 'It runs hot: carry its heat off' },
  { value: 'ventilate', name: 'Ventilate', what: 'It smells or is damp: change its air' },
  { value: 'quieten', name: 'Quieten', what: 'It is too loud: keep its air, drop the sound' },
] as const
const directions = [{ value: null, label: 'not known' }, { value: 'in' as const, label: 'blows in' }, { value: 'out' as const, label: 'draws out' }]
const domains = [
  { value: 'general' as const, label: 'home or workshop' }, { value: 'vehicle' as const, label: 'vehicle or boat' }, { value: 'aircraft' as const, label: 'aircraft' },
  { value: 'medical' as const, label: 'medical' }, { value: 'life-safety' as const, label: 'life safety, lift, fire' },
]
</script>

<template>
  <div class="two">
    <section class="sheet stack">
      <h2>What is it, and what must become better?</h2>
      <div class="fields wide">
        <TextField
          label="Name of the job"
          :model-value="job.name"
          required
          @update:model-value="set('name')($event)"
        />
        <TextField
          label="Equipment"
          placeholder="Steel box with two relays, 30 × 30 × 10 cm"
          :model-value="job.equipment"
          @update:model-value="set('equipment')($event)"
        />
      </div>
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
      <div class="fields">
        <TextField
          label="What may not be touched"
          :model-value="job.untouchable"
          @update:model-value="set('untouchable')($event)"
        />
        <TextField
          label="It breathes in"
          placeholder="room air, front slots"
          :model-value="job.breathesIn"
          @update:model-value="set('breathesIn')($event)"
        />
        <TextField
          label="It breathes out"
          placeholder="room, window"
          :model-value="job.breathesOut"
          @update:model-value="set('breathesOut')($event)"
        />
        <ChoiceField
          label="The fan"
          :model-value="job.direction"
          :options="directions"
          @update:model-value="set('direction')($event)"
        />
      </div>
    </section>
    <div class="stack">
      <section class="sheet stack">
        <h2>Where it stands</h2>
        <div class="fields tight">
          <QuantityField
            label="Air at its intake"
            quantity="temperature"
            required
            :schema="s.ambientC"
            :model-value="job.ambientC"
            @update:model-value="set('ambientC')($event!)"
          />
          <QuantityField
            label="Hottest it may get"
            quantity="temperature"
            :schema="s.ambientMaxC"
            :model-value="job.ambientMaxC"
            @update:model-value="set('ambientMaxC')($event)"
          />
          <QuantityField
            label="Altitude"
            quantity="altitude"
            required
            :schema="s.altitudeM"
            :model-value="job.altitudeM"
            @update:model-value="set('altitudeM')($event!)"
          />
          <QuantityField
            label="Relative humidity"
            quantity="ratio"
            required
            :schema="s.humidity"
            :model-value="job.humidity"
            @update:model-value="set('humidity')($event!)"
          />
          <QuantityField
            label="Listener’s distance"
            quantity="distance"
            required
            :schema="s.listenerM"
            :model-value="job.listenerM"
            @update:model-value="set('listenerM')($event!)"
          />
          <QuantityField
            label="Room without it"
            hint="all other sources, at the listener"
            quantity="level"
            :schema="s.roomDbA"
            :model-value="job.roomDbA"
            @update:model-value="set('roomDbA')($event)"
          />
          <QuantityField
            label="Hours a day"
            quantity="number"
            required
            :schema="s.hoursPerDay"
            :model-value="job.hoursPerDay"
            @update:model-value="set('hoursPerDay')($event!)"
          />
        </div>
        <details class="fold">
          <summary>Space around the fan</summary>
          <div class="fields">
            <QuantityField
              label="Depth for the fan"
              quantity="length"
              :schema="s.fitDepthM"
              :model-value="job.fitDepthM"
              @update:model-value="set('fitDepthM')($event)"
            />
            <QuantityField
              label="Width for the frame"
              quantity="length"
              :schema="s.fitWidthM"
              :model-value="job.fitWidthM"
              @update:model-value="set('fitWidthM')($event)"
            />
            <QuantityField
              label="Free before its intake"
              quantity="length"
              :schema="s.inletClearM"
              :model-value="job.inletClearM"
              @update:model-value="set('inletClearM')($event)"
            />
            <QuantityField
              label="Free after its outlet"
              quantity="length"
              :schema="s.outletClearM"
              :model-value="job.outletClearM"
              @update:model-value="set('outletClearM')($event)"
            />
            <QuantityField
              label="Intake to outlet opening"
              quantity="length"
              :schema="s.openingGapM"
              :model-value="job.openingGapM"
              @update:model-value="set('openingGapM')($event)"
            />
            <YesNoField
              label="A wall or duct between them"
              :model-value="job.baffled"
              @update:model-value="set('baffled')($event)"
            />
            <YesNoField
              label="Hottest part is in the stream"
              :model-value="job.hotPartInPath"
              @update:model-value="set('hotPartInPath')($event)"
            />
          </div>
        </details>
      </section>
      <section class="sheet stack">
        <h2>What can hurt</h2>
        <div class="fields">
          <YesNoField
            label="Live mains parts within reach"
            :model-value="job.mains"
            @update:model-value="set('mains')($event)"
          />
          <YesNoField
            label="Vapour, gas or dust can ignite"
            :model-value="job.flammable"
            @update:model-value="set('flammable')($event)"
          />
          <YesNoField
            label="Open-flued burner in the room"
            :model-value="job.openFlue"
            @update:model-value="set('openFlue')($event)"
          />
          <YesNoField
            label="Splashed or wet"
            :model-value="job.wet"
            @update:model-value="set('wet')($event)"
          />
          <YesNoField
            label="Harm if the air stops"
            :model-value="job.mustNotFail"
            @update:model-value="set('mustNotFail')($event)"
          />
          <ChoiceField
            label="Where it is used"
            :model-value="job.domain"
            :options="domains"
            @update:model-value="set('domain')($event)"
          />
        </div>
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
