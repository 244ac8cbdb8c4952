/** Counts up when a variant was kept, so that the list of variants reads itself anew. */
export const variantsChanged = ref(0)
