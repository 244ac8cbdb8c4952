<script setup lang="ts">
/** What is rarely needed, folded under its title. It follows `open` when that changes, and the person in between. */
const props = defineProps<{ title?: string; open?: boolean }>()
const emit = defineEmits<{ /** it was opened by hand */ opened: [] }>()
const shown = ref<string | number | (string | number)[]>(props.open ? ['it'] : [])
/** what is folded in is made when the page stands, or when it is opened before */
const made = ref(false)
const make = () => (made.value = true)
if (props.open) make()
else onBeforeUnmount(inTurn(make))
watch(shown, make)
watch(
  () => props.open,
  (open) => {
    shown.value = open ? ['it'] : []
  },
)
const changed = (now: unknown) => {
  if (Array.isArray(now) && now.length) emit('opened')
}
</script>

<template>
  <el-collapse v-model="shown" class="fold" @change="changed">
    <el-collapse-item name="it">
      <template #title>
        <slot name="title">{{ title }}</slot>
      </template>
      <slot v-if="made" />
    </el-collapse-item>
  </el-collapse>
</template>
