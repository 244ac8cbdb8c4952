import { z } from 'zod'
import type { PlanDocument } from '../../core/plan/document'
import { idSchema, limits, longText, maybe, shortText, within } from './fan'

const yesNo = maybe(z.boolean())
const size = maybe(within(0.001, 20))
/** Areas and shares must be above zero: an opening of nothing lets nothing through. */
const area = maybe(z.number().gt(0, 'An area must be above zero.').max(25, 'Not above 25 m².'))
const share = maybe(z.number().gt(0, 'A share must be above zero.').max(1, 'A share cannot be above 100 %.'))

export const jobSchema = z.object({
  id: idSchema,
  name: shortText.min(1, 'A job needs a name.'),
  goal: z.enum(['cool', 'ventilate', 'quieten']),
  equipment: shortText, complaint: longText, untouchable: longText, breathesIn: shortText, breathesOut: shortText,
  direction: maybe(z.enum(['in', 'out'])),
  ambientC: within(-40, 80),
  ambientMaxC: maybe(within(-40, 80)),
  altitudeM: within(-430, 9000),
  humidity: within(0, 1),
  hoursPerDay: within(0, 24),
  listenerM: within(0.1, 50),
  roomDbA: maybe(limits.level),
  margin: maybe(within(0, 3)),
  heatW: maybe(within(0, 20000)),
  heatBasis: z.enum(['measured', 'nameplate', 'estimate']),
  insideMaxC: maybe(within(-30, 150)),
  wallLossWK: maybe(within(0, 500)),
  volumeM3: maybe(z.number().gt(0, 'A volume must be above zero.').max(2000, 'Not above 2000 m³.')),
  airChangesPerH: maybe(z.number().gt(0, 'Must be above zero.').max(600, 'Not above 600 an hour.')),
  keepBasis: z.enum(['existing-fan', 'temperature', 'typed']),
  existingFanId: maybe(idSchema),
  existingCount: z.number().int().min(1).max(12),
  existingV: maybe(limits.voltage),
  measuredRiseK: maybe(z.number().gt(0, 'A rise must be above zero.').max(150)),
  typedFlowM3s: maybe(limits.flow),
  fitDepthM: size, fitWidthM: size, inletClearM: maybe(within(0, 20)), outletClearM: maybe(within(0, 20)), openingGapM: maybe(within(0, 50)),
  baffled: yesNo, hotPartInPath: yesNo, mustNotFail: yesNo, mains: yesNo, flammable: yesNo, openFlue: yesNo, wet: yesNo,
  domain: z.enum(['general', 'vehicle', 'aircraft', 'medical', 'life-safety']),
})

export const elementSchema = z.object({
  id: idSchema,
  kind: z.enum(['opening', 'grille', 'filter', 'duct', 'bend', 'chamber', 'custom', 'fan']),
  name: shortText,
  basis: z.enum(['measured', 'sheet', 'good-guess', 'rough-guess']),
  areaM2: area,
  freeAreaRatio: share,
  edge: maybe(z.enum(['sharp', 'slot', 'crack', 'rounded'])),
  medium: maybe(shortText),
  c1: maybe(within(0, 1e4)), c2: maybe(within(0, 1e4)),
  loadFactor: maybe(within(1, 5)),
  diameterM: maybe(within(0.005, 2)),
  lengthM: maybe(within(0.01, 100)),
  surface: maybe(shortText),
  slack: maybe(within(1, 10)),
  radiusRatio: maybe(within(0.5, 10)),
  angleDeg: maybe(within(0, 90)),
  count: maybe(z.number().int().min(1).max(20)),
  a: maybe(within(0, 1e8)), b: maybe(within(0, 1e12)),
})

export const targetSchema = z.object({ id: idSchema, kind: z.enum(['temperature', 'level', 'flow', 'money']), limit: within(-60, 10000), place: shortText, why: longText })

