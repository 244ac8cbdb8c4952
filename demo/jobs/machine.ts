/** A machine of four air streams on two rails, changed one fan after another. All of it is invented. */
import {
  newFeedPart,
  newStreamPlan,
  newSource,
  newStream,
  type FanSelection,
  type StreamPlan,
  type Run,
  type Stream,
} from '#core/document'
import { cm2, element, m3h, minutes, mm, reading, run, target } from './parts'

const one = (id: string, fanId: string, driveV: number): FanSelection => ({
  id,
  fanId,
  secondFanId: null,
  secondCount: null,
  count: 1,
  arrangement: 'single',
  driveV,
  duty: null,
})

/** A grille, a box, the fan and its guard. */
const boxPath = (
  id: string,
  { inCm2, free, boxCm2, outCm2 }: Record<'inCm2' | 'free' | 'boxCm2' | 'outCm2', number>,
) => [
  element(`${id}-slots`, 'grille', {
    name: 'Slots',
    areaM2: cm2(inCm2),
    freeAreaRatio: free,
    basis: 'measured',
  }),
  element(`${id}-box`, 'chamber', { name: 'Inside', areaM2: cm2(boxCm2), basis: 'good-guess' }),
  element(`${id}-fan`, 'fan', { name: 'Fan' }),
  element(`${id}-guard`, 'grille', {
    name: 'Guard',
    areaM2: cm2(outCm2),
    freeAreaRatio: 0.8,
    style: 'guard',
    basis: 'measured',
  }),
]

function boardStream(): Stream {
  const stream = newStream('stream-board', 'Board')
  Object.assign(stream.job, {
    goal: 'cool',
    heatW: 26,
    heatBasis: 'estimate',
    insideMaxC: 45,
    direction: 'in',
    airOutlet: 'same-room',
    existingFanId: 'fan-rowan-40x28-12v-hp',
    existingV: 12,
    fitDepthM: mm(32),
    fitWidthM: mm(42),
    inletClearM: mm(30),
  })
  stream.path = boxPath('board', { inCm2: 20, free: 0.6, boxCm2: 60, outCm2: 12 })
  stream.selection = one('pick-board', 'fan-sedge-40x20-12v', 12)
  return stream
}

function drumStream(): Stream {
  const stream = newStream('stream-drum', 'Drum heater')
  Object.assign(stream.job, {
    goal: 'cool',
    heatW: 38,
    heatBasis: 'measured',
    insideMaxC: 38,
    direction: 'out',
    airOutlet: 'same-room',
    existingFanId: 'fan-rowan-60x38-24v-hp',
    existingV: 24,
    fitDepthM: mm(45),
    fitWidthM: mm(65),
    inletClearM: mm(40),
  })
  stream.path = boxPath('drum', { inCm2: 40, free: 0.55, boxCm2: 90, outCm2: 30 })
  stream.selection = one('pick-drum', 'fan-alder-60x25-24v', 24)
  return stream
}

function trayStream(): Stream {
  const stream = newStream('stream-tray', 'Drying tray')
  Object.assign(stream.job, {
    goal: 'quieten',
    asIs: true,
    existingFanId: 'fan-bracken-80x25-12v',
    existingCount: 2,
    existingV: 12,
    heardDbA: 31,
  })
  return stream
}

/** What each stage runs: the drum heater works, the tray only with everything on; the supply turns slower when it idles. */
const stages = ['idle', 'working', 'everything on'] as const
const running: readonly [stream: string, volts: readonly (number | null)[]][] = [
  ['main', [21.2, 24.1, 24.1]],
  ['stream-board', [12, 12, 12]],
  ['stream-drum', [null, 24.1, 24.1]],
  ['stream-tray', [null, null, 12]],
]
const fansByStage: Run['fans'] = running.flatMap(([streamId, volts], s) =>
  volts.map((v, k) => ({
    id: `s${s}${k}`,
    stage: stages[k]!,
    streamId,
    off: v === null,
    volts: v,
    duty: null,
  })),
)

