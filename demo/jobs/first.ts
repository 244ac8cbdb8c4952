/** The first four jobs of the Tarn Lane Workshop: one finished with runs, one half-way, one with findings, one just measured. */
import { newConverter, newFeedPart, newStreamPlan, newSource, type StreamPlan } from '#core/document'
import { cm2, element, m3h, minutes, mm, reading, run, target } from './parts'

export function filmCabinet(): StreamPlan {
  const plan = newStreamPlan('job-film-cabinet', 'Film-drying cabinet')
  Object.assign(plan.job, {
    goal: 'ventilate',
    equipment: 'Plywood cabinet for drying negatives, 0.6 × 0.5 × 1.6 m',
    complaint:
      'Negatives take six hours to dry and pick up dust; the old desk fan is too loud for the reading corner.',
    untouchable: 'The door and its seal',
    breathesIn: 'Room air, 21 °C',
    breathesOut: 'Room',
    direction: 'in',
    ambientC: 21,
    ambientMaxC: 25,
    humidity: 0.5,
    altitudeM: 180,
    hoursPerDay: 4,
    listenerM: 1.5,
    roomDbA: 26,
    volumeM3: 0.46,
    airChangesPerH: 80,
    fitDepthM: mm(60),
    fitWidthM: mm(210),
    inletClearM: mm(150),
    outletClearM: mm(300),
    openingGapM: 1.3,
    hotPartInPath: null,
    baffled: true,
    mustNotFail: false,
    mains: false,
    flammable: false,
    openFlue: false,
    wet: false,
  })
  plan.targets = [
    target('flow', m3h(38), 'outlet grille', 'Odile', 'Dry in under two hours'),
    target('level', 32, 'reading chair', 'the readers', 'The reading corner is 1.5 m away'),
    target('money', 30, '', '', 'Club budget'),
  ]
  plan.path = [
    element('inlet-slot', 'opening', { name: 'Inlet slot', areaM2: cm2(210), edge: 'slot', basis: 'measured' }),
    element('pleated-filter', 'filter', {
      name: 'Pleated filter',
      areaM2: cm2(1000),
      medium: 'coarse',
      basis: 'good-guess',
    }),
    element('fans', 'fan', { name: 'Fans' }),
    element('film-bay', 'chamber', { name: 'Film bay', areaM2: cm2(3000), basis: 'measured' }),
    element('outlet-grille', 'grille', {
      name: 'Outlet grille',
      areaM2: cm2(250),
      freeAreaRatio: 0.6,
      basis: 'measured',
    }),
  ]
  plan.selection = {
    id: 'pick',
    fanId: 'fan-sedge-92x25-12v',
    count: 2,
    arrangement: 'parallel',
    driveV: 10.5,
    secondFanId: null,
    secondCount: null,
    duty: null,
  }
  plan.source = {
    ...newSource('source', 'adapter'),
    name: 'Wall adapter 12 V 1.5 A',
    lowV: 12,
    highV: 12.4,
    iMaxA: 1.5,
    wireAwg: 22,
    wireLengthM: 1.2,
    fuseFitted: true,
    fuseA: 1,
    polarityChecked: true,
  }
  plan.converter = { ...newConverter('converter', 10.5), iMaxA: 2, setFirst: true, measuredV: 10.52 }
  const desk = (n: number, at: string, level: number[], flow: number, ambientC: number) =>
    run(`run-before-${n}`, 'baseline', `2026-09-12T${at}:00.000Z`, {
      name: `Desk fan in the door, ${n}`,
      ambientC,
      distanceM: 0.5,
      soakS: minutes(30),
      steady: true,
      lid: 'closed',
      backgroundDbA: 26,
      instrument: 'class2',
      floorDbA: 22,
      calibrated: true,
      who: 'Odile',
      stoodAt: 'meter on the tape mark, vane through the hood on the grille',
      readings: [
        reading('r1', 'level', 'half a metre from the door', level[0]!, { repeats: level.slice(1) }),
        reading('r2', 'flow', 'outlet grille', m3h(flow), { method: 'hood', points: 9 }),
      ],
    })
  const fans = (n: number, at: string, level: number[], flow: number, ambientC: number) =>
    run(`run-after-${n}`, 'after', `2026-09-20T${at}:00.000Z`, {
      name: `Two fans at 10.5 V behind the filter, ${n}`,
      changed: 'fan',
      fanV: 10.5,
      voltageAt: 'fan',
      ambientC,
      distanceM: 0.5,
      soakS: minutes(30),
      steady: true,
      lid: 'closed',
      otherOpenings: true,
      backgroundDbA: 25,
      instrument: 'class2',
      floorDbA: 22,
      calibrated: true,
      changes: 1,
      who: 'Odile',
      stoodAt: 'meter on the tape mark, vane through the hood on the grille',
      readings: [
        reading('r1', 'level', 'half a metre from the door', level[0]!, { repeats: level.slice(1) }),
        reading('r2', 'flow', 'outlet grille', m3h(flow), { method: 'hood', points: 9 }),
      ],
    })
  plan.runs = [
    desk(1, '17:10', [49.2, 49.6, 48.9], 31, 21.5),
    desk(2, '17:55', [48.7, 49.1], 30.2, 21.6),
    desk(3, '18:40', [49.5, 49.3], 31.9, 21.8),
    fans(1, '17:05', [31.4, 31.2, 31.7], 49, 20.9),
    fans(2, '17:50', [31.1, 31.5], 48.1, 21),
    fans(3, '18:35', [31.8, 31.3], 49.8, 21.1),
    run('run-bench', 'bench', '2026-09-15T19:20:00.000Z', {
      name: 'One fan in a hood, nothing in the way',
      fanV: 12,
      voltageAt: 'fan',
      ambientC: 21,
      distanceM: 0.5,
      backgroundDbA: 24,
      instrument: 'class2',
      floorDbA: 22,
      who: 'Odile',
      readings: [
        reading('r1', 'flow', 'hood outlet', m3h(37.6), { method: 'hood', points: 9 }),
        reading('r2', 'rotation', 'fan', 1610),
        reading('r3', 'current', 'fan', 0.054),
      ],
    }),
  ]
  return plan
}