export const pickSchema = z.object({
  id: idSchema, fanId: idSchema, count: z.number().int().min(1).max(12), arrangement: z.enum(['single', 'parallel', 'series']), driveV: within(0.5, 60),
})

export const sourceSchema = z.object({
  id: idSchema,
  kind: z.enum(['adapter', 'rail', 'tap', 'header', 'usb', 'power-bank', 'pack', 'house-battery', 'vehicle', 'solar', 'none']),
  name: shortText,
  nominalV: maybe(limits.voltage), lowV: maybe(limits.voltage), highV: maybe(limits.voltage),
  iMaxA: maybe(within(0.001, 200)), iPeakA: maybe(within(0.001, 400)),
  regulated: yesNo, output: z.enum(['dc', 'ac']),
  wireAwg: maybe(z.number().int().min(10).max(30)), wireLengthM: maybe(within(0, 100)),
  fuseA: maybe(within(0.01, 100)), fuseFitted: yesNo, polarityChecked: yesNo,
})

export const converterSchema = z.object({
  id: idSchema, kind: z.enum(['buck', 'boost', 'linear']), outV: within(0.5, 60), iMaxA: maybe(within(0.001, 100)), efficiency: maybe(within(0.05, 1)),
  dropoutV: maybe(within(0, 20)), adjustable: z.boolean(), setFirst: z.boolean(), measuredV: maybe(limits.voltage),
})

export const loadSchema = z.object({ id: idSchema, name: shortText, count: z.number().int().min(1).max(100), currentA: limits.current, startA: maybe(limits.current), afterConverter: z.boolean() })

export const readingSchema = z.object({
  id: idSchema, quantity: z.enum(['temperature', 'level', 'flow', 'pressure', 'rotation', 'voltage', 'current', 'power']), place: shortText, value: within(-60, 60000),
}).superRefine((r, context) => {
  const check: z.ZodType = r.quantity === 'power' ? within(0, 20000) : limits[r.quantity]
  const result = check.safeParse(r.value)
  if (!result.success) context.addIssue({ code: 'custom', path: ['value'], message: result.error.issues[0]!.message })
})

export const runSchema = z.object({
  id: idSchema, kind: z.enum(['baseline', 'after']), name: shortText, takenAt: z.iso.datetime({ offset: true }),
  fanV: maybe(limits.voltage), voltageAt: maybe(z.enum(['fan', 'supply'])), ambientC: maybe(within(-40, 80)), heatW: maybe(within(0, 20000)), distanceM: maybe(within(0.01, 100)),
  soakS: maybe(within(0, 30 * 86400)), steady: yesNo, lid: maybe(z.enum(['open', 'closed'])), backgroundDbA: maybe(limits.level), instrument: maybe(z.enum(['phone', 'class2', 'class1'])),
  floorDbA: maybe(limits.level), changes: maybe(z.number().int().min(0).max(50)), notes: longText, readings: z.array(readingSchema).max(200),
})

const unique = (list: { id: string }[]) => new Set(list.map(x => x.id)).size === list.length

export const planSchema = z.object({
  job: jobSchema,
  targets: z.array(targetSchema).max(20).refine(unique, 'Two targets share an id.'),
  path: z.array(elementSchema).max(40, 'At most 40 elements.').refine(unique, 'Two elements share an id.')
    .refine(path => path.filter(e => e.kind === 'fan').length <= 1, 'The fan has one place in the path.'),
  pick: pickSchema.nullable(),
  source: sourceSchema.nullable(),
  converter: converterSchema.nullable(),
  loads: z.array(loadSchema).max(40).refine(unique, 'Two loads share an id.'),
  runs: z.array(runSchema).max(200).refine(unique, 'Two runs share an id.'),
}) satisfies z.ZodType<PlanDocument>

/** What a save sends: the document and the revision it was read at. */
export const savePlanSchema = z.object({ plan: planSchema, revision: z.number().int().min(1) })
export const newJobSchema = z.object({ name: shortText.min(1, 'A job needs a name.') })
