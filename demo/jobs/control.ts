/** When the fans of some jobs run, and what their days are like. All of it is invented. */
import {
  newControlOf,
  newDay,
  newStreamPlan,
  newSource,
  type Control,
  type Day,
  type StreamPlan,
  type School,
  type ThermalPartDoc,
} from '#core/document'
import { cm2, element, mm, target } from './parts'

const hours = (h: number) => h * 3600
const work = (id: string, name: string, from: number, to: number, watts: number) => ({
  id,
  name,
  fromS: hours(from),
  toS: hours(to),
  watts,
})
const part = (id: string, name: string, rest: Partial<ThermalPartDoc>): ThermalPartDoc => ({
  id,
  name,
  streamId: 'main',
  limitC: null,
  massKg: null,
  material: null,
  capacityJK: null,
  stillWK: null,
  movedWK: null,
  atM3s: null,
  loadShare: null,
  basis: 'typed',
  ...rest,
})

interface Steered {
  school: School
  control: Partial<Control>
  day: Partial<Day>
}

/**
 * A locker on battery and sun whose thermostat sits on the battery's case; a bench that is quiet until wax melts and runs
 * on for the fume; a tank whose fan goes by the clock.
 */
const steered: Record<string, Steered> = {
  'job-film-cabinet': {
    school: 'timer',
    control: {
      name: 'Clock in the lead',
      actuator: 'contact',
      timerOnS: hours(8),
      timerEveryS: hours(24),
      timerStepS: 900,
      operations: 100_000,
      snubber: true,
      whenDead: 'off',
      interlock: true,
      tachAlarm: false,
      price: 5,
    },
    day: { usualLowC: 19, usualHighC: 22, hotLowC: 22, hotHighC: 27, loads: [], idleW: 0 },
  },
  'job-battery-locker': {
    school: 'thermostat',
    control: {
      name: 'Thermostat board',
      actuator: 'relay',
      sensedId: 'battery-case',
      sensorKind: 'thermistor',
      sensorLagS: 90,
      onC: 30,
      offC: 25.5,
      onFault: 'full',
      whenDead: 'off',
      secondC: 38,
      tachAlarm: true,
      alarmHoldS: 8,
      interlock: true,
      operations: 100_000,
      snubber: true,
      price: 6,
    },
    day: {
      coldLowC: 4,
      coldHighC: 11,
      usualLowC: 13,
      usualHighC: 24,
      hotLowC: 19,
      hotHighC: 33,
      loads: [work('charge', 'charging', 9, 16, 22)],
      idleW: 1,
      month: 4,
      greyShare: 0.15,
      lightFromS: hours(6.5),
      lightToS: hours(19.5),
      week: ['usual', 'cold', 'cold', 'cold', 'usual', 'hot', 'usual'],
      parts: [
        part('battery-case', 'Battery', {
          limitC: 42,
          capacityJK: 9600,
          stillWK: 0.9,
          movedWK: 6.5,
          loadShare: 1,
          basis: 'measured',
        }),
      ],
    },
  },
  'job-wax-bench': {
    school: 'boost',
    control: {
      name: 'Hood',
      actuator: 'converter',
      quietDuty: 0.62,
      demandW: 40,
      runOnS: 600,
      runOnFrom: 'always-on',
      whenDead: 'full',
      interlock: true,
      price: 9,
    },
    day: {
      usualLowC: 17,
      usualHighC: 21,
      hotLowC: 20,
      hotHighC: 27,
      loads: [work('morning', 'melting', 9.5, 11, 140), work('afternoon', 'melting', 14, 16.5, 140)],
      idleW: 0,
    },
  },
  'job-hydroponic-tank': {
    school: 'timer',
    control: {
      name: 'Socket clock',
      actuator: 'relay',
      timerOnS: 1800,
      timerEveryS: 3600,
      timerStepS: 900,
      operations: 1_000_000,
      snubber: true,
      price: 8,
    },
    day: { usualLowC: 21, usualHighC: 27, hotLowC: 24, hotHighC: 31, loads: [], idleW: 0 },
  },
}

