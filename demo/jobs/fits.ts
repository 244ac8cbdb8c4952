/** Where the fans of some jobs are cut in and held. All of it is invented. */
import { newFit, newThing, secondPlaceSchema, type Fit, type Job, type StreamPlan } from '#core/document'
import { mm } from './parts'

interface Placed {
  job: Partial<Job>
  fit: Partial<Fit>
}

/**
 * A birch door with the saws that are owned, a panel whose holes are there, a box, a locker whose screws are too long and
 * whose latch strikes, four fans beside a brace, an adapter to a window flap.
 */
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
      cutWay: 'saw',
      guardBarM: mm(0.8),
      filterM: mm(4),
      filterMedium: 'coarse',
      filterAreaM2: 0.1,
      filterHeld: 'slot',
      filterReach: true,
      cableM: mm(4.5),
      leadM: 0.9,
      routeM: 0.5,
      slackM: 0.2,
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
    job: { mountKind: 'rubber', mountIsolated: true, shaft: 'vertical' },
    fit: {
      material: 'plastic',
      panelM: mm(3),
      guard: 'none',
      reach: false,
      padM: mm(1),
      sinkM: mm(0.6),
      cableGapM: mm(30),
    },
  },
  'job-battery-locker': {
    job: { mountKind: 'self-tapping', holeM: mm(57), screwHoleM: mm(4.3) },
    fit: {
      material: 'plastic',
      panelM: mm(4),
      guard: 'perforated',
      guardM: mm(1),
      guardOpeningM: mm(3),
      guardBarM: mm(0.8),
      guardGapM: mm(8),
      reach: true,
      screwM: mm(20),
      cableGapM: mm(35),
      things: [{ ...newThing('latch', 'Latch of the lid'), fromPanelM: mm(42), moving: true, travelM: mm(22) }],
    },
  },
  'job-print-rack': {
    job: {},
    fit: {
      material: 'wood',
      panelM: mm(6),
      panelWidthM: mm(400),
      panelHeightM: mm(300),
      keepClear: [{ id: 'brace', name: 'Brace', leftM: 0, bottomM: mm(135), widthM: mm(400), heightM: mm(30) }],
      positions: [
        { xM: mm(100), yM: mm(225) },
        { xM: mm(300), yM: mm(225) },
        { xM: mm(100), yM: mm(75) },
        { xM: mm(300), yM: mm(75) },
      ],
      cutWay: 'saw',
      guard: 'wire',
      guardM: mm(1.2),
      guardOpeningM: mm(8),
      guardBarM: mm(1.4),
      guardGapM: mm(22),
      reach: true,
      gasketM: mm(2),
      screwM: mm(20),
      behindM: mm(21),
      cableGapM: mm(40),
    },
  },
  'job-tape-rack': {
    job: { direction: 'in', mountKind: 'near-flange', holeM: mm(114), screwHoleM: mm(4.5), shaft: 'vertical' },
    fit: {
      material: 'wood',
      panelM: mm(12),
      panelWidthM: mm(480),
      panelHeightM: mm(380),
      guard: 'none',
      reach: false,
      screwM: mm(30),
      behindM: mm(21),
      cableGapM: mm(30),
    },
  },
  'job-wax-bench': {
    job: { mountKind: 'near-flange', shaft: 'horizontal', holeM: mm(114), screwHoleM: mm(4.5) },
    fit: {
      material: 'wood',
      panelM: mm(4),
      guard: 'none',
      reach: false,
      cableGapM: mm(30),
      adapterFrom: 'square',
      adapterM: mm(120),
      adapterLengthM: mm(40),
    },
  },
}

/** The second place of the tape rack's fans: the back, where the air leaves. */
const tapeRackBack: StreamPlan['secondPlace'] = secondPlaceSchema.parse({
  job: {
    direction: 'out',
    fitDepthM: mm(45),
    fitWidthM: mm(110),
    mountKind: 'near-flange',
    holeM: mm(86),
    screwHoleM: mm(4.5),
    shaft: 'horizontal',
  },
  fit: {
    ...newFit('fit-tape-rack-back'),
    material: 'metal',
    panelM: mm(1.5),
    panelWidthM: mm(430),
    panelHeightM: mm(120),
    guard: 'wire',
    guardM: mm(1.2),
    guardOpeningM: mm(8),
    guardGapM: mm(22),
    reach: true,
    screwM: mm(16),
    behindM: mm(20),
    cableGapM: mm(30),
  },
})

/** A job with its place, where it has one. */
export function withFit(plan: StreamPlan): StreamPlan {
  const place = placed[plan.job.id]
  return place
    ? {
        ...plan,
        job: { ...plan.job, ...place.job },
        fit: { ...newFit(`fit-${plan.job.id}`), ...place.fit },
        secondPlace: plan.job.id === 'job-tape-rack' ? tapeRackBack : null,
      }
    : plan
}
