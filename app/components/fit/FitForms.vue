<script setup lang="ts">
import { fitSchema, jobSchema, keepClearSchema, newThing, placeSchema, thingSchema } from '#core/document'

/** What is known of the place, piece by piece. A finding opens the right one. */
const { plan, place, fit, mount, set, setJob, setPlace, listOf } = useFit()
const { show } = useUnits()
const pieces = [
  { value: 'place' as const, label: 'Place' },
  { value: 'panel' as const, label: 'Panel' },
  { value: 'cover' as const, label: 'Guards' },
  { value: 'hold' as const, label: 'Mount' },
  { value: 'adapter' as const, label: 'Hose' },
]
type Key = (typeof pieces)[number]['value']
const open = ref<Key>('place')
const blower = computed(() => mount.value?.fan.kind === 'blower')
const measured = computed(() => (mount.value ? measuredFields(mount.value.fan) : []))

/** Which piece holds a field. */
function pieceOf(key: string): Key {
  const holds = (fields: { key: string }[]) => fields.some((f) => f.key === key)
  const told = { ...fit.value, guard: 'wire' as const, opening: 'oval' as const, filterM: 0.01 }
  if (key === 'positions' || holds(panelFields(told))) return 'panel'
  if (holds(coverFields(told))) return 'cover'
  if (holds(adapterFields(told))) return 'adapter'
  const soft = { ...place.value, mountIsolated: true }
  if (holds([...holdFields, ...screwFields(soft), ...measured.value])) return 'hold'
  return 'place'
}
const route = useRoute()
watch(
  () => route.hash,
  (hash) => {
    const key = /^#field-(.+)$/.exec(hash)?.[1]
    if (key) open.value = pieceOf(key)
  },
  { immediate: true },
)

const zones = listOf('keepClear')
const things = listOf('things')
const lugs = listOf('lugs')
/** Across the middle of the panel, a tenth high, until somebody says otherwise. */
const newZone = () =>
  zones.add(({ panelWidthM, panelHeightM }) => {
    const height = panelHeightM ?? 0.2
    return {
      id: newId('clear'),
      name: 'Beam',
      leftM: 0,
      bottomM: (0.9 * height) / 2,
      widthM: panelWidthM ?? 0.2,
      heightM: height / 10,
    }
  })
</script>

<template>
  <section class="sheet stack fit-forms">
    <SegmentChoice v-model="open" label="What is told of the place" :options="pieces" />
    <template v-if="open === 'place'">
      <FieldGrid tight :record="place" :fields="placeFields" :shape="placeSchema.shape" @set="setPlace" />
      <div data-field="things">
        <RecordList
          :records="fit.things"
          :fields="thingFields"
          :shape="thingSchema.shape"
          add="+ Something in the way"
          :name-of="(t) => t.name"
          :most="12"
          @add="things.add(() => newThing(newId('thing'), 'Shelf'))"
          @set="things.set"
          @remove="things.remove($event, fit.things[$event]!.name)"
        />
      </div>
      <ThingRooms v-if="mount?.things.length" :things="mount.things" />
    </template>
    <template v-else-if="open === 'panel'">
      <FieldGrid tight :record="fit" :fields="panelFields(fit)" :shape="fitSchema.shape" @set="set" />
      <RecordList
        :records="fit.keepClear"
        :fields="() => keepClearFields"
        :shape="keepClearSchema.shape"
        add="+ Keep clear"
        :name-of="(z) => z.name"
        :most="12"
        @add="newZone"
        @set="zones.set"
        @remove="zones.remove($event, fit.keepClear[$event]!.name)"
      />
    </template>
    <template v-else-if="open === 'cover'">
      <FieldGrid tight :record="fit" :fields="coverFields(fit)" :shape="fitSchema.shape" @set="set" />
      <FieldGrid
        v-if="mount?.filter"
        tight
        :record="plan.job"
        :fields="filterCare"
        :shape="jobSchema.shape"
        @set="setJob"
      />
      <p v-if="mount?.filter?.wantedM2" class="small soft">
        At this flow its medium wants a face of {{ show(mount.filter.wantedM2, 'area') }}: a box, a pleat or a
        whole panel where the hole is smaller.
      </p>
      <p class="small soft">
        Distances of guards: ISO 13857 for persons of 14 years and over, from memory; children want openings of
        4 mm at most, or the fan out of reach.
      </p>
    </template>
    <template v-else-if="open === 'hold'">
      <FieldGrid tight :record="place" :fields="holdFields" :shape="placeSchema.shape" @set="setPlace" />
      <FieldGrid
        tight
        :record="fit"
        :fields="[...screwFields(place), ...measured]"
        :shape="fitSchema.shape"
        @set="set"
      />
      <RecordList
        v-if="blower"
        :records="fit.lugs"
        :fields="() => lugFields"
        :shape="{}"
        add="+ Lug"
        :name-of="(_, i) => `lug ${i + 1}`"
        :most="6"
        @add="lugs.add(() => ({ xM: 0, yM: 0 }))"
        @set="lugs.set"
        @remove="lugs.remove($event, `Lug ${$event + 1}`)"
      />
      <p v-if="blower" class="small soft">
        Blowers have no usual pattern: measure each lug from the lower left corner of the housing, its outlet at
        the top.
      </p>
      <MountWords v-if="mount" :mount="mount" />
    </template>
    <template v-else>
      <FieldGrid tight :record="fit" :fields="adapterFields(fit)" :shape="fitSchema.shape" @set="set" />
      <HoseTable v-if="mount" :mount="mount" />
    </template>
  </section>
</template>