export function choirAmplifier(): StreamPlan {
  const plan = newStreamPlan('job-choir-amplifier', 'Choir power amplifier')
  Object.assign(plan.job, {
    goal: 'quieten',
    equipment: 'Two-channel power amplifier with a 24 V fan in its rear panel',
    complaint: 'The fan is louder than the soft passages.',
    untouchable: 'The mains side and its earth lead',
    breathesIn: 'Slots in the front',
    breathesOut: 'Rear panel',
    direction: 'out',
    ambientC: 23,
    ambientMaxC: 28,
    altitudeM: 180,
    hoursPerDay: 3,
    listenerM: 1,
    roomDbA: 27,
    keepBasis: 'temperature',
    existingFanId: 'fan-alder-80x25-24v',
    existingCount: 1,
    existingV: 24,
    measuredRiseK: 7,
    heatW: 45,
    heatBasis: 'estimate',
    insideMaxC: 60,
    fitDepthM: mm(40),
    fitWidthM: mm(90),
    inletClearM: mm(60),
    outletClearM: mm(200),
    mustNotFail: true,
    mains: false,
    flammable: false,
    openFlue: false,
    wet: false,
    hotPartInPath: true,
  })
  plan.targets = [
    target('level', 30, 'front row', '', 'Quieter than the hall'),
    target('temperature', 60, 'heatsink', '', 'Amplifier’s own limit is 75 °C'),
  ]
  plan.path = [
    element('front-slots', 'grille', {
      name: 'Front slots',
      areaM2: cm2(120),
      freeAreaRatio: 0.4,
      basis: 'measured',
    }),
    element('amplifier-case', 'chamber', { name: 'Amplifier case', areaM2: cm2(320), basis: 'good-guess' }),
    element('fin-stack', 'custom', { name: 'Fin stack', a: 250, b: 18000, basis: 'good-guess' }),
    element('fan-place', 'fan', { name: 'Fan' }),
    element('rear-guard', 'grille', {
      name: 'Rear guard',
      areaM2: cm2(50),
      freeAreaRatio: 0.8,
      basis: 'measured',
    }),
  ]
  plan.selection = {
    id: 'pick',
    fanId: 'fan-rowan-80x25-24v',
    count: 1,
    arrangement: 'single',
    driveV: 18,
    secondFanId: null,
    secondCount: null,
    duty: null,
  }
  plan.source = {
    ...newSource('source', 'rail'),
    name: 'Amplifier rail 24 V',
    nominalV: 24,
    lowV: 23.2,
    highV: 24.8,
    iMaxA: 0.5,
    regulated: true,
    wireAwg: 24,
    wireLengthM: 0.35,
    fuseFitted: true,
    fuseA: 0.5,
    polarityChecked: true,
  }
  plan.converter = { ...newConverter('converter', 18), iMaxA: 1, setFirst: false }
  plan.feed = [
    {
      ...newFeedPart('indicator', 'load', 'converter'),
      loadKind: 'led',
      currentA: 0.008,
      ratedV: 18,
      ledString: 1,
      ledV: 2.1,
      wireAwg: 24,
      wireLengthM: 0.6,
    },
  ]
  const alone = (id: string, source: string, stage: string, value: number) =>
    reading(id, 'level', 'front row', value, { source, stage })
  plan.runs = [
    run('run-before', 'baseline', '2026-11-08T17:00:00.000Z', {
      name: 'As it came',
      fanV: 24.1,
      voltageAt: 'fan',
      ambientC: 22,
      heatW: 45,
      distanceM: 1,
      soakS: minutes(40),
      steady: true,
      lid: 'closed',
      backgroundDbA: 24.5,
      instrument: 'class2',
      floorDbA: 20,
      stage: 'working',
      who: 'the organist',
      stoodAt: 'meter at ear height on the first chair',
      readings: [
        reading('r1', 'level', 'front row', 39.6, { repeats: [39.9, 39.4] }),
        reading('r2', 'temperature', 'heatsink', 48.5),
        reading('r3', 'rotation', 'fan', 2580),
        alone('r4', 'rear fan', 'working', 38.4),
        alone('r5', 'driver-stage fan', 'working', 32.1),
        alone('r6', 'transformer', 'working', 29.2),
        alone('r7', 'rear fan', 'idle', 33.2),
        alone('r8', 'transformer', 'idle', 28.8),
        reading('r9', 'level', 'front row', 34.7, { stage: 'idle' }),
        alone('r10', 'rear fan', 'everything on', 39.6),
        alone('r11', 'driver-stage fan', 'everything on', 37.5),
        alone('r12', 'transformer', 'everything on', 29.4),
        reading('r13', 'level', 'front row', 42, { stage: 'everything on' }),
      ],
    }),
  ]
  return plan
}

