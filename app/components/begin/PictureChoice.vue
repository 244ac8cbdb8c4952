<script setup lang="ts" generic="T extends Goal | Shape">
import type { Goal } from '#core/document'
import type { Shape } from '#core/begin'

/** One of a few, each with its picture and a sentence. */
defineProps<{ label: string; options: readonly { value: T; name: string; what: string }[]; modelValue: T }>()
const emit = defineEmits<{ 'update:modelValue': [value: T] }>()
</script>

<template>
  <el-radio-group
    class="pictures"
    :aria-label="label"
    :model-value="modelValue"
    @change="emit('update:modelValue', $event as T)"
  >
    <el-radio v-for="o in options" :key="o.value" border :value="o.value">
      <SketchPicture :of="o.value" />
      <span class="words"
        ><strong>{{ o.name }}</strong> <span class="small soft">{{ o.what }}</span></span
      >
    </el-radio>
  </el-radio-group>
</template>

<style scoped>
.pictures {
  display: grid;
  grid-template-columns: repeat(v-bind('options.length'), minmax(0, 1fr));
  gap: 8px;
  align-items: stretch;
}
.pictures :deep(.el-radio) {
  position: relative;
  height: 100%;
  margin: 0;
  padding: 8px 6px;
  align-items: flex-start;
  white-space: normal;
}
.pictures :deep(.el-radio__input) {
  position: absolute;
  top: 8px;
  left: 8px;
}
.pictures :deep(.el-radio__label) {
  width: 100%;
  padding: 0;
  line-height: 1.25;
  text-align: center;
}
.words {
  display: grid;
  gap: 2px;
}
@media (max-width: 900px) {
  .pictures {
    grid-template-columns: repeat(auto-fill, minmax(min(100%, 150px), 1fr));
  }
}
</style>
