import type { Severity } from './rule'

/** One cause, one message: which findings speak of the same thing, and which cannot be believed after a stop. */

/**
 * Rules that one cause raises together, the one that says it best first: of those that fire only the first is told, the
 * others are named below it.
 */
const chains: string[][] = [
  // thresholds that are wrong in themselves
  ['ctl-thresholds-swapped', 'ctl-chatter', 'own-lag-over-cycle', 'ctl-cycles', 'ctl-relay-life'],
  // a control that lets a part pass its limit
  ['ctl-on-too-late', 'ctl-full-too-late', 'ctl-overshoot', 'ctl-unsensed-part', 'own-control-hot'],
  // a drive that does not turn or start the fans
  ['ctl-duty-under-min', 'own-control-slow-stops'],
  ['ctl-no-kick', 'own-control-no-start', 'own-control-dead'],
  // more voltage than the fan stands
  [
    'power-ac-output',
    'power-direct-too-high',
    'power-wrong-nominal',
    'batt-solar-open-volts',
    'power-duty-peak',
    'batt-full-too-high',
    'power-vehicle-high',
    'power-unregulated',
    'power-over-voltage',
    'own-over-assumed',
    'own-may-be-over',
  ],
  // too little voltage
  [
    'power-usb-12v-fan',
    'power-resistor-no-start',
    'fan-will-not-start',
    'own-not-turning',
    'own-start-assumed',
    'own-may-not-start',
    'fan-start-margin',
    'power-under-run',
  ],
  // more current than the source gives
  [
    'power-usb-overload',
    'power-header-overload',
    'power-boost-starves',
    'power-overload',
    'power-headroom-thin',
    'power-start-surge',
    'power-header-start',
    'power-usb-unconfigured',
  ],
  ['power-converter-overload', 'power-converter-derate'],
  ['power-resistor-burns', 'power-resistor-hot'],
  ['wire-ampacity', 'wire-fuse-too-big'],
  ['wire-ampacity', 'wire-drop', 'wire-drop-note'],
  ['wire-fuse-missing', 'wire-fuse-far'],
  ['power-cap-burst', 'power-cap-margin'],
  // no way for the air
  ['air-no-way-in', 'fan-no-operating-point', 'need-flow-far-short'],
  ['air-no-way-out', 'fan-no-operating-point', 'need-flow-far-short'],
  ['fan-stall-region', 'fan-quiet-type-restricted'],
  ['air-inlet-small', 'port-intake-starved'],
  ['air-outlet-small', 'port-outlet-starved'],
  ['air-inlet-small', 'air-grille-closed'],
  ['air-outlet-small', 'air-grille-closed'],
  ['air-duct-narrow', 'air-duct-fast'],
  ['fit-no-breathing', 'air-intake-starved'],
  ['own-opening-wide', 'own-opening-corners'],
  ['air-filter-loaded-short', 'need-margin-thin'],
  ['need-below-ambient', 'own-below-ambient', 'need-rise-tight'],
  ['port-short-circuit', 'air-short-circuit'],
  ['air-negative-dust', 'own-box-sucks-dust'],
  ['own-fume-box-over', 'air-fume-leaks'],
  ['fan-parallel-backflow', 'fan-parallel-unlike', 'fan-parallel-no-gain'],
  ['own-place-brakes', 'fan-series-unlike', 'fan-series-no-gain'],
  ['fan-series-unlike', 'fan-series-no-gain'],
  ['fan-claim-over-power', 'fan-claim-optimistic'],
  ['fan-too-hot', 'fan-sleeve-hot'],
  ['noise-target-unreachable', 'noise-target-missed', 'noise-sum-missed'],
  ['noise-target-missed', 'noise-sum-missed'],
  ['noise-target-unreachable', 'noise-sum-missed', 'noise-other-dominates'],
  ['noise-exposure', 'noise-exposure-action'],
  ['fit-hole-meets-screws', 'fit-web-thin'],
  ['safe-opens-supply', 'safe-mains'],
  ['batt-runtime-short', 'target-runtime-short'],
  ['meas-rise-to-come', 'meas-not-steady'],
  ['meas-voltage-differs', 'meas-voltage-at-supply'],
  ['meas-percent-wrong-base', 'meas-percent-difference'],
]

/** Too little air is one message; what makes the path take so much, and what comes of it, is named below it. */
const tooLittleAir = ['fan-no-operating-point', 'need-flow-far-short', 'need-flow-short']
const belowTooLittleAir = [
  'fan-pressure-short',
  'target-hotter',
  'target-may-be-hotter',
  'own-target-air-short',
  'need-capture-slow',
  'need-clear-out-slow',
  'air-inlet-small',
  'air-outlet-small',
  'port-intake-starved',
  'port-outlet-starved',
  'air-grille-closed',
  'air-duct-narrow',
  'air-filter-too-fast',
  'air-filter-loaded-short',
  'fan-stall-region',
  'fan-quiet-type-restricted',
  'need-margin-thin',
]