/** A plan with its control and its days, where it has some. */
export function withControl(plan: StreamPlan): StreamPlan {
  const own = steered[plan.job.id]
  if (!own) return plan
  plan.controls = [{ ...newControlOf('control', own.school, [plan.stream]), ...own.control }]
  plan.day = { ...newDay('day'), ...own.day }
  return plan
}

const picked = (fanId: string, driveV: number, duty: number | null): StreamPlan['selection'] => ({
  id: 'pick',
  fanId,
  secondFanId: null,
  secondCount: null,
  count: 1,
  arrangement: 'single',
  driveV,
  duty,
})

/** A recorder that is heard at night: a curve on the PWM wire, quiet in the evening, firm in the afternoon's heat. */
export function recorderShelf(): StreamPlan {
  const plan = newStreamPlan('job-recorder-shelf', 'Recorder shelf of the sound archive')
  Object.assign(plan.job, {
    goal: 'cool',
    equipment: 'Closed shelf with a disk recorder and its supply',
    complaint: 'Its fan screams through the night, and in August the disks report 58 °C.',
    untouchable: 'The recorder’s own case',
    breathesIn: 'Archive room, at the plinth',
    breathesOut: 'Archive room, behind the shelf',
    direction: 'out',
    intakeSide: 'front',
    outletSide: 'back',
    airOutlet: 'same-room',
    ambientC: 28,
    ambientMaxC: 30,
    hoursPerDay: 24,
    listenerM: 1.5,
    roomDbA: 24,
    heatW: 46,
    heatBasis: 'measured',
    insideMaxC: 36,
    wallLossWK: 1.1,
    fitDepthM: mm(60),
    fitWidthM: mm(125),
    inletClearM: mm(60),
    outletClearM: mm(90),
    openingGapM: 0.4,
    baffled: true,
    hotPartInPath: true,
    mustNotFail: false,
    mains: false,
    flammable: false,
    openFlue: false,
    wet: false,
  })
  plan.targets = [
    target('temperature', 36, 'shelf', 'Oona', 'The recorder’s paper says so'),
    { ...target('level', 25, 'reading desk', 'Oona', 'The caretaker sleeps next door'), stage: 'night' },
  ]
  plan.path = [
    element('plinth', 'grille', {
      name: 'Plinth slots',
      areaM2: cm2(190),
      freeAreaRatio: 0.55,
      basis: 'measured',
    }),
    element('shelf', 'chamber', { name: 'Shelf', areaM2: 0.12, basis: 'measured' }),
    element('fan', 'fan', { name: 'Fan' }),
    element('guard', 'grille', {
      name: 'Guard',
      areaM2: cm2(95),
      freeAreaRatio: 0.82,
      style: 'guard',
      basis: 'measured',
    }),
  ]
  plan.selection = picked('fan-teasel-120x25-12v-hp', 12, 1)
  plan.source = {
    ...newSource('source', 'adapter', 12),
    name: 'Wall adapter 12 V 1 A',
    lowV: 11.8,
    highV: 12.2,
    iMaxA: 1,
    wireAwg: 22,
    wireLengthM: 1.2,
    polarityChecked: true,
  }
  Object.assign(plan.wiring, {
    pwmFrom: 'controller',
    pwmPinV: 5,
    pwmSinkA: 0.02,
    tachTo: 'controller',
    groundsJoined: true,
    identifiedBy: 'measurement',
    strainRelief: true,
  })
  plan.controls = [
    {
      ...newControlOf('control', 'curve', [plan.stream]),
      name: 'Curve on the board',
      actuator: 'pwm-wire',
      sensedId: 'disks',
      sensorKind: 'digital',
      sensorLagS: 15,
      points: [
        { temperatureC: 30, duty: 0.25 },
        { temperatureC: 38, duty: 0.4 },
        { temperatureC: 47, duty: 1 },
      ],
      hysteresisK: 2,
      filterTauS: 8,
      rampUpPerS: 0.1,
      rampDownPerS: 0.03,
      minDuty: 0.25,
      startDuty: 0.3,
      kickDuty: 1,
      kickS: 0.5,
      fanStop: false,
      pwmHz: 25_000,
      clockHz: 16e6,
      prescaler: 1,
      timerTop: 639,
      onFault: 'full',
      whenDead: 'full',
      tachAlarm: true,
      interlock: false,
      price: 7,
    },
  ]
  plan.day = {
    ...newDay('day'),
    coldLowC: 16,
    coldHighC: 19,
    usualLowC: 19,
    usualHighC: 24,
    hotLowC: 24,
    hotHighC: 30,
    loads: [work('copying', 'copying', 9, 17, 46), work('evening', 'reading', 17, 20, 30)],
    idleW: 16,
    nightFromS: hours(22),
    nightToS: hours(6),
    parts: [
      part('disks', 'Disks', {
        limitC: 50,
        massKg: 2.4,
        material: 'electronics',
        stillWK: 0.45,
        movedWK: 2,
        loadShare: 0.55,
      }),
      part('supply', 'Supply', {
        limitC: 75,
        massKg: 0.6,
        material: 'aluminium',
        stillWK: 0.4,
        movedWK: 1.3,
        loadShare: 0.45,
      }),
    ],
    links: [{ id: 'case', fromId: 'supply', toId: 'disks', conductanceWK: 0.2 }],
  }
  return plan
}

