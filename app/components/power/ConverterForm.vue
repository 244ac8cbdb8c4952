<script setup lang="ts">
import { converterSchema, setDrive, type Converter } from '#core/document'

/** What makes the fans' voltage out of the source's. */
const { store, plan } = useJob('power')
const converter = computed(() => plan.value.converter)
const { driveAt } = useDrive()
const set = (key: keyof Converter, value: unknown) => {
  if (key === 'outV') driveAt(value as number)
  else store.change((d) => assign(d.converter, key, value), `converter.${key}`)
}
const choose = (kind: 'none' | Converter['kind']) =>
  store.change((d) => {
    const volts = d.selection?.driveV ?? d.source?.nominalV ?? 12
    const converterId = newId('converter')
    if (kind === 'none') setDrive(d, { volts: d.source?.nominalV ?? volts, by: 'straight', converterId })
    else setDrive(d, { volts, by: { kind }, converterId })
  })
const adjustable = computed(() => ['buck', 'boost', 'linear'].includes(converter.value?.kind ?? ''))
</script>

<template>
  <div class="sheet-head">
    <h2>Through what?</h2>
    <ChoiceField
      class="wide-choice"
      label="Kind of converter"
      hide-label
      :model-value="converter?.kind ?? 'none'"
      :options="converterKinds"
      @update:model-value="choose($event)"
    />
  </div>
  <p v-if="!converter" class="soft small">
    The fans hang straight on the source. Choose here what brings them to another voltage; the ways are compared
    below.
  </p>
  <template v-else>
    <FieldGrid
      tight
      :record="converter"
      :fields="converterFields(converter)"
      :shape="converterSchema.shape"
      @set="set"
    />
    <div v-if="adjustable" class="row">
      <el-checkbox :model-value="converter.adjustable" @change="set('adjustable', Boolean($event))"
        >has a trimmer</el-checkbox
      >
      <el-checkbox :model-value="converter.setFirst" @change="set('setFirst', Boolean($event))"
        >set with a meter before the fan was connected</el-checkbox
      >
    </div>
  </template>
</template>
