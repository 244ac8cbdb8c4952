/** True once the page has been drawn without it: a drawing comes after the words and figures it stands among. */
export function useAfterFirstFrame() {
  const due = ref(false)
  onMounted(() => requestAnimationFrame(() => setTimeout(() => (due.value = true))))
  return due
}
