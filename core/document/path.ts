import { z } from 'zod'
import {
  above,
  area,
  defaultsOf,
  idSchema,
  limits,
  line,
  maybe,
  share,
  shortText,
  whole,
  within,
} from './fields'

/** The air path as stated: elements in a row, ways side by side, and what was measured on the real one. SI units. */

/** A measured or data-sheet point of a loss. */
const lossPointSchema = z.object({
  flowM3s: z
    .number()
    .gt(0, 'A flow must be above zero.')
    .max(3000 / 3600, 'Not above 3000 m³/h.'),
  pressurePa: limits.pressure,
})
export type LossPoint = z.infer<typeof lossPointSchema>
const points = z.array(lossPointSchema).max(60, 'At most 60 points.').default([])

const kinds = [
  'opening',
  'slot',
  'grille',
  'hood',
  'filter',
  'duct',
  'bend',
  'reducer',
  'wye',
  'damper',
  'flap',
  'fins',
  'adapter',
  'chamber',
  'outlet',
  'custom',
  'split',
  'fan',
] as const

export const elementSchema = z.object({
  id: idSchema,
  kind: z.enum(kinds),
  name: line,
  /** the branch it stands in; null in the main row */
  branchId: maybe(idSchema),
  /** 'assumed': nobody said; the usual, to be measured */
  basis: z.enum(['measured', 'sheet', 'good-guess', 'rough-guess', 'assumed']).default('good-guess'),
  /** which of a kind: round or mitre bend, plate or mesh, blade or slide, ... */
  style: maybe(shortText),
  /** opening, grille: gross area; filter: face; chamber: cross-section */
  areaM2: area,
  freeAreaRatio: share,
  pattern: maybe(z.enum(['staggered', 'square', 'mesh', 'slots'])),
  holeM: maybe(above(0.5, 'm')),
  pitchM: maybe(above(0.5, 'm')),
  edge: maybe(z.enum(['sharp', 'slot', 'crack', 'rounded'])),
  /** key of the filter table, or 'sheet' with c1 and c2 */
  medium: maybe(shortText),
  c1: maybe(within(0, 1e4)),
  c2: maybe(within(0, 1e4)),
  /** 1 clean, 2 loaded */
  loadFactor: maybe(within(1, 5)),
  diameterM: maybe(within(0.005, 2)),
  /** the other end of a reducer or adapter */
  diameter2M: maybe(within(0.005, 2)),
  /** rectangular duct, slot length, fins across */
  widthM: maybe(within(0.001, 5)),
  heightM: maybe(within(0.001, 5)),
  lengthM: maybe(within(0.001, 100)),
  /** between fins */
  gapM: maybe(within(0.0002, 0.5)),
  finM: maybe(within(0.00005, 0.05)),
  grainM: maybe(within(0.0002, 0.05)),
  /** key of the surface table */
  surface: maybe(shortText),
  /** friction multiplier of a slack hose, 1 stretched */
  slack: maybe(within(1, 10)),
  radiusRatio: maybe(within(0.5, 10)),
  angleDeg: maybe(within(0, 180)),
  count: maybe(whole(1, 500)),
  /** pressure that opposes before any air moves: a flap's weight, wind on an outlet, a box under pressure */
  headPa: maybe(within(0, 2000)),
  a: maybe(within(0, 1e8)),
  b: maybe(within(0, 1e12)),
  points,
})
export interface PathElement extends z.infer<typeof elementSchema> {}
export type ElementKind = PathElement['kind']
export type ElementBasis = PathElement['basis']

/** One way of a split: its elements stand in the path with its id. */
export const branchSchema = z.object({
  id: idSchema,
  /** the split element it belongs to */
  splitId: idSchema,
  name: line,
  /** air that passes here does not do the job */
  leak: z.boolean().default(false),
  /** how many openings alike it stands for: its elements are those of one of them, and carry that share of the air */
  times: whole(1, 16).default(1),
})
export interface Branch extends z.infer<typeof branchSchema> {}

