<script setup lang="ts">
/** A drawing of the core's own, its words escaped there: dark on white, as on paper. */
const props = defineProps<{ svg: string }>()
const box = ref<HTMLElement>()
const draw = () => {
  const drawn = new DOMParser().parseFromString(props.svg, 'image/svg+xml').documentElement
  box.value?.replaceChildren(document.importNode(drawn, true))
}
onMounted(draw)
watch(() => props.svg, draw)
</script>

<template>
  <div ref="box" class="drawing" />
</template>

<style scoped>
.drawing {
  background: #ffffff;
  border-radius: 5px;
  padding: 6px;
  overflow-x: auto;
}
.drawing :deep(svg) {
  max-width: 100%;
  height: auto;
  display: block;
}
</style>