/** One state of the machine: each source alone in three stages, and everything together. */
function state(
  id: string,
  changeNo: number | null,
  takenAt: string,
  name: string,
  levels: Record<string, readonly [idle: number | null, working: number | null, all: number]>,
  whole: readonly [number, number, number],
): Run {
  const alone = Object.entries(levels).flatMap(([source, list], i) =>
    list.flatMap((value, k) =>
      value === null
        ? []
        : [reading(`a${i}${k}`, 'level', 'feeder’s chair', value, { source, stage: stages[k]! })],
    ),
  )
  return run(id, changeNo === null ? 'baseline' : 'after', takenAt, {
    name,
    changeNo,
    changed: changeNo === null ? null : 'fan',
    changes: changeNo === null ? null : 1,
    fanV: 24.1,
    voltageAt: 'fan',
    ambientC: 21,
    heatW: 75,
    distanceM: 1,
    soakS: minutes(30),
    steady: true,
    lid: 'closed',
    backgroundDbA: 23,
    instrument: 'class2',
    floorDbA: 20,
    stage: 'working',
    who: 'Wenna',
    stoodAt: 'meter on a tripod at the chair',
    stages: [
      { id: 'idle', stage: 'idle', heatW: 32, soakS: minutes(20) },
      { id: 'all', stage: 'everything on', heatW: 118, soakS: minutes(40) },
    ],
    fans: fansByStage,
    readings: [
      ...alone,
      ...whole.map((value, k) => reading(`w${k}`, 'level', 'feeder’s chair', value, { stage: stages[k]! })),
      reading('t1', 'temperature', 'supply', 43.5, { stage: 'working' }),
    ],
  })
}

export function stencilPress(): StreamPlan {
  const plan = newStreamPlan('job-stencil-press', 'Stencil press of the print room')
  Object.assign(plan.job, {
    streamName: 'Supply',
    goal: 'quieten',
    equipment: 'Drum press with four fans: supply, board, drum heater, drying tray',
    complaint: 'Four fans, one louder than the other; nobody talks while it runs.',
    untouchable: 'The mains side of the supply',
    direction: 'out',
    airOutlet: 'same-room',
    ambientC: 24,
    altitudeM: 180,
    hoursPerDay: 4,
    listenerM: 1,
    roomDbA: 27,
    keepBasis: 'existing-fan',
    existingFanId: 'fan-rowan-80x38-24v-hp',
    existingCount: 1,
    existingV: 24,
    keptFlowM3s: m3h(33),
    giveRiseK: 4,
    measuredRiseK: 8,
    heatW: 60,
    fitDepthM: mm(45),
    fitWidthM: mm(85),
    inletClearM: mm(40),
    outletClearM: mm(250),
    mains: false,
    flammable: false,
    openFlue: false,
    wet: false,
  })
  plan.targets = [
    target('level', 38, 'feeder’s chair', 'the printers', 'Talking at the table'),
    target('temperature', 50, 'supply', '', 'Its label says 60 °C'),
  ]
  plan.path = boxPath('supply', { inCm2: 80, free: 0.5, boxCm2: 140, outCm2: 50 })
  plan.selection = one('pick', 'fan-rowan-80x25-24v', 24)
  plan.beside = [boardStream(), drumStream(), trayStream()]
  plan.source = {
    ...newSource('rail-24', 'rail'),
    name: 'Machine rail 24 V',
    nominalV: 24,
    lowV: 23.4,
    highV: 24.6,
    iMaxA: 0.6,
    regulated: true,
    wireAwg: 24,
    wireLengthM: 0.4,
    fuseFitted: true,
    fuseA: 0.5,
    polarityChecked: true,
  }
  plan.sources = [
    {
      ...newSource('rail-12', 'rail'),
      name: 'Board rail 12 V',
      nominalV: 12,
      lowV: 11.7,
      highV: 12.3,
      iMaxA: 0.8,
      regulated: true,
      polarityChecked: true,
    },
  ]
  const lead = (streamId: string, name: string, parentId: string | null) => ({
    ...newFeedPart(`lead-${streamId}`, 'load', parentId),
    name,
    loadKind: 'fan' as const,
    streamId,
    wireAwg: 24,
    wireLengthM: 0.4,
  })
  plan.feed = [
    lead('stream-board', 'Board fan', 'rail-12'),
    lead('stream-drum', 'Drum fan', null),
    lead('stream-tray', 'Tray fans', 'rail-12'),
  ]
  plan.runs = [
    state(
      'run-found',
      null,
      '2026-10-03T09:00:00.000Z',
      'As it was found',
      {
        Supply: [36.1, 38.9, 40.2],
        Board: [38.6, 38.6, 38.7],
        'Drum heater': [null, 37.4, 37.6],
        'Drying tray': [null, null, 31],
      },
      [40.6, 43.1, 44],
    ),
    state(
      'run-supply',
      1,
      '2026-10-10T09:00:00.000Z',
      'Supply fan changed',
      { Supply: [26.4, 29.7, 30.8], Board: [38.6, 38.7, 38.6], 'Drum heater': [null, 37.4, 37.5] },
      [38.9, 41.5, 42],
    ),
    state(
      'run-board',
      2,
      '2026-10-17T09:00:00.000Z',
      'Board fan changed too',
      { Supply: [26.4, 29.6, 30.9], Board: [24.1, 24.3, 24.2], 'Drum heater': [null, 37.5, 37.5] },
      [28.4, 38.4, 39.2],
    ),
  ]
  return plan
}
