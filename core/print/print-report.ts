import { findingMessage } from '#core/rules'
import {
  markdownText,
  preferredUnit,
  printNumber,
  printQuantity,
  sayIn,
  type Quantity,
  type UnitPreferences,
} from '#core/units'
import { careStart, careTasks, driftReport, timeLine, type DriftRow } from '#core/care'
import type { Comparison, TargetResult } from '#core/verification'
import type { StreamPlan, Run } from '#core/document'
import { rankNoiseSources, upgradeRungs } from '#core/verification'
import type { Report } from '#core/plan'
import { readingNames, targetKinds, targetName, targetNumber, wantedRange, wantedWords } from '#core/document'
import { goalNames, schoolWords } from '#core/plan'
import type { Figure } from '#core/figure'
import { costPerUnit, gainCosts, predictionsOf } from '#core/advice'

/** The report on paper: blocks that a screen, Markdown and a PDF print alike. What a verdict must state: docs/physics.md, measuring 5. */

/** One measured value with its range and what was wanted of it, in any one unit. */
export interface IntervalRow {
  label: string
  value: number
  low: number
  high: number
  /** between what it was wanted to lie; null on a side that is open */
  wanted: { low: number | null; high: number | null }
  words: string
}
/** One step of a level, dB(A). */
export interface RungRow {
  name: string
  level: number
  words: string
}
/** What a printed chart shows; how it looks is the app's. */
export type PrintChart =
  | { type: 'intervals'; title: string; rows: IntervalRow[] }
  | { type: 'rungs'; title: string; rungs: RungRow[]; limit: number | null }

export type PrintBlock =
  | { kind: 'heading'; text: string }
  | { kind: 'text'; text: string }
  | { kind: 'list'; items: string[] }
  | { kind: 'table'; head: string[]; rows: string[][]; /** columns of numbers */ numbers: number[] }
  | { kind: 'chart'; chart: PrintChart; alt: string }
export interface PrintReport {
  title: string
  subtitle: string
  blocks: PrintBlock[]
}

const verdictWords = {
  met: 'met',
  'not-met': 'not met',
  'not-decided': 'cannot tell',
  'not-measured': 'not measured',
} as const
/** What a target came to, and what would make sure what only looks so. */
export const verdictName = ({ verdict, looks }: TargetResult) =>
  looks.length ? 'looks met' : verdictWords[verdict]
export const sureWords = ({ looks }: TargetResult) =>
  looks.length ? `To be sure: note ${looks.join(', ')}.` : ''
const plus = (x: number) => (x > 0 ? '+' : '')
const percent = (x: number) => `${plus(x)}${(100 * x).toFixed(Math.abs(x) < 0.1 ? 1 : 0)} %`.replace('-', '−')

/** What a comparison says, in words that name its base. */
export function changeWords(c: Comparison): string {
  if (c.refused) return `not compared: ${c.refused}`
  if (!c.shown) return 'no difference shown: within the noise of measuring'
  if (c.loudness !== null)
    return c.difference < 0
      ? `about ${(1 / c.loudness).toFixed(1)} times quieter to the ear`
      : `about ${c.loudness.toFixed(1)} times as loud to the ear`
  if (c.change === null)
    return c.quantity === 'temperature' && !c.asRise
      ? 'log the room’s temperature to get a percentage'
      : 'too near to nothing before for a per cent of it'
  return (
    `a change of ${percent(c.change)} of ` +
    `before${c.asRise ? ', of the rise' : ''}${c.ratioOnly ? '; read in the jet, only the ratio counts' : ''}`
  )
}

interface Printer {
  units: UnitPreferences
  show: (value: number | null | undefined, quantity: Quantity) => string
}
const shownAs = (c: Comparison): Quantity => (c.asRise ? 'temperatureDifference' : c.quantity)
const differenceAs = (c: Comparison): Quantity =>
  c.quantity === 'temperature'
    ? 'temperatureDifference'
    : c.quantity === 'level'
      ? 'levelDifference'
      : c.quantity
const day = (iso: string) => iso.slice(0, 16).replace('T', ' ')

