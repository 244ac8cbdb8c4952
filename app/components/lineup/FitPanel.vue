<script setup lang="ts">
import { holeSpacing } from '#core/system'
import type { Job } from '#core/document'
import { jobSchema } from '#core/document'

/** What the place asks of the fan: depth, screw pattern, mount. The findings hold the pick against it. */
const job = useJobStore()
const { show } = useUnits()
const fields: Field<keyof Job>[] = [
  { key: 'fitDepthM', label: 'Depth for the fan', quantity: 'length' },
  { key: 'stackExtraM', label: 'Guards, gasket, heads', quantity: 'length', hint: 'together' },
  { key: 'fitWidthM', label: 'Width for the frame', quantity: 'length' },
  { key: 'existingHolesM', label: 'Screw holes there', quantity: 'length', hint: 'centre to centre' },
  { key: 'holeM', label: 'Hole, there or to cut', quantity: 'length' },
  { key: 'screwHoleM', label: 'Screw hole', quantity: 'length' },
  {
    key: 'shaft',
    label: 'Shaft will lie',
    options: optionsOf({ horizontal: 'horizontal', vertical: 'vertical' }, 'not known'),
  },
  {
    key: 'mountKind',
    label: 'Held by',
    options: optionsOf(
      { screws: 'screws', clips: 'clips', adhesive: 'adhesive', ties: 'cable ties' },
      'not known',
    ),
  },
  { key: 'mountCapacityKg', label: 'It may carry', quantity: 'mass' },
  { key: 'mountIsolated', label: 'Soft mounts', yesNo: true },
  { key: 'thinPanel', label: 'Thin or wide panel', yesNo: true },
  { key: 'panelHz', label: 'Panel rings at', quantity: 'frequency' },
  { key: 'upstreamGapM', label: 'Impeller to next grille', quantity: 'length', hint: 'intake side' },
]
const selection = computed(() => job.report?.selection?.fanArray.model.fan ?? null)
const spacing = computed(() => selection.value && holeSpacing(selection.value))
const set = (key: keyof Job, value: unknown) => job.change((d) => assign(d.job, key, value), `job.${key}`)
</script>

<template>
  <FoldBox class="sheet">
    <template #title>
      Where it is to sit<span v-if="selection" class="aside"
        >{{ show(selection.frameM, 'length') }} ×
        {{ show(selection.thicknessMeasuredM ?? selection.thicknessM, 'length')
        }}{{ spacing ? `, holes ${show(spacing, 'length')}` : ''
        }}{{ selection.massKg ? `, ${show(selection.massKg, 'mass')}` : '' }}</span
      >
    </template>
    <FieldGrid tight :record="job.plan!.job" :fields="fields" :shape="jobSchema.shape" @set="set" />
  </FoldBox>
</template>
