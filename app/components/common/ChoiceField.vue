<script setup lang="ts" generic="T extends string | number | boolean | null">
/** One of a few; long lists can be searched. Chosen by its place in the list, since a choice may be "not known", null. */
const props = defineProps<{
  label: string
  modelValue: T
  options: { value: T; label: string }[]
  hint?: string
  hideLabel?: boolean
}>()
const emit = defineEmits<{ 'update:modelValue': [value: T] }>()
const { inUnits } = useUnits()
const id = useId()
const index = computed(() => props.options.findIndex((o) => o.value === props.modelValue))
/** From so many on a list can be searched. */
const SEARCHED = 12
/** Of a list of thousands so many are shown; typing narrows them. */
const SHOWN = 200
const typed = ref('')
const numbered = computed(() => props.options.map((option, at) => ({ ...option, at })))
const found = computed(() => {
  const words = typed.value.trim().toLowerCase()
  return words ? numbered.value.filter((o) => o.label.toLowerCase().includes(words)) : numbered.value
})
const isLong = computed(() => props.options.length > SHOWN)
/** What is listed: all, or the first of those that match with the chosen one, whose name stands in the field. */
const listed = computed(() => {
  if (!isLong.value) return numbered.value
  const first = found.value.slice(0, SHOWN)
  const chosenOne = numbered.value[index.value]
  return chosenOne && !typed.value && !first.includes(chosenOne) ? [chosenOne, ...first] : first
})
const left = computed(() => (isLong.value ? Math.max(0, found.value.length - SHOWN) : 0))
function narrow(words: string) {
  typed.value = words
}
function chosen(at: number) {
  const option = props.options[at]
  if (option) emit('update:modelValue', option.value)
}
</script>

<template>
  <FieldShell :id="id" v-slot="{ describedBy }" :label="label" :hide-label="hideLabel" :hint="hint">
    <el-select
      :id="id"
      :model-value="index < 0 ? undefined : index"
      :persistent="false"
      placeholder="choose"
      :filterable="options.length >= SEARCHED"
      :filter-method="isLong ? narrow : undefined"
      :aria-describedby="describedBy"
      @change="chosen"
      @visible-change="typed = ''"
    >
      <el-option v-for="o in listed" :key="o.at" :value="o.at" :label="inUnits(o.label)" />
      <el-option v-if="left" :value="-1" :label="`${left} more: type a part of the name`" disabled />
    </el-select>
  </FieldShell>
</template>