function targetBlocks({ show, units }: Printer, report: Report): PrintBlock[] {
  const { targets } = report.verdict
  if (!targets.length) return [{ kind: 'text', text: 'No target was written: there is nothing to judge.' }]
  const measured = targets.filter((t) => t.measured && t.measured.halfWidth > 0)
  return [
    {
      kind: 'table',
      numbers: [1, 2],
      head: ['Target', 'wanted', 'measured', 'verdict'],
      rows: targets.map((t) => {
        const q = targetKinds[t.target.kind].quantity
        const m = t.measured
        return [
          [targetName(t.target), t.target.place, t.target.stage].filter(Boolean).join(', '),
          wantedWords(t.target, show),
          !m
            ? '–'
            : `${m.upperBoundOnly ? 'at most ' : ''}${targetNumber(t.target, m.value, show)}${halfWords(m.halfWidth, q, units)}`,
          [verdictName(t), t.why, sureWords(t), ...(m?.steps ?? [])].filter(Boolean).join('; '),
        ]
      }),
    },
    ...(measured.length
      ? [
          {
            kind: 'chart' as const,
            alt: 'Measured values with their ranges against the targets',
            chart: {
              type: 'intervals' as const,
              title: 'Measured values with their ranges against the targets',
              rows: measured.map((t) => {
                const { value, halfWidth } = t.measured!
                return {
                  label: [targetName(t.target), t.target.place].filter(Boolean).join(', ').slice(0, 34),
                  value,
                  low: value - halfWidth,
                  high: value + halfWidth,
                  wanted: wantedRange(t.target),
                  words: `${targetNumber(t.target, value, show)}, ${verdictName(t)}`,
                }
              }),
            },
          },
        ]
      : []),
  ]
}
/** Half of a range in the person's unit (a difference, so without the offset of degrees); nothing for a range of nothing. */
function halfWords(half: number, quantity: Quantity, units: UnitPreferences, always = false): string {
  if (!half && !always) return ''
  return `\u00a0±\u00a0${printNumber(half / preferredUnit(quantity, units).factor, 1)}`
}

/** What a condition is called where it spoils a comparison. */
const conditionsShown: { key: keyof Run; label: string; quantity?: Quantity; what?: string }[] = [
  { key: 'takenAt', label: 'Taken' },
  { key: 'who', label: 'By' },
  { key: 'stoodAt', label: 'Instruments stood' },
  { key: 'ambientC', label: 'Ambient', quantity: 'temperature', what: 'ambient' },
  { key: 'heatW', label: 'Load', quantity: 'power', what: 'equipment load' },
  { key: 'fanV', label: 'Fan voltage', quantity: 'voltage', what: 'fan voltage' },
  { key: 'voltageAt', label: 'Voltage read at' },
  { key: 'soakS', label: 'Soaked', quantity: 'duration', what: 'soak time' },
  { key: 'steady', label: 'Steady' },
  { key: 'lid', label: 'Lid', what: 'lid' },
  { key: 'stage', label: 'Stage' },
  { key: 'distanceM', label: 'Microphone at', quantity: 'distance', what: 'listening distance' },
  { key: 'backgroundDbA', label: 'Background', quantity: 'level' },
  { key: 'instrument', label: 'Sound meter', what: 'sound meter' },
  { key: 'floorDbA', label: 'Its floor', quantity: 'level' },
]
const meterWords: Record<string, string> = { phone: 'phone', class2: 'class 2', class1: 'class 1' }
function conditionBlocks({ show }: Printer, { verdict: { before, after, unfair } }: Report): PrintBlock[] {
  if (!before || !after) return []
  const print = (run: Run, key: keyof Run, quantity?: Quantity) => {
    const value = run[key]
    if (value === null || value === '') return '–'
    if (quantity) return show(value as number, quantity)
    return typeof value === 'boolean'
      ? value
        ? 'yes'
        : 'no'
      : key === 'takenAt'
        ? day(String(value))
        : (meterWords[String(value)] ?? String(value))
  }
  const rows = conditionsShown
    .map(({ key, label, quantity, what }) => [
      label,
      print(before, key, quantity),
      `${print(after, key, quantity)}${unfair.some((u) => u.what === what) ? ' (differs)' : ''}`,
    ])
    .filter((r) => r[1] !== '–' || r[2] !== '–')
  return [
    { kind: 'heading', text: 'Under what conditions' },
    { kind: 'table', numbers: [], head: ['Condition', before.name, after.name], rows },
  ]
}