/** A cupboard whose thermostat was set by feel: on and off a kelvin apart, on a small relay. It chatters, and is told so. */
export function hallCupboard(): StreamPlan {
  const plan = newStreamPlan('job-hall-cupboard', 'Network cupboard in the hall')
  Object.assign(plan.job, {
    goal: 'cool',
    equipment: 'Cupboard with the house’s network box and its adapters',
    complaint: 'The fan goes on and off all evening, and the box still throttles.',
    untouchable: 'The landlord’s door',
    breathesIn: 'Hall, under the door',
    breathesOut: 'Hall, above the door',
    direction: 'out',
    airOutlet: 'same-room',
    ambientC: 27,
    ambientMaxC: 28,
    hoursPerDay: 24,
    listenerM: 2,
    heatW: 24,
    heatBasis: 'nameplate',
    insideMaxC: 38,
    wallLossWK: 0.6,
    fitDepthM: mm(40),
    fitWidthM: mm(85),
    inletClearM: mm(50),
    outletClearM: mm(60),
    openingGapM: 1.6,
    baffled: true,
    hotPartInPath: true,
    mustNotFail: false,
    mains: false,
    flammable: false,
    openFlue: false,
    wet: false,
  })
  plan.targets = [target('temperature', 45, 'on the network box', 'Perrin', 'It throttles above that')]
  plan.path = [
    element('gap', 'opening', { name: 'Gap under the door', areaM2: cm2(60), edge: 'slot', basis: 'measured' }),
    element('cupboard', 'chamber', { name: 'Cupboard', areaM2: 0.3, basis: 'measured' }),
    element('fan', 'fan', { name: 'Fan' }),
    element('slots', 'grille', { name: 'Slots above', areaM2: cm2(60), freeAreaRatio: 0.6, basis: 'measured' }),
  ]
  plan.selection = picked('fan-sedge-80x25-12v', 12, null)
  plan.source = {
    ...newSource('source', 'adapter', 12),
    name: 'Wall adapter 12 V 0.5 A',
    lowV: 11.7,
    highV: 12.3,
    iMaxA: 0.5,
    wireAwg: 24,
    wireLengthM: 0.8,
    polarityChecked: true,
  }
  plan.controls = [
    {
      ...newControlOf('control', 'thermostat', [plan.stream]),
      name: 'Thermostat module',
      actuator: 'relay',
      sensedId: 'box',
      sensorKind: 'thermistor',
      sensorLagS: 10,
      onC: 40,
      offC: 39,
      onFault: null,
      operations: 100_000,
      price: 4,
    },
  ]
  plan.day = {
    ...newDay('day'),
    usualLowC: 19,
    usualHighC: 23,
    hotLowC: 23,
    hotHighC: 28,
    loads: [work('evening', 'everybody home', 17, 23, 24)],
    idleW: 14,
    parts: [
      part('box', 'Network box', {
        limitC: 48,
        massKg: 0.35,
        material: 'electronics',
        stillWK: 0.55,
        movedWK: 1.9,
        loadShare: 1,
      }),
    ],
  }
  return plan
}
