/** A job whose fans stand four in one panel, with a brace across it. All of it is invented. */
import { newStreamPlan, newSource, type StreamPlan } from '#core/document'
import { cm2, element, m3h, mm, target } from './parts'

/** Wet prints dry on wires behind a door; four fans in the back panel draw the air out. */
export function printRack(): StreamPlan {
  const plan = newStreamPlan('job-print-rack', 'Drying rack of the print table')
  Object.assign(plan.job, {
    goal: 'ventilate',
    equipment: 'Cupboard in which wet lino prints hang on wires',
    complaint: 'Prints take two days to dry, and the lowest row smells of oil.',
    untouchable: 'The door with its window',
    breathesIn: 'Print room, above the plinth',
    breathesOut: 'Print room, behind the cupboard',
    direction: 'out',
    intakeSide: 'front',
    outletSide: 'back',
    airOutlet: 'same-room',
    gasketed: true,
    intakeHeightM: 0.35,
    outletHeightM: 1.5,
    ambientC: 20,
    ambientMaxC: 27,
    hoursPerDay: 12,
    listenerM: 2,
    roomDbA: 29,
    volumeM3: 0.9,
    airChangesPerH: 80,
    mixing: 1.2,
    fitDepthM: mm(110),
    fitWidthM: mm(190),
    inletClearM: mm(85),
    outletClearM: mm(140),
    openingGapM: 1.4,
    baffled: true,
    mustNotFail: false,
    mains: false,
    flammable: false,
    openFlue: false,
    wet: false,
    mountKind: 'near-flange',
    holeM: mm(86),
    screwHoleM: mm(4.5),
    shaft: 'horizontal',
    touchC: 30,
  })
  plan.targets = [
    target('flow', m3h(80), 'back panel', 'Hale', 'Eighty times the air of the cupboard each hour'),
    target('level', 36, 'print table', 'Hale', 'People print beside it'),
  ]
  plan.path = [
    element('gap', 'opening', { name: 'Gap above the plinth', areaM2: cm2(260), basis: 'measured' }),
    element('cupboard', 'chamber', { name: 'Cupboard', areaM2: 0.5, basis: 'measured' }),
    element('fans', 'fan', { name: 'Fans' }),
    element('fit-guard', 'grille', {
      name: 'Guard',
      areaM2: cm2((4 * Math.PI * 8.6 ** 2) / 4),
      freeAreaRatio: null,
      pattern: 'slots',
      holeM: mm(8),
      pitchM: mm(9.4),
      basis: 'good-guess',
    }),
  ]
  plan.selection = {
    id: 'pick',
    fanId: 'fan-sedge-92x25-12v',
    secondFanId: null,
    secondCount: null,
    count: 4,
    arrangement: 'parallel',
    driveV: 12,
    duty: null,
  }
  plan.source = {
    ...newSource('source', 'adapter'),
    name: 'Wall adapter 12 V 2 A',
    nominalV: 12,
    lowV: 11.8,
    highV: 12.2,
    iMaxA: 2,
    wireAwg: 20,
    wireLengthM: 1.5,
    fuseFitted: true,
    fuseA: 1,
    polarityChecked: true,
  }
  return plan
}
