import type { FactSources, SiFacts } from './sources'

/** What can hurt; questions that follow from another are asked only where that was answered with yes. */
export function safetyFacts({ plan }: FactSources): SiFacts {
  const { job } = plan
  const opens = job.opensSupply === true
  return {
    'safety.opensSupply': job.opensSupply,
    'safety.storedV': opens ? job.storedV : (job.storedV ?? undefined),
    'safety.discharged': opens || job.storedV !== null ? job.discharged : undefined,
    'safety.earthRefitted': opens || job.earthRefitted !== null ? job.earthRefitted : undefined,
    'safety.supplyOpening': job.supplyOpening,
    'safety.laser': job.laser,
    'safety.lightBaffle': job.lightBaffle,
    'safety.thermalCutout': job.thermalCutout,
    'safety.adapterInWet': job.adapterInWet,
    'safety.touchTemp': job.touchC ?? undefined,
    'safety.mainsExposed': job.mains,
    'safety.flammable': job.flammable,
    'safety.openFlue': job.openFlue,
    'safety.wet': job.wet,
    'safety.domain': job.domain,
  }
}
