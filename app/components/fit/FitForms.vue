<script setup lang="ts">
import { fitSchema, jobSchema, newFit, type Fit, type Job } from '#core/document'

/** What is known of the place, of panel and guard, and of how the fans are held. A finding opens the right one. */
const { plan, report, put } = useJob('fit')
const store = useJobStore()
const pieces = [
  { value: 'place' as const, label: 'Place' },
  { value: 'panel' as const, label: 'Panel and guard' },
  { value: 'hold' as const, label: 'How it is held' },
]
const open = ref<(typeof pieces)[number]['value']>('place')
const blank = newFit('blank')
const fit = computed(() => plan.value.fit ?? blank)
const set = (key: keyof Fit, value: unknown, label?: string) =>
  store.change(
    (d) => {
      d.fit ??= newFit(newId('fit'))
      assign(d.fit, key, value)
    },
    `fit.${key}`,
    label,
  )
const route = useRoute()
watch(
  () => route.hash,
  (hash) => {
    const key = /^#field-(.+)$/.exec(hash)?.[1]
    if (!key) return
    if (panelFields({ ...fit.value, guard: 'wire' }).some((f) => f.key === key)) open.value = 'panel'
    else if ([...holdFields, ...screwFields].some((f) => f.key === key)) open.value = 'hold'
    else open.value = 'place'
  },
  { immediate: true },
)
const setJob = (key: keyof Job, value: unknown, label?: string) => put(key, value, label)
</script>

<template>
  <section class="sheet stack fit-forms">
    <SegmentChoice v-model="open" label="What is told of the place" :options="pieces" />
    <FieldGrid
      v-if="open === 'place'"
      tight
      :record="plan.job"
      :fields="placeFields"
      :shape="jobSchema.shape"
      @set="setJob"
    />
    <template v-else-if="open === 'panel'">
      <FieldGrid tight :record="fit" :fields="panelFields(fit)" :shape="fitSchema.shape" @set="set" />
      <KeepClear />
    </template>
    <template v-else>
      <FieldGrid tight :record="plan.job" :fields="holdFields" :shape="jobSchema.shape" @set="setJob" />
      <FieldGrid tight :record="fit" :fields="screwFields" :shape="fitSchema.shape" @set="set" />
      <p v-if="report.mount?.measuredProblem" class="small bad">{{ report.mount.measuredProblem }}</p>
    </template>
  </section>
</template>

<style scoped>
.bad {
  color: var(--amber);
  font-weight: 600;
}
</style>