function comparisonBlocks({ show, units }: Printer, { verdict }: Report): PrintBlock[] {
  const { comparisons, unfair, notStated, unmatched } = verdict
  if (!verdict.before || !verdict.after)
    return [{ kind: 'text', text: 'It takes a baseline and a run after the change.' }]
  return [
    {
      kind: 'table',
      numbers: [1, 2, 3],
      head: ['Reading', 'before', 'after', 'difference', 'says'],
      rows: comparisons.map((c) => [
        [
          `${readingNames[c.quantity]}${c.asRise ? ' rise over ambient' : ''}`,
          c.place,
          c.stage,
          c.source && `${c.source} alone`,
        ]
          .filter(Boolean)
          .join(', '),
        `${show(c.before, shownAs(c))}${c.n[0] > 1 ? ` (n\u00a0=\u00a0${c.n[0]})` : ''}`,
        `${show(c.after, shownAs(c))}${c.n[1] > 1 ? ` (n\u00a0=\u00a0${c.n[1]})` : ''}`,
        c.refused
          ? '–'
          : plus(c.difference) +
            show(c.difference, differenceAs(c)) +
            halfWords(c.halfWidth, differenceAs(c), units, true),
        changeWords(c),
      ]),
    },
    unfair.length
      ? { kind: 'list', items: unfair.map((u) => `${sayIn(u.text, units)}. ${u.effect}`) }
      : { kind: 'text', text: 'Nothing that was noted differs enough to spoil the comparison.' },
    ...(notStated.length || unmatched.length
      ? [
          {
            kind: 'text' as const,
            text: [
              notStated.length ? `Not stated in both: ${notStated.join(', ')}.` : '',
              unmatched.length ? `Read in one state only: ${unmatched.join('; ')}.` : '',
            ]
              .filter(Boolean)
              .join(' '),
          },
        ]
      : []),
  ]
}

function noiseBlocks({ show }: Printer, plan: StreamPlan, report: Report): PrintBlock[] {
  const target = plan.targets.find((t) => t.kind === 'level')
  const place = target?.place ?? ''
  const { states, afterState, beforeState } = report.verdict
  const measured = states.filter((s) => s.kind !== 'bench')
  // where the target's own place was never measured, what was measured elsewhere still tells the steps
  const there = upgradeRungs(measured, place)
  const rungs = there.length > 1 ? there : upgradeRungs(measured, '')
  const ranking = rankNoiseSources((afterState ?? beforeState)?.runs ?? [], '', target?.limit ?? null)
  const blocks: PrintBlock[] = []
  if (rungs.length > 1)
    blocks.push({
      kind: 'chart',
      alt: 'Sound level step by step',
      chart: {
        type: 'rungs',
        title: 'Sound level step by step against an everyday scale',
        limit: rungs === there ? (target?.limit ?? null) : null,
        rungs: rungs.map((r, i) => ({
          name: r.name,
          level: r.level,
          words: i ? `${show(r.level, 'level')}, × ${r.ratio.toFixed(2)}` : show(r.level, 'level'),
        })),
      },
    })
  if (ranking.sources.length) {
    blocks.push({
      kind: 'table',
      numbers: [1, 2, 3],
      head: ['Stage', 'sum of the sources', 'all together', 'most it can fall', 'fix next'],
      rows: ranking.stages.map((s) => [
        s.stage,
        show(s.sum, 'level'),
        show(s.whole, 'level'),
        s.drop === null ? '–' : show(s.drop, 'levelDifference'),
        s.next ?? '–',
      ]),
    })
  }
  return blocks.length ? [{ kind: 'heading', text: 'Noise, step by step' }, ...blocks] : []
}

/** What was not measured, said plainly. */
function missingBlocks(report: Report): PrintBlock[] {
  const missing = [
    ...report.verdict.targets
      .filter((t) => t.verdict === 'not-measured')
      .map((t) => `${targetName(t.target)} ${t.target.place}`.trim()),
    ...report.verdict.comparisons
      .filter((c) => c.refused)
      .map((c) => `a fair comparison of ${readingNames[c.quantity].toLowerCase()} ${c.place}`),
  ]
  return missing.length
    ? [
        { kind: 'heading', text: 'What was not measured' },
        { kind: 'list', items: missing },
      ]
    : []
}

