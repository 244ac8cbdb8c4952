import { MOST_FANS, newPlace, placeKeys } from './place'

/**
 * Fans of older plans, which stood in a stream itself with a second place beside it: all of them in a list of places.
 * `030_places.sql` does the same with the tables.
 */

type Loose = Record<string, unknown>
const isObject = (x: unknown): x is Loose => typeof x === 'object' && x !== null && !Array.isArray(x)
const list = (x: unknown): Loose[] => (Array.isArray(x) ? x.filter(isObject) : [])
const within = (n: number) => Math.min(MOST_FANS, Math.max(1, n))

/** What a stream, or a plan before streams were a list, told of its fans beside the places. */
export const olderParts = ['selection', 'fit', 'secondPlace'] as const
/** What its job told of the first place. */
export const olderKeys: readonly string[] = placeKeys.filter((key) => key !== 'fit')

/** Which fans stand at the first place and which at the second. */
function fansOf(selection: Loose): { here: Loose[]; there: Loose[] } {
  const { fanId, secondFanId: other = null, secondCount = null } = selection
  const all = typeof selection.count === 'number' ? selection.count : 1
  // of a pair without further word there was one of each
  const count = other !== null && secondCount === null ? 2 : all
  const apart = selection.arrangement === 'places'
  if (count < 2 || (other === null && !apart)) return { here: [{ fanId, count: within(count) }], there: [] }
  const half = other === null ? Math.floor(count / 2) : 1
  const rest = Math.min(typeof secondCount === 'number' ? secondCount : half, count - 1)
  const first = { fanId, count: count - rest }
  if (apart) return { here: [first], there: [{ fanId: other ?? fanId, count: rest }] }
  return other === fanId
    ? { here: [{ fanId, count }], there: [] }
    : { here: [first, { fanId: other, count: rest }], there: [] }
}

/** Elements of the path where fans stand, in the order of the air. */
function drawnOf(stream: Loose): string[] {
  const path = list(stream.path)
  const row = path.filter((e) => (e.branchId ?? null) === null)
  const ways = list(stream.branches)
  return row.flatMap((e) =>
    e.kind === 'fan'
      ? [String(e.id)]
      : ways
          .filter((w) => w.splitId === e.id)
          .flatMap((w) => path.filter((x) => x.branchId === w.id && x.kind === 'fan').map((x) => String(x.id))),
  )
}

const told = (job: unknown): Loose =>
  isObject(job) ? Object.fromEntries(olderKeys.flatMap((key) => (key in job ? [[key, job[key]]] : []))) : {}
const without = (from: Loose, keys: readonly string[]): Loose =>
  Object.fromEntries(Object.entries(from).filter(([key]) => !keys.includes(key)))
const through: Loose = { in: 'out', out: 'in' }

/** What a place is called in the ids of what it puts into the path, and was. */
const pieces = /^fit(2?)-(gap|hole|guard|filter|adapter)$/

/** A stream with its fans in places. @param taken ids of places of the streams before it */
function placed(stream: Loose, taken: Set<unknown>): Loose {
  const selection = isObject(stream.selection) ? stream.selection : null
  const second = isObject(stream.secondPlace) ? stream.secondPlace : null
  const { here, there } = selection ? fansOf(selection) : { here: [], there: [] }
  const [at, beyond] = drawnOf(stream)
  const picked = selection && !taken.has(selection.id) ? selection.id : null
  const id = picked ?? `place-${String(stream.id)}`.slice(0, 64)
  taken.add(id)
  const first: Loose = {
    ...newPlace(String(id), at ?? null),
    ...told(stream.job),
    fans: here,
    arrangement:
      selection?.arrangement === 'series' && here.length + there.length > 0 ? seriesOf(here) : 'parallel',
    fit: stream.fit ?? null,
  }
  const more = `place-2-${String(stream.id)}`.slice(0, 64)
  const further: Loose[] =
    beyond !== undefined || there.length || second
      ? [
          {
            ...newPlace(more, beyond ?? null),
            direction: through[String(first.direction)] ?? null,
            ...(second ? told(second.job) : {}),
            fans: there,
            fit: second?.fit ?? null,
          },
        ]
      : []
  const own = (e: Loose): Loose => {
    const [, two, key] = pieces.exec(String(e.id)) ?? []
    return key ? { ...e, id: `fit-${key}-${two ? more : String(id)}`.slice(0, 64) } : e
  }
  return {
    ...without(stream, olderParts),
    job: isObject(stream.job) ? without(stream.job, olderKeys) : stream.job,
    path: Array.isArray(stream.path)
      ? stream.path.map((e: unknown) => (isObject(e) ? own(e) : e))
      : stream.path,
    places: [first, ...further],
  }
}
const seriesOf = (fans: readonly Loose[]) =>
  fans.reduce((sum, f) => sum + (f.count as number), 0) > 1 ? 'series' : 'parallel'

/** A step of the build at one of two places was named by its number. */
function stepsNamed(build: unknown, streams: readonly Loose[]): unknown {
  if (!isObject(build) || !Array.isArray(build.ticks)) return build
  const several = streams.filter((s) => list(s.places).filter((p) => list(p.fans).length).length > 1)
  const named = (id: string) => {
    const stream = several.find((s) => /-[12]$/.test(id) && id.slice(0, -2).endsWith(`-${String(s.id)}`))
    const place = stream && list(stream.places)[Number(id.slice(-1)) - 1]
    return place ? `${id.slice(0, -2)}-${String(place.id)}` : id
  }
  const ticks = build.ticks.map((t: unknown) => (isObject(t) ? { ...t, id: named(String(t.id)) } : t))
  return { ...build, ticks }
}

/**
 * A plan whose streams told of their fans themselves, with a second place beside it: the places in a list, the duty of
 * the PWM wire at the lead of the fans.
 * @param plan with its streams in a list and its feed in one tree
 */
export function inPlaces(plan: Loose): Loose {
  const streams = list(plan.streams)
  if (!streams.length || streams.every((s) => 'places' in s)) return plan
  const taken = new Set<unknown>()
  const now = streams.map((s) => ('places' in s ? s : placed(s, taken)))
  const duties = new Map(
    streams.map(({ id, selection }) => [id, isObject(selection) ? (selection.duty ?? null) : null]),
  )
  const known = isObject(plan.job) ? list(plan.job.known) : []
  const elements = new Map(
    now.flatMap((s) => list(s.places).map((p): [unknown, unknown] => [p.elementId, p.id])),
  )
  const severals = known.some((k) => elements.has(k.subject))
  return {
    ...plan,
    ...(severals && isObject(plan.job)
      ? {
          job: {
            ...plan.job,
            known: known.map((k) => ({ ...k, subject: elements.get(k.subject) ?? k.subject })),
          },
        }
      : {}),
    ...(Array.isArray(plan.feed)
      ? {
          feed: plan.feed.map((part: unknown) => {
            const duty = isObject(part) && typeof part.streamId === 'string' ? duties.get(part.streamId) : null
            return typeof duty === 'number' ? { ...(part as Loose), duty: Math.max(0.01, duty) } : part
          }),
        }
      : {}),
    build: stepsNamed(plan.build, now),
    streams: now,
  }
}
