/** One lumped part, its fan switched by two thresholds: C dT/dt = P - G (T - Ta). */
export interface SwitchedPart {
  heat: number
  capacity: number
  gOn: number
  gOff: number
  ambientC: number
  onC: number
  offC: number
}

/** Whether it cycles at all. Reference: docs/physics.md HT17 */
export function thermostatState({
  heat,
  gOn,
  gOff,
  ambientC,
  onC,
  offC,
}: SwitchedPart): 'never-on' | 'always-on' | 'cycles' {
  if (ambientC + heat / gOff <= onC) return 'never-on'
  return ambientC + heat / gOn >= offC ? 'always-on' : 'cycles'
}
/** Time on and off of a cycle, s; null where it does not cycle. Reference: docs/physics.md HT18 */
export function thermostatCycle(part: SwitchedPart): { onS: number; offS: number } | null {
  if (thermostatState(part) !== 'cycles') return null
  const { heat, capacity, gOn, gOff, ambientC, onC, offC } = part
  const [endOn, endOff] = [ambientC + heat / gOn, ambientC + heat / gOff]
  return {
    onS: (capacity / gOn) * Math.log((onC - endOn) / (offC - endOn)),
    offS: (capacity / gOff) * Math.log((endOff - offC) / (endOff - onC)),
  }
}

export interface TwoNodePart extends Omit<SwitchedPart, 'capacity'> {
  capacity1: number
  capacity2: number
  g12: number
}
/** Steps of the smaller time constant. docs/physics.md HT20: at most 0.02. */
const STEP_SHARE = 0.005
const MAX_CYCLES = 60
/**
 * The same where the heat goes through a part into the housing that is sensed and cooled: stepped by RK4 until the
 * period repeats.
 * Reference: docs/physics.md HT20
 */
export function twoNodeCycle({
  heat,
  capacity1,
  capacity2,
  g12,
  gOn,
  gOff,
  ambientC,
  onC,
  offC,
}: TwoNodePart): { onS: number; offS: number } | null {
  const dt = STEP_SHARE * Math.min(capacity1 / g12, capacity2 / (g12 + gOn))
  let [t1, t2, on, time] = [ambientC, ambientC, false, 0]
  const slopes = (a: number, b: number): [number, number] => [
    (heat - g12 * (a - b)) / capacity1,
    (g12 * (a - b) - (on ? gOn : gOff) * (b - ambientC)) / capacity2,
  ]
  const switches: number[] = []
  const most = (400 * (capacity1 + capacity2)) / gOff / dt
  let cycle: { onS: number; offS: number } | null = null
  for (let i = 0; i < most && switches.length < 2 * MAX_CYCLES; i++) {
    const k1 = slopes(t1, t2)
    const k2 = slopes(t1 + (dt / 2) * k1[0], t2 + (dt / 2) * k1[1])
    const k3 = slopes(t1 + (dt / 2) * k2[0], t2 + (dt / 2) * k2[1])
    const k4 = slopes(t1 + dt * k3[0], t2 + dt * k3[1])
    const before = t2
    t1 += (dt / 6) * (k1[0] + 2 * k2[0] + 2 * k3[0] + k4[0])
    t2 += (dt / 6) * (k1[1] + 2 * k2[1] + 2 * k3[1] + k4[1])
    // crossings in the right direction only: the sensed node may overshoot before it turns
    const limit = on ? offC : onC
    const crossed = on ? before > limit && t2 <= limit : before < limit && t2 >= limit
    if (crossed) {
      switches.push(time + (dt * (limit - before)) / (t2 - before))
      on = !on
      const n = switches.length
      if (n >= 5 && !on) {
        const made = { onS: switches[n - 1]! - switches[n - 2]!, offS: switches[n - 2]! - switches[n - 3]! }
        if (cycle && Math.abs(made.onS + made.offS - cycle.onS - cycle.offS) < 1e-4 * (made.onS + made.offS))
          return made
        cycle = made
      }
    }
    time += dt
  }
  return cycle
}