/** An estimate wears a tilde, as on the screen. */
const about = (text: string, estimated: boolean) => `${estimated ? '~' : ''}${text}`

/** What was built, in one sentence. */
function builtWords({ show }: Printer, { sources }: StreamPlan, report: Report, cost: number | null): string {
  const { selection, need } = report
  if (!selection) return ''
  const { driveV, powerW } = selection.candidate
  const fed = sources.length ? `, fed from ${sources.map((s) => s.name).join(' and ')}` : ''
  const watts = powerW === null ? '' : `, ${show(powerW, 'power')}`
  const money = cost === null ? '' : `, ${show(cost, 'money')}`
  const of = ({ value, basis }: Figure) => about(show(value, 'flow'), basis === 'estimated')
  const predicted = `predicted ${of(selection.served)}`
  const needed = of(need.flow)
  return `${selection.fanName} at ${show(driveV, 'voltage')}${fed}; ${predicted} against a need of ${needed}${watts}${money}.`
}

const titled = (text: string, block: PrintBlock): PrintBlock[] => [{ kind: 'heading', text }, block]

/** When the fans run, and what their days are like. */
function controlBlocks({ show }: Printer, { controls }: StreamPlan, { day }: Report): PrintBlock[] {
  if (!day || !controls.length) return []
  const what = day.model.groups.map(({ name, control }, i) => {
    const { onS, starts } = day.usual.groups[i]!
    const set =
      control.school === 'thermostat' && control.sense === 'temperature'
        ? `, on from ${show(control.onC, 'temperature')}, off at ${show(control.offC, 'temperature')}`
        : ''
    return `${name}: ${schoolWords[control.school]}${set}; on ${show(onS, 'duration')} of a usual day, ${starts} starts.`
  })
  const figures = day.figures.map(
    (f) => `${f.label}: ${show(f.value, f.quantity)}${f.note ? `. ${f.note}` : ''}`,
  )
  return titled('When it runs', { kind: 'list', items: [...what, ...figures] })
}

function predictionBlocks({ show }: Printer, report: Report): PrintBlock[] {
  const predictions = predictionsOf(report)
  if (!predictions.length) return []
  return titled('Prediction against measurement', {
    kind: 'table',
    numbers: [1, 2],
    head: ['Quantity', 'predicted', 'measured', 'what it teaches'],
    rows: predictions.map((p) => [
      p.label,
      about(show(p.predicted, p.quantity), p.estimated) +
        (p.low === null ? '' : ` (${show(p.low, p.quantity)} to ${show(p.high, p.quantity)})`),
      show(p.measured, p.quantity),
      p.teaches,
    ]),
  })
}

function gainBlocks({ show, units }: Printer, report: Report, cost: number | null): PrintBlock[] {
  const gains = gainCosts(report, cost)
  if (!gains.length) return []
  return titled('What the gain cost', {
    kind: 'list',
    items: gains.map((g) => {
      const price = costPerUnit(g, units)
      return `${show(g.gain, g.quantity)} ${g.what}${price ? `: ${show(price.money, 'money')} ${price.per}` : ''}`
    }),
  })
}

/** Findings that are left to mend. */
function openBlocks({ units }: Printer, report: Report): PrintBlock[] {
  const open = report.findings.findings.filter((f) => f.severity !== 'note')
  if (!open.length) return []
  return titled('Still to mend', {
    kind: 'list',
    items: open.map((f) => {
      const text = findingMessage(f, units)
      return `${f.subject?.name ? `${f.subject.name}: ` : ''}${text}. ${f.why} ${f.fix}`
    }),
  })
}

/** Findings that the person knows of and leaves, each with the reason. */
function knownBlocks({ units }: Printer, report: Report): PrintBlock[] {
  const { known } = report.findings
  if (!known.length) return []
  return titled('Known, and left as it is', {
    kind: 'list',
    items: known.map(({ finding: f, reason }) => {
      const text = findingMessage(f, units)
      return `${f.subject?.name ? `${f.subject.name}: ` : ''}${text}. Known, because: ${reason}`
    }),
  })
}

/** A change since the build, in words. */
const driftWords = ({ show }: Printer, r: DriftRow) =>
  `${r.name}, ${r.place}: ${show(r.before, r.quantity)} at first, ${show(r.after, r.quantity)} now. ${r.means}`
