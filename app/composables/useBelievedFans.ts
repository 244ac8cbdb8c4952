import { trustedFans } from '../../core/plan'

/** The fans as the open job believes them: claims, own tests, or claims less what the shelf has shown. */
export function useBelievedFans() {
  const job = useJobStore()
  const shelf = useShelfStore()
  return computed(() => trustedFans(shelf.known, job.plan?.job.trust ?? 'claims', shelf.shown))
}
