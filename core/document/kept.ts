import type { StreamPlan } from './stream'

/**
 * Holds the airflow that a quietened job has with its present fan, before its path is changed: what was there is to be
 * kept, not what the present fan would move through the better path. Changes the plan; one that holds a flow already, or
 * has none to hold, stays as it is.
 * @param flow of the present fan on the path as it was found, m3/s; null where it is not known
 */
export function holdKeptFlow({ job }: StreamPlan, flow: number | null): void {
  if (job.goal !== 'quieten' || job.keepBasis !== 'existing-fan' || job.keptFlowM3s !== null) return
  if (flow !== null && flow > 0) job.keptFlowM3s = flow
}
