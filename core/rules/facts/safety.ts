import type { FactSources, SiFacts } from './sources'

/** What can hurt. */
export function safetyFacts({ plan }: FactSources): SiFacts {
  const { job } = plan
  return {
    'safety.opensSupply': job.opensSupply,
    'safety.storedV': job.storedV,
    'safety.discharged': job.discharged,
    'safety.earthRefitted': job.earthRefitted,
    'safety.supplyOpening': job.supplyOpening,
    'safety.laser': job.laser,
    'safety.lightBaffle': job.lightBaffle,
    'safety.thermalCutout': job.thermalCutout,
    'safety.adapterInWet': job.adapterInWet,
    'safety.touchTemp': job.touchC,
    'safety.mainsExposed': job.mains,
    'safety.flammable': job.flammable,
    'safety.openFlue': job.openFlue,
    'safety.wet': job.wet,
    'safety.domain': job.domain,
    'noise.target': plan.targets.find((t) => t.kind === 'level')?.limit,
    'noise.other': job.roomDbA,
    ...(job.flammable ? { 'fan.exCertified': false } : {}),
  }
}
