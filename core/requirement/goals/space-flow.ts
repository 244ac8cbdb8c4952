import {
  airChangesFlow,
  airflowForClearOut,
  airflowForExcess,
  airflowForMoisture,
  type MoistureCase,
} from '#core/need'
import type { Job } from '#core/document'
import { largest, type NeedEnv } from './model'

/** Mixing factor of a usual room and what is left when a space counts as clear. Common practice, no source. */
export const MIXING = 3
export const CLEAR_SHARE = 0.05
/** CO2 outdoors where nobody measured it, volume ratio. From memory: about 420 ppm. */
export const CO2_OUTDOORS = 420e-6

/** The moisture balance of a job; null without a limit inside. */
export const moistureCase = (job: Job, { air }: NeedEnv): MoistureCase | null =>
  job.insideRhMax === null
    ? null
    : {
        insideC: job.insideC ?? job.ambientC,
        insideRh: job.insideRhMax,
        outsideC: job.ambientC,
        outsideRh: job.humidity,
        pressurePa: air.pressurePa,
      }

/** Every way to ask for fresh air, each with its flow; those without inputs are null. */
export function asks(job: Job, env: NeedEnv) {
  const state = moistureCase(job, env)
  return {
    changes: job.volumeM3 && job.airChangesPerH ? airChangesFlow(job.volumeM3, job.airChangesPerH) : null,
    clearOut:
      job.volumeM3 && job.clearS
        ? airflowForClearOut(job.volumeM3, job.clearS, job.mixing ?? MIXING, job.clearShare ?? CLEAR_SHARE)
        : null,
    moisture: state && job.waterKgS ? airflowForMoisture(job.waterKgS, state) : null,
    co2:
      job.co2M3s && job.co2Max ? airflowForExcess(job.co2M3s, job.co2Max, job.co2Fresh ?? CO2_OUTDOORS) : null,
  }
}

export type Ask = keyof ReturnType<typeof asks>
/** The ask that wants most air. */
export function rulingAsk(job: Job, env: NeedEnv): Ask {
  const all = asks(job, env)
  const flow = largest(Object.values(all))
  return (Object.keys(all) as Ask[]).find((k) => all[k] !== null && all[k] === flow) ?? 'changes'
}
