<script setup lang="ts">
import { cartonList } from '#core/lab'
import { cartonSchema, type Carton, type Fan } from '#core/document'
import { cartonTemplate } from '#core/drawing'

/** The rig: what it is made of, its sizes, its wall to cut. */
const props = defineProps<{ carton: Carton; fan: Fan; open: number }>()
const emit = defineEmits<{ set: [part: Partial<Carton>] }>()
const size: Field<keyof Carton>[] = [
  { key: 'widthM', label: 'Wall with the holes, width', quantity: 'length', required: true },
  { key: 'heightM', label: 'Its height', quantity: 'length', required: true },
  { key: 'depthM', label: 'Length of the carton', quantity: 'length', required: true },
  { key: 'cutM', label: 'Holes are true to', quantity: 'length', hint: 'how far a cut may be off' },
  { key: 'gaugePa', label: 'Gauge resolves', quantity: 'pressure', hint: 'last digit, or noise' },
  { key: 'gaugeShare', label: 'Gauge’s scale may be off by', quantity: 'ratio' },
]
const around: Field<keyof Carton>[] = [
  { key: 'specimen', label: 'Specimen', text: true, required: true },
  {
    key: 'way',
    label: 'The fan',
    options: optionsOf({ into: 'blows into the carton', out: 'draws out of it' }),
  },
  { key: 'ambientC', label: 'Air in the room', quantity: 'temperature' },
  { key: 'altitudeM', label: 'Altitude', quantity: 'altitude' },
  { key: 'notes', label: 'Notes', text: true, lines: 2 },
]
const set = (key: keyof Carton, value: unknown) => emit('set', { [key]: value })
const holes = (list: number[]) => emit('set', { holesM: list })
const template = computed(() =>
  cartonTemplate(props.carton, `${props.fan.maker} ${props.fan.model}, wall of the carton`.trim()),
)
</script>

<template>
  <section class="sheet stack">
    <h2>The rig</h2>
    <CartonDrawing :carton="carton" :fan="fan" :open="open" />
    <p class="small soft">
      The fan sits in one wall, everything else is taped shut. Holes are opened one more each time; the pressure
      in the carton tells how much air goes through them.
    </p>
    <FieldGrid tight :record="carton" :fields="size" :shape="cartonSchema.shape" @set="set" />
    <QuantityListField
      label="Holes as cut, in the order in which they are opened"
      quantity="length"
      :model-value="carton.holesM"
      :schema="cartonSchema.shape.holesM.unwrap().element"
      hint="diameters, measured after cutting"
      @update:model-value="holes"
    />
    <FoldBox title="What you need">
      <ul class="plain small">
        <li v-for="item in cartonList(carton.holesM.length)" :key="item">{{ item }}</li>
      </ul>
      <p class="small soft">
        Tube end flush with the wall, near the corner of the wall with the holes, out of the jet. Fingers, hair
        and the tube stay away from the blades; cutting is done with the fan off.
      </p>
    </FoldBox>
    <FoldBox title="The wall at true scale, to cut">
      <TemplateFiles v-if="carton.holesM.length" :template="template" />
    </FoldBox>
    <FoldBox title="Specimen, air, notes">
      <FieldGrid tight :record="carton" :fields="around" :shape="cartonSchema.shape" @set="set" />
    </FoldBox>
  </section>
</template>

<style scoped>
.plain {
  margin: 0;
  padding-left: 18px;
}
</style>
