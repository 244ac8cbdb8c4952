/** Where the fans of some jobs are cut in and held. All of it is invented. */
import { newFit, type Fit, type Job, type PlanDocument } from '#core/document'
import { mm } from './parts'

interface Placed {
  job: Partial<Job>
  fit: Partial<Fit>
}

/** A birch door with the saws that are owned, a panel whose holes are there, a tent whose screws are too long, a thin cover. */
const placed: Record<string, Placed> = {
  'job-film-cabinet': {
    job: { mountKind: 'screws', holeM: mm(86), screwHoleM: mm(4.5), shaft: 'horizontal' },
    fit: {
      material: 'wood',
      panelM: mm(9),
      panelWidthM: mm(420),
      panelHeightM: mm(250),
      guard: 'mesh',
      guardM: mm(1.5),
      guardOpeningM: mm(4),
      guardShape: 'square',
      guardGapM: mm(12),
      reach: true,
      gasketM: mm(2),
      washers: 2,
      screwM: mm(45),
      behindM: mm(22),
      cableGapM: mm(40),
      sideMeasuredM: mm(91.9),
      spacingMeasuredM: mm(82.4),
    },
  },
  'job-choir-amplifier': {
    job: {
      mountKind: 'near-flange',
      holeM: mm(76),
      screwHoleM: mm(4.3),
      existingHolesM: mm(71.5),
      shaft: 'horizontal',
    },
    fit: {
      material: 'metal',
      panelM: mm(1.5),
      guard: 'wire',
      guardM: mm(1.2),
      guardOpeningM: mm(8),
      guardGapM: mm(22),
      reach: true,
      screwM: mm(16),
      behindM: mm(20),
      cableGapM: mm(25),
    },
  },
  'job-cheese-box': {
    job: { mountKind: 'rubber', shaft: 'vertical' },
    fit: { material: 'plastic', panelM: mm(3), guard: 'none', reach: false, padM: mm(1), cableGapM: mm(30) },
  },
  'job-battery-locker': {
    job: { mountKind: 'self-tapping', holeM: mm(57), screwHoleM: mm(4.3) },
    fit: {
      material: 'plastic',
      panelM: mm(4),
      guard: 'mesh',
      guardM: mm(1),
      guardOpeningM: mm(3),
      guardGapM: mm(8),
      reach: true,
      screwM: mm(20),
      cableGapM: mm(35),
    },
  },
}

/** A job with its place, where it has one. */
export function withFit(plan: PlanDocument): PlanDocument {
  const place = placed[plan.job.id]
  return place
    ? { ...plan, job: { ...plan.job, ...place.job }, fit: { ...newFit(`fit-${plan.job.id}`), ...place.fit } }
    : plan
}
