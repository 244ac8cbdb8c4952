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
      :aria-describedby="describedBy"
      @change="chosen"
    >
      <el-option v-for="(option, i) in options" :key="i" :value="i" :label="inUnits(option.label)" />
    </el-select>
  </FieldShell>
</template>
