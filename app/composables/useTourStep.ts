/** The step of the tour that is shown; null while nobody takes it. Apart, as every page asks and few take the tour. */
export const tourAt = ref<number | null>(null)