export function mushroomTent(): StreamPlan {
  const plan = newStreamPlan('job-mushroom-tent', 'Mushroom fruiting tent')
  Object.assign(plan.job, {
    goal: 'ventilate',
    equipment: 'Fruiting tent, 0.9 × 0.6 × 1.5 m',
    complaint: 'Stems grow long: too little fresh air since the fine filter was fitted.',
    untouchable: 'The zip and the window film',
    breathesIn: 'Cellar air',
    breathesOut: 'Hose to the window',
    direction: 'in',
    ambientC: 17,
    ambientMaxC: 24,
    humidity: 0.7,
    altitudeM: 180,
    hoursPerDay: 24,
    listenerM: 3,
    volumeM3: 0.81,
    airChangesPerH: 40,
    co2M3s: 0.05e-3 / 60,
    co2Max: 800e-6,
    insideC: 18,
    insideRhMax: 0.92,
    fitDepthM: mm(50),
    fitWidthM: mm(150),
    inletClearM: mm(25),
    openingGapM: mm(150),
    baffled: false,
    mains: false,
    flammable: false,
    wet: true,
  })
  plan.targets = [target('flow', m3h(30), 'hose end', '', 'Forty changes an hour')]
  plan.path = [
    element('fine-filter', 'filter', {
      name: 'Fine panel filter',
      areaM2: cm2(600),
      medium: 'hepa',
      basis: 'rough-guess',
    }),
    element('fan-place', 'fan', { name: 'Fan' }),
    element('tent', 'chamber', { name: 'Tent', areaM2: cm2(5400), basis: 'measured' }),
    element('hose', 'duct', {
      name: 'Hose to the window',
      diameterM: mm(60),
      lengthM: 2.5,
      surface: 'hose',
      slack: 3,
      basis: 'good-guess',
    }),
    element('hose-bends', 'bend', {
      name: 'Two bends',
      diameterM: mm(60),
      radiusRatio: 1,
      angleDeg: 90,
      count: 2,
    }),
    element('window-mesh', 'grille', { name: 'Window mesh', areaM2: cm2(40), freeAreaRatio: 0.45 }),
  ]
  plan.selection = {
    id: 'pick',
    fanId: 'fan-yarrow-120x25-12v',
    count: 1,
    arrangement: 'single',
    driveV: 24,
    secondFanId: null,
    secondCount: null,
    duty: null,
  }
  plan.source = {
    ...newSource('source', 'adapter'),
    name: 'Old 24 V adapter',
    nominalV: 24,
    lowV: 22.8,
    highV: 25.2,
    iMaxA: 1,
    wireAwg: 28,
    wireLengthM: 6,
    polarityChecked: false,
  }
  return plan
}

