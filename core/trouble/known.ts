import { wantedRange, type StreamPlan, dutyOf } from '#core/document'
import type { Report } from '#core/plan'

/** The plan's numbers that a search for trouble is held against. SI; null where the plan cannot tell. */
export interface Known {
  /** planned voltage at the fan's plug, and the highest that may stand there while it runs */
  fanV: number | null
  fanHighV: number | null
  /** what surely starts the fans, by their sheets */
  startV: number | null
  /** what they stand at most */
  maxV: number | null
  runA: number | null
  rpm: number | null
  source: { name: string; lowV: number | null; highV: number | null } | null
  converter: {
    id: string
    name: string
    inV: number
    outV: number
    limitA: number | null
    outA: number | null
    heatW: number
    /** turns what it does not hand on into heat */
    burns: boolean
  } | null
  roomC: number
  /** hottest that is wanted, and where */
  hot: { limitC: number; place: string } | null
  levelDbA: number | null
  /** duty cycle on the PWM wire; null without one */
  duty: number | null
  pwmHz: number | null
  switched: boolean
  hasFilter: boolean
  guarded: boolean
  several: boolean
  /** a power bank's own switch-off current, A */
  autoOffA: number | null
  battery: boolean
  fuseA: number | null
}

/** What a plan and its report tell. */
export function knownOf(plan: StreamPlan, report: Report): Known {
  const { power, selection, mounts, runtime } = report
  const fanArray = report.streams.find((s) => !s.asIs)?.fanArray ?? null
  const groups = fanArray?.groups ?? []
  const start = groups.flatMap((g) => g.model.fan.startV ?? [])
  const most = groups.flatMap((g) => g.model.fan.maxV ?? [])
  const rated = fanArray?.model.fan.ratedRpm ?? null
  const node = power.feed.nodes.find((n) => n.kind === 'converter') ?? null
  const source = power.feed.nodes.find((n) => n.kind === 'source') ?? null
  const hot = plan.targets.find((t) => t.kind === 'temperature' && wantedRange(t).high !== null)
  const [control] = plan.controls
  const kind = plan.feed.find((p) => p.id === node?.id)?.converterKind
  const burns = kind === 'linear' || kind === 'resistor' || kind === 'divider'
  return {
    fanV: power.fanV,
    fanHighV: power.fanRuns?.high ?? null,
    startV: start.length ? Math.max(...start) : null,
    maxV: most.length ? Math.min(...most) : null,
    runA: power.fanRunA,
    rpm: rated !== null && selection ? rated * selection.candidate.speed : null,
    source: source && { name: source.name, lowV: source.lowV || null, highV: source.highV || null },
    converter: node && {
      id: node.id,
      name: node.name,
      inV: node.inV,
      outV: node.outV,
      limitA: node.limitA,
      outA: node.outA,
      heatW: node.heatW,
      burns,
    },
    roomC: plan.job.ambientMaxC ?? plan.job.ambientC,
    hot: hot ? { limitC: wantedRange(hot).high!, place: hot.place || 'inside' } : null,
    levelDbA: selection?.candidate.level?.value ?? null,
    duty: dutyOf(plan),
    pwmHz: control?.pwmHz ?? null,
    switched: control !== undefined && control.school !== 'always',
    hasFilter: plan.path.some((e) => e.kind === 'filter'),
    guarded: mounts.some((m) => m.guarded) || plan.path.some((e) => e.kind === 'grille'),
    several: (selection?.candidate.count ?? 1) > 1,
    autoOffA: runtime.keepAlive ? (plan.battery?.autoOffA ?? null) : null,
    battery: plan.battery !== null,
    fuseA: power.feed.nodes.find((n) => n.lead?.fuseA)?.lead?.fuseA ?? null,
  }
}
