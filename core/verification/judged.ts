import { cleanLevel, distanceLawHolds, levelInRoom, NEAREST_M, ROOM_LIMIT_M } from '#core/noise'
import { input, type FigureInput } from '#core/figure'
import { heatAt, readingMean, type Job, type Reading, type Run, type Target } from '#core/document'
import { LOAD_FACTOR, readingHalfWidth } from './comparison'
import { meterFloor } from './meter'

/** Readings brought to the plan's conditions, so that a target can be judged by them. */

/** A measured value brought to the plan's conditions, with what was done to it. */
export interface Judged {
  value: number
  halfWidth: number
  steps: string[]
  upperBoundOnly: boolean
  formula: string
  inputs: FigureInput[]
  /** runs it is the mean of */ n: number
}

/** Limit of restating a rise to another ambient. docs/physics.md, normalising. */
const AMBIENT_RANGE_K = 15
function judgeTemperature(job: Job, run: Run, read: Reading): Judged {
  const steps: string[] = []
  const reading = readingMean(read)
  let value = reading
  let halfWidth = readingHalfWidth(run, read)
  if (run.ambientC !== null) {
    let rise = reading - run.ambientC
    halfWidth = Math.SQRT2 * halfWidth
    const heatW = heatAt(run, read)
    if (heatW && job.heatW && heatW !== job.heatW) {
      const factor = job.heatW / heatW
      if (factor >= LOAD_FACTOR[0] && factor <= LOAD_FACTOR[1]) {
        rise *= factor
        halfWidth *= factor
        steps.push('rise scaled to the plan’s heat')
      }
    }
    if (Math.abs(job.ambientC - run.ambientC) <= AMBIENT_RANGE_K) {
      value = job.ambientC + rise
      if (job.ambientC !== run.ambientC) steps.push('restated to the plan’s ambient')
    }
  }
  return {
    value,
    halfWidth,
    steps,
    n: 1,
    upperBoundOnly: false,
    formula: 't = tₐ,plan + (t_read − tₐ,run) · P_plan/P_run',
    inputs: [
      input('t_read', 'reading', reading, 'temperature'),
      input('tₐ,run', 'ambient of the run', run.ambientC, 'temperature'),
      input('tₐ,plan', 'ambient of the plan', job.ambientC, 'temperature'),
      input('P_run', 'load of the run', heatAt(run, read), 'power'),
      input('P_plan', 'heat of the plan', job.heatW, 'power'),
    ],
  }
}

/** The rise over the room: a temperature less the run's own ambient, at the plan's load. */
function judgeRise(job: Job, run: Run, read: Reading): Judged {
  const judged = judgeTemperature(job, run, read)
  return {
    ...judged,
    value: judged.value - job.ambientC,
    formula: 'Δt = (t_read − tₐ,run) · P_plan/P_run',
    inputs: judged.inputs.filter((i) => i.symbol !== 'tₐ,plan'),
  }
}

/** Air changes: an airflow over the volume of the job. */
function judgeChanges(job: Job, run: Run, read: Reading): Judged {
  const per = 3600 / job.volumeM3!
  return {
    value: readingMean(read) * per,
    halfWidth: readingHalfWidth(run, read) * per,
    steps: ['airflow over the volume in Need'],
    upperBoundOnly: false,
    formula: 'n = Q/V',
    inputs: [
      input('Q', 'airflow read', readingMean(read), 'flow'),
      input('V', 'free air volume', job.volumeM3, 'volume'),
    ],
    n: 1,
  }
}

const boundWords = {
  floor: 'at the meter’s floor: an upper bound',
  background: 'less than 3 dB over the background: at most the reading',
}
/** Distances that differ by less than this share are the same. */
const SAME_DISTANCE = 0.05

function judgeLevel(job: Job, run: Run, read: Reading): Judged {
  const reading = readingMean(read)
  const floor = meterFloor(run)
  const { level: cleaned, bound, corrected } = cleanLevel(reading, run.backgroundDbA, floor)
  // below its floor a meter shows what it likes: the source may be as loud as the floor
  const level = floor !== null && reading < floor ? Math.max(cleaned, floor) : cleaned
  const steps = [
    ...(bound ? [boundWords[bound]] : []),
    ...(bound === 'floor' && run.floorDbA === null
      ? [`its floor taken as ${floor} dB(A), usual for its kind: its sheet says`]
      : []),
    ...(corrected ? ['background removed'] : []),
  ]
  const moves =
    run.distanceM !== null && Math.abs(run.distanceM - job.listenerM) > SAME_DISTANCE * job.listenerM
  const moved = moves ? levelInRoom(level, run.distanceM!, job.listenerM) : { level, halfWidth: 0 }
  const value = moved.level
  if (value !== level)
    steps.push(
      distanceLawHolds(run.distanceM!, job.listenerM)
        ? 'moved to the listener’s distance by the free-field law'
        : `moved to the listener’s distance, no further than the room lets a level fall (${ROOM_LIMIT_M} m at most; ` +
            `nearer than ${NEAREST_M} m is the near field)`,
    )
  return {
    value,
    halfWidth: Math.hypot(readingHalfWidth(run, read), moved.halfWidth),
    steps,
    n: 1,
    upperBoundOnly: bound !== null,
    formula: 'L = 10·lg(10^(L_read/10) − 10^(L_b/10)) − 20·lg(r/r_m)',
    inputs: [
      input('L_read', 'reading', reading, 'level'),
      input('L_b', 'background', run.backgroundDbA, 'level'),
      ...(bound === 'floor' ? [input('L_f', 'meter’s floor', floor, 'level')] : []),
      input('r_m', 'microphone', run.distanceM, 'distance'),
      input('r', 'listener', job.listenerM, 'distance'),
    ],
  }
}

/** What a reading says of a target: brought to the plan's conditions, in the target's own number. */
export function judgeReading(job: Job, target: Target, run: Run, reading: Reading): Judged {
  const value = readingMean(reading)
  if (target.kind === 'temperature') return judgeTemperature(job, run, reading)
  if (target.kind === 'level') return judgeLevel(job, run, reading)
  if (target.kind === 'rise') return judgeRise(job, run, reading)
  if (target.kind === 'airchanges') return judgeChanges(job, run, reading)
  return {
    value,
    halfWidth: readingHalfWidth(run, reading),
    steps: [],
    upperBoundOnly: false,
    formula: 'as read',
    inputs: [input('x', 'reading', value, reading.quantity)],
    n: 1,
  }
}
