/** Jobs whose fans stand at several places: at both ends of a cabinet, and in openings alike. All of it is invented. */
import { newFeedPart, newStreamPlan, newSource, newTarget, type StreamPlan } from '#core/document'
import { branch, cm2, element, m3h, mm, target } from './parts'

/** Two fans in the floor blow in through a filter, two at the back draw out. */
export function tapeRack(): StreamPlan {
  const plan = newStreamPlan('job-tape-rack', 'Tape rack of the sound archive')
  Object.assign(plan.job, {
    goal: 'cool',
    equipment: 'Rack with three tape machines and their supplies behind a glass door',
    complaint: 'The top machine is too hot to touch, and dust lies on the heads.',
    untouchable: 'The glass door and the side panels',
    breathesIn: 'Floor of the archive',
    breathesOut: 'Behind the rack',
    intakeSide: 'bottom',
    outletSide: 'back',
    airOutlet: 'same-room',
    ambientC: 21,
    ambientMaxC: 26,
    hoursPerDay: 9,
    listenerM: 1.5,
    heatW: 210,
    heatBasis: 'nameplate',
    insideMaxC: 35,
    margin: 0.2,
    fitDepthM: mm(50),
    fitWidthM: mm(120),
    inletClearM: mm(90),
    outletClearM: mm(120),
    openingGapM: 1.1,
    baffled: true,
    hotPartInPath: true,
    mustNotFail: false,
    mains: false,
    flammable: false,
    openFlue: false,
    wet: false,
  })
  plan.targets = [
    target('level', 36, 'listening chair', 'Oona', 'Tapes are listened to in the same room'),
    newTarget(
      {
        id: 'target-pressure',
        kind: 'pressure',
        limit: 1,
        sense: 'least',
        place: 'inside against the room',
        setBy: 'Oona',
        why: 'Over the room’s pressure no dust comes in by the door',
      },
      'main',
    ),
  ]
  plan.path = [
    element('floor-grille', 'grille', {
      name: 'Floor grille',
      areaM2: cm2(320),
      freeAreaRatio: 0.7,
      basis: 'measured',
    }),
    element('dust-filter', 'filter', {
      name: 'Dust filter',
      areaM2: cm2(1500),
      medium: 'coarse',
      loadFactor: 1,
      basis: 'good-guess',
    }),
    element('floor-fans', 'fan', { name: 'Floor', widthM: mm(120) }),
    element('inside', 'chamber', { name: 'Inside the rack', areaM2: cm2(2600), basis: 'measured' }),
    element('back-fans', 'fan', { name: 'Back', widthM: mm(92) }),
    element('back-guards', 'grille', {
      name: 'Guards at the back',
      areaM2: cm2(130),
      freeAreaRatio: 0.8,
      style: 'guard',
      basis: 'measured',
    }),
  ]
  plan.selection = {
    id: 'pick',
    fanId: 'fan-sedge-120x25-12v',
    secondFanId: 'fan-sedge-92x25-12v',
    secondCount: 2,
    count: 4,
    arrangement: 'places',
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
    wireLengthM: 1.2,
    fuseFitted: true,
    fuseA: 2,
    polarityChecked: true,
  }
  plan.feed = [
    {
      ...newFeedPart('rack-switch', 'switch', null),
      name: 'Thermal switch under the top board',
      switchKind: 'thermal-no',
      onC: 30,
      offC: 25,
      sensorAt: 'the top board, above the middle machine',
      contactV: 24,
      contactA: 2,
      carriesFans: true,
      wireAwg: 20,
      wireLengthM: 0.4,
    },
  ]
  plan.wiring = { ...plan.wiring, identifiedBy: 'position', join: 'adapter', strainRelief: true }
  return plan
}

/** A seed store with four outlets alike in its roof, a fan in each. */
export function seedStore(): StreamPlan {
  const plan = newStreamPlan('job-seed-store', 'Roof of the seed store')
  Object.assign(plan.job, {
    goal: 'ventilate',
    equipment: 'Wooden store with a felt roof, four outlets alike under the ridge',
    complaint: 'Under the roof it smells musty after rain.',
    untouchable: 'The rafters',
    breathesIn: 'Slots under the eaves',
    breathesOut: 'Under the ridge',
    direction: 'out',
    intakeSide: 'front',
    outletSide: 'top',
    airOutlet: 'outdoors',
    outletToOpeningM: 3,
    backflowFlap: true,
    ambientC: 12,
    ambientMaxC: 30,
    humidity: 0.8,
    hoursPerDay: 10,
    listenerM: 4,
    volumeM3: 31,
    airChangesPerH: 3.5,
    mixing: 1.5,
    fitDepthM: mm(60),
    fitWidthM: mm(120),
    inletClearM: mm(200),
    outletClearM: mm(100),
    openingGapM: 2,
    baffled: false,
    mustNotFail: false,
    mains: false,
    flammable: false,
    openFlue: null,
    wet: false,
  })
  plan.targets = [
    target(
      'flow',
      m3h(110),
      'through the roof',
      'Jory',
      'Three and a half times the air of the store each hour',
    ),
  ]
  plan.path = [
    element('eaves', 'slot', {
      name: 'Slots under the eaves',
      widthM: 4.2,
      gapM: mm(9),
      lengthM: mm(22),
      basis: 'measured',
    }),
    element('store', 'chamber', { name: 'Store', areaM2: 9.5, basis: 'measured' }),
    element('outlets', 'split', { name: 'Roof outlets' }),
    element('outlet-fan', 'fan', { name: 'Fan', branchId: 'outlet' }),
    element('outlet-mesh', 'grille', {
      name: 'Insect mesh',
      areaM2: cm2(110),
      style: 'mesh',
      freeAreaRatio: 0.6,
      basis: 'good-guess',
      branchId: 'outlet',
    }),
    element('outlet-flap', 'flap', {
      name: 'Flap against the wind',
      diameterM: mm(118),
      basis: 'rough-guess',
      branchId: 'outlet',
    }),
  ]
  plan.branches = [branch('outlet', 'outlets', 'Outlet', false, 4)]
  plan.selection = {
    id: 'pick',
    fanId: 'fan-burnet-120x25-12v',
    secondFanId: null,
    secondCount: null,
    count: 4,
    arrangement: 'parallel',
    driveV: 12,
    duty: null,
  }
  plan.source = {
    ...newSource('source', 'adapter'),
    name: 'Wall adapter 12 V 3 A',
    nominalV: 12,
    lowV: 11.8,
    highV: 12.2,
    iMaxA: 3,
    wireAwg: 18,
    wireLengthM: 6,
    fuseFitted: true,
    fuseA: 2,
    polarityChecked: true,
  }
  plan.feed = [
    {
      ...newFeedPart('work-lamp', 'load', null),
      name: 'Lamp over the bins',
      loadKind: 'other',
      currentA: 0.35,
      wireAwg: 20,
      wireLengthM: 3,
    },
  ]
  return plan
}