function careBlocks(printer: Printer, plan: StreamPlan, report: Report, today: string): PrintBlock[] {
  const tasks = careTasks(plan, report, careStart(plan, today)).filter((t) => t.due !== null)
  const drifted = driftReport(plan).rows.filter((r) => r.state === 'drifted')
  return [
    ...titled('Care', { kind: 'list', items: tasks.map((t) => `${t.due}: ${t.title}. ${t.how} ${t.why}.`) }),
    ...(drifted.length
      ? titled('Drifted since it was built', {
          kind: 'list',
          items: drifted.map((r) => driftWords(printer, r)),
        })
      : []),
  ]
}

function logBookBlocks({ units }: Printer, plan: StreamPlan, report: Report): PrintBlock[] {
  const entries = timeLine(plan, report, units).toReversed()
  if (!entries.length) return []
  return titled('Log book', {
    kind: 'table',
    head: ['When', 'Who', 'What', 'Found'],
    rows: entries.map((e) => [e.at.slice(0, 16).replace('T', ' '), e.who, `${e.kind}: ${e.what}`, e.detail]),
    numbers: [],
  })
}

/**
 * The report of a job, ready to be printed.
 * @param units the person's own @param today ISO date
 */
export function printReportOf(
  plan: StreamPlan,
  report: Report,
  units: UnitPreferences,
  today: string,
): PrintReport {
  const printer: Printer = { units, show: (value, quantity) => printQuantity(value ?? null, quantity, units) }
  const { job } = plan
  const { selection } = report
  const cost = selection?.candidate.cost ?? null
  const blocks: PrintBlock[] = [
    {
      kind: 'text',
      text: [job.equipment, job.complaint].filter(Boolean).join('. ') || 'No equipment is described.',
    },
    { kind: 'heading', text: 'Did it work?' },
    ...targetBlocks(printer, report),
    { kind: 'heading', text: 'Before against after' },
    ...comparisonBlocks(printer, report),
    ...conditionBlocks(printer, report),
    ...noiseBlocks(printer, plan, report),
    ...(selection
      ? titled('What was built', { kind: 'text', text: builtWords(printer, plan, report, cost) })
      : []),
    ...controlBlocks(printer, plan, report),
    ...predictionBlocks(printer, report),
    ...gainBlocks(printer, report, cost),
    ...missingBlocks(report),
    ...openBlocks(printer, report),
    ...knownBlocks(printer, report),
    ...careBlocks(printer, plan, report, today),
    ...logBookBlocks(printer, plan, report),
    {
      kind: 'text',
      text:
        'Measured with hobby instruments. It says what was found here, and is no certificate; mains ' +
        'wiring, flues and life safety belong to licensed people and local codes.',
    },
  ]
  return { title: job.name, subtitle: `${goalNames[job.goal]}, ${today}`, blocks }
}

const inline = (text: string) => markdownText(text.replaceAll('\n', ' '))
/** A drawing as an address that stands in a link's brackets. */
const asAddress = (svg: string) =>
  `data:image/svg+xml,${encodeURIComponent(svg).replaceAll('(', '%28').replaceAll(')', '%29')}`

/**
 * The same as Markdown; charts stand in it as pictures.
 * @param draw a chart as SVG text
 */
export function printMarkdown(
  { title, subtitle, blocks }: PrintReport,
  draw: (chart: PrintChart) => string,
): string {
  const body = blocks.map((b) => {
    if (b.kind === 'heading') return `## ${inline(b.text)}`
    if (b.kind === 'text') return markdownText(b.text)
    if (b.kind === 'list') return b.items.map((i) => `- ${inline(i)}`).join('\n')
    if (b.kind === 'chart') return `![${inline(b.alt)}](${asAddress(draw(b.chart))})`
    return [
      `| ${b.head.map(inline).join(' | ')} |`,
      `| ${b.head.map((_, i) => (b.numbers.includes(i) ? '---:' : '---')).join(' | ')} |`,
      ...b.rows.map((r) => `| ${r.map(inline).join(' | ')} |`),
    ].join('\n')
  })
  return `# ${inline(title)}\n\n${inline(subtitle)}\n\n${body.join('\n\n')}\n`
}
