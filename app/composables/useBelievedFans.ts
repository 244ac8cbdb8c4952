import { trustedFans } from '#core/selection'

/** The fans as the open job believes them: claims, own tests, or claims less what the shelf has shown. */
export function useBelievedFans() {
  const job = useJobStore()
  const shelf = useShelfStore()
  // apart, so that a change of the plan does not go through the whole shelf again
  const trust = computed(() => job.plan?.job.trust ?? 'claims')
  return computed(() => trustedFans(shelf.known, trust.value, shelf.shown))
}