export function kilnBox(): StreamPlan {
  const plan = newStreamPlan('job-kiln-controller', 'Kiln-controller box')
  Object.assign(plan.job, {
    goal: 'cool',
    equipment: 'Steel box with two solid-state relays and a small supply',
    complaint: 'The relays trip on warm days.',
    untouchable: 'Mains wiring: the electrician’s',
    breathesIn: 'Bottom slots',
    breathesOut: 'Top grille',
    direction: 'out',
    ambientC: 30,
    ambientMaxC: 34,
    altitudeM: 180,
    hoursPerDay: 6,
    listenerM: 1,
    heatW: 60,
    heatBasis: 'measured',
    insideMaxC: 42,
    wallLossWK: 1.4,
    fitDepthM: mm(45),
    fitWidthM: mm(100),
    mustNotFail: true,
    mains: true,
    flammable: false,
    openFlue: false,
    wet: false,
    hotPartInPath: true,
    baffled: true,
  })
  plan.targets = [target('temperature', 42, 'beside the relays', '', 'Relays are rated to 50 °C')]
  plan.path = [
    element('bottom-slots', 'grille', {
      name: 'Bottom slots',
      areaM2: cm2(110),
      freeAreaRatio: 0.5,
      basis: 'measured',
    }),
    element('dust-foam', 'filter', { name: 'Dust foam', areaM2: cm2(140), medium: 'foam30' }),
    element('box', 'chamber', { name: 'Box', areaM2: cm2(900), basis: 'measured' }),
    element('fan-place', 'fan', { name: 'Fan' }),
    element('top-grille', 'grille', {
      name: 'Top grille',
      areaM2: cm2(64),
      freeAreaRatio: 0.6,
      basis: 'measured',
    }),
  ]
  plan.runs = [
    run('run-before', 'baseline', '2026-11-15T13:00:00.000Z', {
      name: 'Closed box, one firing',
      ambientC: 24,
      heatW: 60,
      soakS: minutes(60),
      steady: true,
      lid: 'closed',
      readings: [reading('r1', 'temperature', 'beside the relays', 61.2)],
    }),
  ]
  return plan
}
