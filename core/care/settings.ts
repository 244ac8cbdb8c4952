import { schoolWords, type Report } from '#core/plan'
import { converterOf, driveVolts, type LogEvent, type StreamPlan, dutyOf, plannedFans } from '#core/document'
import { printQuantity } from '#core/units'

/**
 * The settings of a job as they stand: what a hand can change. "A setting that is not in the log was not made" (handbook
 * build 7), so they are held against the last ones that were written down. Metric, so that units change nothing.
 */

/** Head of the line of what the fans are driven at; without one, what makes it is told. */
const DRIVE = 'Drive'

const volts = (v: number | null) => printQuantity(v, 'voltage', {}).replaceAll('\u00A0', ' ')

/** All settings, one a line. */
export function settingsOf(plan: StreamPlan, report: Report): string[] {
  const { power, streams } = report
  const fans = streams.flatMap((s) =>
    s.asIs || !s.fanArray ? [] : [`${streams.length > 1 ? s.name : 'Fans'}: ${s.fanName}`],
  )
  const converters = power.feed.nodes.flatMap((n) =>
    n.kind === 'converter' ? [`${n.name}: ${volts(plan.feed.find((p) => p.id === n.id)?.outV ?? n.outV)}`] : [],
  )
  const duty = dutyOf(plan)
  const wire = duty === null ? '' : `, duty cycle ${Math.round(100 * duty)} %`
  // what a converter is set to is told with it
  const drive =
    plannedFans(plan) && (!converterOf(plan) || wire) ? [`${DRIVE}: ${volts(driveVolts(plan))}${wire}`] : []
  const controls = plan.controls.map((c) => {
    const limits = [
      c.onC === null ? '' : `on ${c.onC} °C`,
      c.offC === null ? '' : `off ${c.offC} °C`,
      c.onRh === null ? '' : `on ${Math.round(100 * c.onRh)} %`,
      c.offRh === null ? '' : `off ${Math.round(100 * c.offRh)} %`,
      c.timerOnS === null ? '' : `${c.timerOnS} s on`,
      c.timerEveryS === null ? '' : `every ${c.timerEveryS} s`,
      c.quietDuty === null ? '' : `quiet ${Math.round(100 * c.quietDuty)} %`,
      ...c.points.map((p) => `${p.temperatureC} °C ${Math.round(100 * p.duty)} %`),
    ].filter(Boolean)
    return `${c.name || 'Control'}: ${[schoolWords[c.school], ...limits].join(', ')}`
  })
  return [...fans, ...converters, ...drive, ...controls]
}

export interface SettingsChange {
  /** lines that are new or say something else now, and what they said before */
  changed: { now: string; before: string }[]
  /** nothing was written down yet */
  first: boolean
}
const headOf = (line: string) => line.slice(0, line.indexOf(':'))

/** The last settings that were written down against those of now. */
export function settingsChange(now: readonly string[], logbook: readonly LogEvent[]): SettingsChange {
  const last = logbook
    .filter((e) => e.kind === 'setting' && e.settings)
    .toSorted((a, b) => a.at.localeCompare(b.at))
    .at(-1)
  if (!last) return { changed: now.map((line) => ({ now: line, before: '' })), first: true }
  const before = last.settings.split('\n')
  const gone = before.filter((b) => headOf(b) !== DRIVE && !now.some((n) => headOf(n) === headOf(b)))
  return {
    changed: [
      ...now
        .filter((line) => !before.includes(line))
        .map((line) => ({ now: line, before: before.find((b) => headOf(b) === headOf(line)) ?? '' })),
      ...gone.map((line) => ({ now: '', before: line })),
    ],
    first: false,
  }
}
