/** Days: one stepped every second against a bare loop of the same equations, 200 drawn ones, an answer to a moved point. */
import { controlStep, newControl, simulateDay, type ControlSettings, type DayInput } from '#core/control'
import { dayModel, drawnDays, dayReportSteps } from '#core/day'
import { atOnce } from '#core/numeric'
import { computeReport, dayStreamsOf } from '#core/plan'
import { demoFans } from '../demo/fans'
import { demoPlan } from '../demo/jobs'
import { line, time, timePair } from './measure'

const control: ControlSettings = {
  law: { kind: 'thermostat', onC: 45, offC: 38, onDuty: 1, restDuty: 0 },
  filterTauS: 5,
  rampUpPerS: 0.2,
  rampDownPerS: 0.05,
  minDuty: 0.2,
  startDuty: 0.25,
  kickDuty: 1,
  kickS: 0,
  capDuty: 1,
  fanStop: true,
  sensorLowC: -40,
  sensorHighC: 150,
  faultDuty: 1,
}
const PARTS = 4
const duties = Array.from({ length: 41 }, (_, i) => i / 40)
const day: DayInput = {
  parts: Array.from({ length: PARTS }, (_, i) => ({
    capacityJK: 500 + 300 * i,
    stillWK: 0.4,
    movedWK: 2,
    loadShare: 0.25,
    group: 0,
  })),
  links: [{ from: 0, to: 1, conductanceWK: 0.2 }],
  groups: [
    {
      fans: {
        flowM3s: duties.map((d) => 0.04 * d),
        levelDbA: duties.map((d) => (d === 0 ? -Infinity : 36 + 50 * Math.log10(d))),
        powerW: duties.map((d) => 8 * d ** 2.3),
      },
      control,
      referenceM3s: 0.04,
      sensed: 0,
      sensorLagS: 20,
    },
  ],
  exponent: 0.8,
  ambientC: (t) => 24 + 4 * Math.cos((2 * Math.PI * (t - 50_400)) / 86_400),
  loadW: (t) => (t % 7200 < 3600 ? 80 : 10),
  startC: 24,
  seconds: 86_400,
  stepS: 1,
}

/** The same equations and the same control, nothing else: no lanes, no sound, no sums. */
function bareDay(): number {
  const t = new Float64Array(PARTS).fill(24)
  const slope = new Float64Array(PARTS)
  const mid = new Float64Array(PARTS)
  let shown = 24
  let state = newControl
  const g = new Float64Array(PARTS).fill(0.4)
  const lag = 1 - Math.exp(-1 / 20)
  const slopes = (at: Float64Array, ambient: number, load: number) => {
    for (let i = 0; i < PARTS; i++) slope[i] = 0.25 * load - g[i]! * (at[i]! - ambient)
    const passed = 0.2 * (at[0]! - at[1]!)
    slope[0] = slope[0]! - passed
    slope[1] = slope[1]! + passed
    for (let i = 0; i < PARTS; i++) slope[i] = slope[i]! / (500 + 300 * i)
  }
  for (let k = 0; k < 86_400; k++) {
    const step = controlStep(control, state, shown, 1)
    if (step.duty !== state.duty) g.fill(0.4 + 1.6 * step.duty ** 0.8)
    state = step.state
    const ambient = day.ambientC(k + 0.5)
    const load = day.loadW(k + 0.5)
    slopes(t, ambient, load)
    for (let i = 0; i < PARTS; i++) mid[i] = t[i]! + 0.5 * slope[i]!
    slopes(mid, ambient, load)
    for (let i = 0; i < PARTS; i++) t[i] = t[i]! + slope[i]!
    shown += lag * (t[0]! - shown)
  }
  return t[0]!
}

export function benchDays(): void {
  const whole = simulateDay(day).parts[0]!.at(-1)!
  if (Math.abs(whole - bareDay()) > 0.05) throw new Error('The bare loop does not step the same day.')
  const [ours, bare] = timePair(() => simulateDay(day), bareDay, 15)
  line('a day every second, 4 parts, 4 fans', `${ours.toFixed(0)} ms`, 'under 60 ms', ours < 60)
  line('  over a bare loop of its equations', `${(ours / bare).toFixed(2)} ×`, 'at most 3 ×', ours / bare <= 3)

  const plan = demoPlan('job-recorder-shelf')
  const input = { plan, fans: demoFans, shown: null }
  const streams = dayStreamsOf(input)
  const drawn = time(() => drawnDays(dayModel(plan, streams), 'hot', streams), 1)
  line('200 drawn days', `${drawn.toFixed(0)} ms`, 'under 3000 ms', drawn < 3000)
  let moved = 0
  const point = time(() => {
    plan.controls[0]!.points[1]!.duty = 0.4 + 0.0001 * ++moved
    computeReport(input)
  }, 10)
  line('report after a moved point of its curve', `${point.toFixed(0)} ms`, 'under 50 ms', point < 50)
  const again = time(() => atOnce(dayReportSteps(plan, streams)), 10)
  line('its days told again', `${again.toFixed(1)} ms`, 'under 5 ms', again < 5)
}
