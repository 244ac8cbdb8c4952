import { refDebounced } from '@vueuse/core'

/** How long a drawing stands back behind the figures that are typed, and how long at most while they go on, ms. */
const BEHIND_MS = 60
const AT_MOST_MS = 160

/**
 * What a large drawing shows: it follows its source after the frame with the new figures, so that typing does not wait for
 * the drawing; while a value is dragged it keeps following.
 */
export const useDrawn = <T>(source: () => T) =>
  refDebounced(computed(source), BEHIND_MS, { maxWait: AT_MOST_MS })
