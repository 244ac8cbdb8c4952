import { airChangesFlow, flowForJet } from '#core/need'
import type { Job } from '#core/document'
import type { NeedEnv } from './model'

/** Coefficient of performance of a small cooling unit where nobody knows it. Common practice, no source. */
export const COP = 1
/** A jet is felt at about this speed, m/s. Common practice, no source. */
export const FELT_SPEED = 0.25

/** Airflow for the wished turnovers, m3/s. */
export const turnoverFlow = (job: Job) =>
  job.volumeM3 && job.turnoversPerH ? airChangesFlow(job.volumeM3, job.turnoversPerH) : null
/** Airflow whose jet reaches the far end, m3/s. */
export const jetFlow = (job: Job, { outletBoreM }: NeedEnv) =>
  outletBoreM && job.jetReachM ? flowForJet(outletBoreM, job.jetReachM, job.jetSpeedMs ?? FELT_SPEED) : null
