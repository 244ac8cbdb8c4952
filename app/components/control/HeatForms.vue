<script setup lang="ts">
import { measuredPart, placesRead, soakedAt, type DayModel } from '#core/day'
import { daySchema, thermalLinkSchema, thermalPartSchema } from '#core/document'

/** The parts that get warm: typed, or taken from runs in which they soaked; what they pass to each other. */
const props = defineProps<{ model: DayModel | null; streams: { id: string; name: string }[] }>()
const { plan, told, setDay, changeDay, listOf } = useControl()
const { show } = useUnits()
const parts = listOf('parts')
const links = listOf('links')
const places = computed(() => placesRead(plan.value.runs))
/** What the runs tell of a part: those read at a place of its name, else at the one that is chosen. */
const chosen = ref<Record<string, string>>({})
function takeRuns(i: number, place: string | null) {
  if (!place) return
  const part = told.value.parts[i]!
  chosen.value[part.id] = place
  const found = measuredPart(soakedAt(plan.value.runs, place, part.loadShare ?? 1))
  said.value = Object.keys(found).length
    ? `Taken from the runs: ${[
        'movedWK' in found ? 'moving air' : '',
        'stillWK' in found ? 'without air' : '',
        'capacityJK' in found ? 'heat that it stores' : '',
      ]
        .filter(Boolean)
        .join(', ')}.`
    : 'No run there tells load, air around and a rise.'
  changeDay((d) => Object.assign(d.parts[i]!, found), '', `${part.name} from the runs`)
}
const noPlace: string | null = null
const said = ref('')
const partNames = computed(() => told.value.parts.map((p) => ({ value: p.id, label: p.name })))
const linkFields = computed(() => [
  { key: 'fromId' as const, label: 'Between', options: partNames.value },
  { key: 'toId' as const, label: 'and', options: partNames.value },
  { key: 'conductanceWK' as const, label: 'passes', quantity: 'thermalConductance' as const },
])
const own = computed(() => (told.value.parts.length ? [] : (props.model?.parts ?? [])))
const addPart = () =>
  parts.add(
    newPart(['Heatsink', 'Board', 'Supply', 'Case'][told.value.parts.length] ?? 'Part', plan.value.stream),
  )
function addLink() {
  const [a, b] = told.value.parts
  if (a && b) links.add({ id: newId('link'), fromId: a.id, toId: b.id, conductanceWK: 1 })
}
</script>

<template>
  <div data-field="parts" class="stack">
    <p v-for="p in own" :key="p.id" class="small">
      From the plan’s own heat balance: <strong>{{ p.name }}</strong>,
      {{ show(p.movedWK, 'thermalConductance') }} with the planned air<template v-if="p.assumed.length"
        >; assumed, measure it: {{ p.assumed.join(', ') }}</template
      >.
    </p>
    <p v-if="!own.length && !told.parts.length" class="small soft">
      Nothing warms in this plan’s days yet: add a part with its limit, its mass and what the air takes from it.
    </p>
    <p v-for="p in model?.incomplete ?? []" :key="p.id" class="small">
      <StateMark state="not-begun" /> {{ p.name }} is not counted yet: it wants {{ p.wants }}.
    </p>
    <RecordList
      :records="told.parts"
      :fields="(p) => warmFields(p, streams)"
      :shape="thermalPartSchema.shape"
      add="+ Part that warms"
      :name-of="(p) => p.name"
      :most="8"
      @add="addPart"
      @set="parts.set"
      @remove="parts.remove($event, told.parts[$event]!.name)"
    />
    <div v-if="places.length && told.parts.length" class="fields tight">
      <ChoiceField
        v-for="(p, i) in told.parts"
        :key="p.id"
        :label="`${p.name}, from runs at`"
        :model-value="chosen[p.id] ?? noPlace"
        :options="[{ value: noPlace, label: 'not taken' }, ...places.map((value) => ({ value, label: value }))]"
        @update:model-value="takeRuns(i, $event)"
      />
    </div>
    <p v-if="said" class="small" role="status">{{ said }}</p>
    <RecordList
      v-if="told.parts.length > 1"
      :records="told.links"
      :fields="() => linkFields"
      :shape="thermalLinkSchema.shape"
      add="+ Heat from part to part"
      :name-of="(_, i) => `heat path ${i + 1}`"
      :most="12"
      @add="addLink"
      @set="links.set"
      @remove="links.remove($event, `Heat path ${$event + 1}`)"
    />
    <FieldGrid
      tight
      :record="told"
      :fields="[
        {
          key: 'exponent',
          label: 'Exponent of the air',
          quantity: 'number',
          hint: '0.5 slow, 0.8 brisk; empty: 0.8',
        },
      ]"
      :shape="daySchema.shape"
      @set="setDay"
    />
  </div>
</template>