/** What was measured on the real path, to scale it by. */
export const calibrationSchema = z.object({
  id: idSchema,
  kind: z.enum(['flow', 'pairs', 'rise']).default('flow'),
  /** the plan uses it; the guess stays to compare */
  used: z.boolean().default(true),
  /** the fan that ran, and how */
  fanId: maybe(idSchema),
  count: whole(1, 16).default(1),
  volts: maybe(limits.voltage),
  /** one delivered flow */
  flowM3s: maybe(lossPointSchema.shape.flowM3s),
  /** doubt of the flow (or of the flow from the rise), share, 95 times in 100; null: usual for the way it was read */
  flowDoubt: maybe(within(0, 2)),
  /** rise of the air at a known heat */
  heatW: maybe(within(0, 20000)),
  riseK: maybe(above(150, 'K')),
  /** flow and pressure pairs over the whole path */
  points,
})
export interface Calibration extends z.infer<typeof calibrationSchema> {}
/** A calibration without a measurement yet. */
export const newCalibration = (id: string): Calibration => ({ ...defaultsOf(calibrationSchema), id })

export const elementNames: Record<ElementKind, string> = {
  opening: 'Opening',
  slot: 'Slot',
  grille: 'Grille',
  hood: 'Hood or pipe end',
  filter: 'Filter',
  duct: 'Straight duct',
  bend: 'Bend',
  reducer: 'Reducer or expander',
  wye: 'Wye or tee',
  damper: 'Damper',
  flap: 'One-way flap',
  fins: 'Heatsink fins',
  adapter: 'Adapter box',
  chamber: 'Chamber',
  outlet: 'Outlet',
  custom: 'Own values',
  split: 'Ways side by side',
  fan: 'Fan',
}

/** What is usual of a kind; sizes are left for the person. */
const usualOf: Partial<Record<ElementKind, Partial<PathElement>>> = {
  opening: { edge: 'sharp' },
  grille: { freeAreaRatio: 0.5, style: 'plate' },
  filter: { medium: 'coarse', loadFactor: 1, basis: 'rough-guess' },
  duct: { surface: 'pvc', slack: 1 },
  bend: { radiusRatio: 1, angleDeg: 90, count: 1, style: 'round' },
  hood: { style: 'flush' },
  outlet: { style: 'free-exit' },
  wye: { style: 'wye' },
  damper: { style: 'blade', angleDeg: 0 },
  reducer: { angleDeg: 180 },
  fins: { finM: 0.001 },
  custom: { basis: 'measured' },
}

/** A new element with what is usual. */
export const newElement = (id: string, kind: ElementKind, branchId: string | null = null): PathElement => ({
  ...defaultsOf(elementSchema),
  id,
  kind,
  name: elementNames[kind],
  branchId,
  ...usualOf[kind],
})

/** A split with its two ways, each still to be filled. */
export function newSplit(
  id: string,
  names: readonly { id: string; name: string; leak: boolean; times?: number }[],
): { element: PathElement; branches: Branch[] } {
  return { element: newElement(id, 'split'), branches: names.map((n) => ({ times: 1, ...n, splitId: id })) }
}

/** A hose as people lay it: ribbed by its wire, and longer than the way. */
const hose: Partial<PathElement> = { surface: 'hose', slack: 3 }

/** Paths to begin with: the usual elements in their order, sizes left for the person. */
export const pathStarters: {
  name: string
  kinds: { kind: ElementKind; name: string; rest?: Partial<PathElement> }[]
}[] = [
  {
    name: 'Box, grille in and out',
    kinds: [
      { kind: 'grille', name: 'Intake grille' },
      { kind: 'chamber', name: 'Box' },
      { kind: 'fan', name: 'Fan' },
      { kind: 'grille', name: 'Outlet guard' },
    ],
  },
  {
    name: 'Filtered intake',
    kinds: [
      { kind: 'opening', name: 'Intake slot' },
      { kind: 'filter', name: 'Filter' },
      { kind: 'fan', name: 'Fan' },
      { kind: 'chamber', name: 'Box' },
      { kind: 'opening', name: 'Outlet' },
    ],
  },
  { name: 'Open air, nothing before or behind it', kinds: [{ kind: 'fan', name: 'Fan' }] },
  {
    name: 'Hose to the window',
    kinds: [
      { kind: 'opening', name: 'Intake' },
      { kind: 'chamber', name: 'Box' },
      { kind: 'fan', name: 'Fan' },
      { kind: 'duct', name: 'Hose', rest: hose },
      { kind: 'bend', name: 'Bend of the hose', rest: { style: 'hose' } },
    ],
  },
]
