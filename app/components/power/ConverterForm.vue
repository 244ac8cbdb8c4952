<script setup lang="ts">
import {
  converterOf,
  driveVolts,
  feedPartSchema,
  isConverter,
  setDrive,
  sourceOf,
  takeOut,
  withConverterKind,
  withOutput,
  type Converter,
  type ConverterKind,
} from '#core/document'

/** What makes a voltage out of another: a converter of the feed, or the one in the lead of the stream's fans. */
const props = defineProps<{ id?: string }>()
const { store, plan, report } = useJob('power')
const converterIn = (d: typeof plan.value): Converter | null =>
  props.id === undefined ? converterOf(d) : (d.feed.filter(isConverter).find((p) => p.id === props.id) ?? null)
const converter = computed(() => converterIn(plan.value))
const parents = computed(() => (converter.value ? parentOptions(plan.value, converter.value.id) : []))
const set = (key: keyof Converter, value: unknown) =>
  store.change((d) => {
    const there = converterIn(d)
    if (!there) return
    if (key === 'outV') Object.assign(there, withOutput(there, value as number | null))
    else assign(there, key, value)
  }, `feed.${converter.value?.id}.${key}`)
const choose = (kind: 'none' | ConverterKind) =>
  store.change((d) => {
    const there = converterIn(d)
    if (there?.converterKind === kind) return
    if (there && kind !== 'none') {
      d.feed[d.feed.indexOf(there)] = withConverterKind(there, kind)
      return
    }
    // a new one is to give what the fans are for
    const handed = sourceOf(d)?.nominalV ?? null
    const ratedV = report.value.selection?.fanArray.model.fan.ratedV ?? null
    const volts = (kind === 'none' ? handed : ratedV) ?? driveVolts(d) ?? handed ?? 12
    const by = kind === 'none' ? 'straight' : { converterKind: kind }
    setDrive(d, { volts, by, converterId: newId('converter') })
  })
const emit = defineEmits<{ gone: [] }>()
function remove() {
  const { id, name } = converter.value!
  store.removeWithUndo(`${name} removed: what hung on it hangs where it hung.`, (d) => takeOut(d, id))
  emit('gone')
}
const adjustable = computed(() => ['buck', 'boost', 'linear'].includes(converter.value?.converterKind ?? ''))
</script>

<template>
  <div class="sheet-head">
    <h2>{{ id === undefined ? 'Through what?' : converter?.name }}</h2>
    <ChoiceField
      class="wide-choice"
      label="Kind of converter"
      hide-label
      :model-value="converter?.converterKind ?? 'none'"
      :options="id === undefined ? converterKinds : converterKinds.filter((k) => k.value !== 'none')"
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
      :fields="[...(id === undefined ? [] : feedPlaceFields(parents)), ...converterFields(converter)]"
      :shape="feedPartSchema.shape"
      @set="set"
    />
    <div v-if="adjustable" class="row">
      <el-checkbox :model-value="converter.adjustable" @change="set('adjustable', Boolean($event))"
        >has a trimmer</el-checkbox
      >
      <el-checkbox :model-value="Boolean(converter.setFirst)" @change="set('setFirst', Boolean($event))"
        >set with a meter before the fan was connected</el-checkbox
      >
    </div>
    <FoldBox v-if="id === undefined" title="Its name, and the lead to it">
      <FieldGrid
        tight
        :record="converter"
        :fields="feedPlaceFields(parents)"
        :shape="feedPartSchema.shape"
        @set="set"
      />
    </FoldBox>
    <div v-else><el-button text size="small" @click="remove">Take it away</el-button></div>
  </template>
</template>
