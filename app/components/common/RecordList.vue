<script setup lang="ts" generic="T extends object">
import type { Field, Shape } from '~/forms/field'

/** A list of small records, each a line of fields that can be taken out, with one button to add another. */
const props = defineProps<{
  records: readonly T[]
  fields: (record: T) => Field<keyof T & string>[]
  shape: Shape
  /** what stands on the button, and how a record is called */
  add: string
  nameOf: (record: T, index: number) => string
  most: number
}>()
const emit = defineEmits<{
  add: []
  set: [index: number, key: keyof T & string, value: unknown, label?: string]
  remove: [index: number]
}>()
const box = useTemplateRef<HTMLElement>('box')
async function added() {
  emit('add')
  await nextTick()
  const rows = box.value?.querySelectorAll<HTMLElement>('.record')
  rows?.[rows.length - 1]?.querySelector('input')?.focus()
}
async function remove(index: number) {
  emit('remove', index)
  await nextTick()
  box.value?.querySelector<HTMLElement>('.more')?.focus()
}
const full = computed(() => props.records.length >= props.most)
</script>

<template>
  <div ref="box" class="stack">
    <div v-for="(record, i) in records" :key="i" class="record row">
      <FieldGrid
        tight
        class="wide"
        :record="record"
        :fields="fields(record)"
        :shape="shape"
        @set="(key, value, label) => emit('set', i, key, value, label)"
      />
      <el-button text size="small" :aria-label="`Remove ${nameOf(record, i)}`" class="away" @click="remove(i)"
        >×</el-button
      >
    </div>
    <div>
      <el-button size="small" class="more" :disabled="full" @click="added">{{ add }}</el-button>
      <span v-if="full" class="small soft"> {{ most }} at most.</span>
    </div>
  </div>
</template>

<style scoped>
.record {
  align-items: flex-start;
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
.away {
  min-width: 28px;
}
.wide {
  flex: 1;
}
</style>
