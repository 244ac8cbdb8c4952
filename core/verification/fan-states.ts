import { fansIn, type FanState, type Run } from '#core/document'

/** What the fans of every air stream did in a stage, held against each other: like against like. */

/** Two states of the equipment, and what may differ between them. */
export interface FanStates {
  before: readonly Run[]
  after: readonly Run[]
  /** a fan or its voltage was the change: one stream may differ */
  voltageIsTheChange: boolean
  /** what the air streams are called, by id */
  streamNames: ReadonlyMap<string, string>
}

/** A voltage or duty may differ by this share of the larger one, as docs/physics.md, fair comparison, allows a voltage. */
const NEAR = 0.02
const near = (a: number, b: number) => Math.abs(a - b) <= NEAR * Math.max(a, b)

const streamOf = (f: FanState) => f.streamId
/** What the fans of a stream did, in words; null where it was not noted. */
function doing(f: FanState): string | null {
  if (f.off) return 'off'
  const parts = [f.volts === null ? '' : `${f.volts} V`, f.duty === null ? '' : `${Math.round(100 * f.duty)} %`]
  const said = parts.filter(Boolean).join(', ')
  return said ? `at ${said}` : f.off === false ? 'on' : null
}
function alike(a: FanState, b: FanState): boolean {
  if (a.off || b.off) return a.off === b.off
  const volts = a.volts === null || b.volts === null || near(a.volts, b.volts)
  return volts && (a.duty === null || b.duty === null || near(a.duty, b.duty))
}

/**
 * Why readings of a stage cannot be compared for what the fans did: those of an air stream that was not changed ran unlike.
 * What was not noted is not held against it.
 * @param stage '' is the run's own
 * @returns '' where nothing stands in the way
 */
export function unlikeFans(
  { before, after, voltageIsTheChange, streamNames }: FanStates,
  stage: string,
): string {
  const noted = (runs: readonly Run[]) =>
    runs.flatMap((run) => fansIn(run, stage)).filter((f) => doing(f) !== null)
  const [b, a] = [noted(before), noted(after)]
  const unlike = [...new Set(b.map(streamOf))].flatMap((id) => {
    const [was, is] = [b, a].map((list) => list.filter((f) => streamOf(f) === id))
    const other = was!.flatMap((x) => is!.filter((y) => !alike(x, y)).map((y) => [x, y] as const))[0]
    return other ? [{ id, was: doing(other[0])!, is: doing(other[1])! }] : []
  })
  if (unlike.length <= (voltageIsTheChange ? 1 : 0)) return ''
  const { id, was, is } = unlike.at(-1)!
  const name = streamNames.get(id)
  const whose = name ? `the fans of ${name}` : 'the fans'
  return `${whose} were ${was} before and ${is} after${unlike.length > 1 ? ', and they are not the only ones' : ''}`
}
