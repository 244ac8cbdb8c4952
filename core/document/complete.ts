import { newFeedPart } from './feed'
import { inOneTree } from './older-feed'
import { inPlaces, olderKeys, olderParts } from './older-places'
import { machineJobKeys, streamJobKeys } from './job'
import { streamParts } from './stream'
import { targetKinds, type TargetKind } from './target'

type Loose = Record<string, unknown>
const isObject = (x: unknown): x is Loose => typeof x === 'object' && x !== null && !Array.isArray(x)
const list = (x: unknown): Loose[] => (Array.isArray(x) ? x.filter(isObject) : [])

/** Keys that had another name before; the new one wins where both are there. */
function renamed(raw: Loose, names: Record<string, string>): Loose {
  const out: Loose = {}
  for (const [key, value] of Object.entries(raw)) if (!(key in names)) out[key] = value
  for (const [old, now] of Object.entries(names)) if (old in raw && !(now in out)) out[now] = raw[old]
  return out
}
const renamedPart = (raw: unknown, names: Record<string, string>) => (isObject(raw) ? renamed(raw, names) : raw)

/**
 * Brings an older plan file or draft to today's names. What it does not have yet, the schema fills with "not known";
 * nothing is checked here.
 * @param raw a parsed JSON value that should be a plan document
 */
export function completePlan(raw: unknown): unknown {
  if (!isObject(raw) || !isObject(raw.job)) return raw
  const plan = renamed(raw, { pick: 'selection', doubts: 'uncertainties' })
  const uncertain = list(plan.uncertainties).map((u) =>
    u.id === 'partInnerKW' ? { ...u, id: 'partInnerKPerW' } : u,
  )
  const streams = inStreams({
    ...plan,
    job: renamedPart(raw.job, { careFrom: 'maintenanceFrom', partInnerKW: 'partInnerKPerW' }),
    ...('uncertainties' in plan ? { uncertainties: uncertain } : {}),
    source: windowRepaired(plan.source),
    converter: renamedPart(plan.converter, { thetaKW: 'junctionToAirKPerW' }),
    battery: renamedPart(plan.battery, { chargeC: 'chargeCoulomb' }),
    wiring: oldWiring(plan.wiring),
    // a run after a change was after the first one, before changes were counted
    ...('runs' in plan
      ? { runs: each(plan.runs, (run) => (run.kind === 'after' ? { changeNo: 1, ...run } : run)) }
      : {}),
    feed: plan.feed === undefined ? list(plan.loads).map((l) => oldLoad(l, plan.converter)) : plan.feed,
  })
  return inPlaces(inOneTree(streams))
}

/** Changes each thing of a list; what is no list, or no thing, stays for the check. */
const each = (x: unknown, change: (item: Loose) => Loose): unknown =>
  Array.isArray(x) ? x.map((item: unknown) => (isObject(item) ? change(item) : item)) : x
const picked = (from: Loose, keys: readonly string[]): Loose =>
  Object.fromEntries(keys.flatMap((key) => (key in from ? [[key, from[key]]] : [])))
/** Id that the first stream had before streams were a list. */
const FIRST = 'main'

/**
 * A plan whose first stream stood in the plan itself, further ones in a list beside it: all of them in the list. What
 * named no stream was of the first one.
 */
function inStreams(plan: Loose): Loose {
  const further = list(plan.streams)
  if (further.length && !('path' in plan)) return plan
  const job = plan.job as Loose
  const parts = [...Object.keys(streamParts), ...olderParts]
  const first = { id: FIRST, job: picked(job, [...streamJobKeys, ...olderKeys]), ...picked(plan, parts) }
  const named = (x: unknown) => each(x, (item) => ({ ...item, streamId: item.streamId ?? FIRST }))
  const common = Object.fromEntries(Object.entries(plan).filter(([key]) => !parts.includes(key)))
  const known = list(job.known)
  return {
    ...common,
    job: {
      ...picked(job, machineJobKeys),
      // a reason that named no stream stands for the whole, and for the first one where there are several
      ...(further.length
        ? { known: [...known, ...known.flatMap((k) => (k.subject ? [] : [{ ...k, subject: FIRST }]))] }
        : {}),
    },
    streams: [first, ...further],
    targets: each(plan.targets, (t) =>
      targetKinds[t.kind as TargetKind]?.ofStream ? { ...t, streamId: t.streamId ?? FIRST } : t,
    ),
    controls: each(plan.controls, (c) => ({ ...c, streamIds: c.streamIds ?? [FIRST] })),
    ...(isObject(plan.day) ? { day: { ...plan.day, parts: named(plan.day.parts) } } : {}),
    runs: each(plan.runs, (run) => ({ ...run, fans: named(run.fans) })),
  }
}

/** A source whose nominal voltage was typed over a window that stayed: the window is taken off, its kind's holds then. */
function windowRepaired(raw: unknown): unknown {
  if (!isObject(raw)) return raw
  const { nominalV, lowV, highV } = raw
  const beside =
    typeof nominalV === 'number' &&
    ((typeof lowV === 'number' && nominalV < lowV) || (typeof highV === 'number' && nominalV > highV))
  return beside ? { ...raw, lowV: null, highV: null } : raw
}

/** Wiring of which only was told whether the tach is read. */
function oldWiring(raw: unknown): unknown {
  if (!isObject(raw) || !('tachUsed' in raw)) return raw
  const { tachUsed, ...wiring } = raw
  const told = tachUsed === true ? 'input' : tachUsed === false ? 'open' : null
  return { ...wiring, tachTo: wiring.tachTo ?? told }
}

/** A load of an older plan as a part of the feed. */
function oldLoad({ afterConverter, ...load }: Loose, converter: unknown): Loose {
  return {
    ...newFeedPart('', 'load', null),
    ...load,
    name: load.name || 'Load',
    parentId: afterConverter === true && isObject(converter) ? converter.id : null,
  }
}