/** After one of these the fans do not run as planned. */
export const unbelievable = new Set([
  'air-no-way-in',
  'air-no-way-out',
  'fan-no-operating-point',
  'power-ac-output',
  'power-direct-too-high',
  'power-wrong-nominal',
  'power-vehicle-high',
  'power-unregulated',
  'power-over-voltage',
  'power-duty-peak',
  'batt-full-too-high',
  'batt-solar-open-volts',
  'power-usb-12v-fan',
  'power-resistor-no-start',
  'fan-will-not-start',
  'wire-fans-in-series',
])

/** Then these, which speak of how they run, are not judged. */
const resting = new Set([
  'need-flow-short',
  'need-flow-far-short',
  'need-margin-thin',
  'need-oversized',
  'need-capture-slow',
  'need-clear-out-slow',
  'air-filter-too-fast',
  'air-filter-loaded-short',
  'air-duct-fast',
  'fan-pressure-short',
  'fan-stall-region',
  'fan-quiet-type-restricted',
  'fan-curve-guessed',
  'fan-parallel-no-gain',
  'fan-series-no-gain',
  'fan-start-margin',
  'fan-too-hot',
  'noise-target-missed',
  'noise-sum-missed',
  'noise-other-dominates',
  'noise-exposure',
  'noise-exposure-action',
  'noise-beat',
  'noise-resonance',
  'batt-runtime-short',
  'batt-autonomy-short',
  'batt-solar-short',
  'batt-auto-off',
  'target-hotter',
  'target-may-be-hotter',
  'target-runtime-short',
])

/** What a finding is to the causes: its rule, its subject, how grave it is. */
interface Raised {
  id: string
  severity: Severity
  message: string
  facts: object
  subject: { id: string } | null
  /** elements of the path that it speaks of */
  elements: readonly string[]
}

/**
 * Whether one finding can say it for another: both of the same subject, or one of them of the whole plan; of the same
 * element where both name one. A note hides nothing that is to be fixed.
 */
const together = (a: Raised, b: Raised) =>
  (a.severity !== 'note' || b.severity === 'note') &&
  (!a.subject || !b.subject || a.subject.id === b.subject.id) &&
  (!a.elements.length || !b.elements.length || a.elements.some((e) => b.elements.includes(e)))
/** Whether two findings say the very same of two things. */
const alike = (a: Raised, b: Raised) => a.id === b.id && JSON.stringify(a.facts) === JSON.stringify(b.facts)

export interface Causes<T> {
  /** what is told, each with what the same cause raises besides */
  told: { finding: T; also: T[] }[]
  /** what cannot be believed, and after which stop */
  rests: { finding: T; after: T }[]
}

/**
 * Sorts what has fired by its causes.
 * @param fired in the order of the catalogue
 */
export function byCause<T extends Raised>(fired: readonly T[]): Causes<T> {
  const stopped = fired.some((f) => unbelievable.has(f.id))
  const left = stopped ? fired.filter((f) => !resting.has(f.id)) : fired
  /** the finding that says it for another */
  const leader = new Map<T, T>()
  const lead = (first: T | undefined, f: T) => {
    if (first && first !== f && !leader.has(f) && !leader.has(first)) leader.set(f, first)
  }
  for (const chain of [tooLittleAir, ...chains]) {
    const inChain = left
      .filter((f) => chain.includes(f.id))
      .toSorted((a, b) => chain.indexOf(a.id) - chain.indexOf(b.id))
    inChain.forEach((f, i) =>
      lead(
        inChain.slice(0, i).find((other) => other.id !== f.id && !leader.has(other) && together(other, f)),
        f,
      ),
    )
  }
  const short = left.find((f) => tooLittleAir.includes(f.id) && !leader.has(f))
  for (const f of left) if (belowTooLittleAir.includes(f.id)) lead(short, f)
  left.forEach((f, i) =>
    lead(
      left.slice(0, i).find((other) => !leader.has(other) && alike(other, f)),
      f,
    ),
  )
  const top = (f: T): T => (leader.has(f) ? top(leader.get(f)!) : f)
  const stop = left.find((f) => unbelievable.has(f.id))
  return {
    told: left
      .filter((f) => !leader.has(f))
      .map((finding) => ({ finding, also: left.filter((f) => f !== finding && top(f) === finding) })),
    rests: fired.filter((f) => !left.includes(f)).map((finding) => ({ finding, after: top(stop!) })),
  }
}

/** Every rule that a cause or a stop names. */
export const rulesOfCauses = (): string[] => [
  ...chains.flat(),
  ...tooLittleAir,
  ...belowTooLittleAir,
  ...unbelievable,
  ...resting,
]
