import { sourceOf, type StreamPlan, type Source } from '#core/document'
import { figure, input, type Figure } from '#core/figure'
import { evaluateCandidate, type Operation, type SelectionContext } from '#core/selection'
import { fansNodeOf, type PowerState } from '#core/supply'
import { usefulShare, type AirSystem } from '#core/system'

/** Sources whose voltage falls as they empty. */
const falling: Source['kind'][] = ['pack', 'house-battery', 'vehicle']

/** The two ends of a pack as a person names them. */
const ends = [
  { key: 'full', words: 'with a full pack' },
  { key: 'empty', words: 'with an empty one' },
] as const

/**
 * Airflow and level of the selected fans with the pack full and with it empty; none where the source does not fall, or a
 * converter holds the voltage.
 */
export function packEndFigures(
  plan: StreamPlan,
  system: AirSystem,
  context: SelectionContext,
  power: PowerState,
  { candidate }: Operation,
): Figure[] {
  const source = sourceOf(plan)
  const node = fansNodeOf(plan, power.feed)
  const { fanArray, path } = system
  if (!source || !falling.includes(source.kind) || !node || !fanArray || !candidate) return []
  const volts = { full: node.highRunV, empty: node.lowV }
  if (Math.abs(volts.full - volts.empty) < 0.01 * volts.full) return []
  return ends.flatMap(({ key, words }) => {
    const at = evaluateCandidate(context, fanArray, { volts: volts[key], duty: candidate.duty })
    const flow = at.flow === null ? null : at.flow * usefulShare(path, at.flow)
    const inputs = [input('V', `at the fan, ${words}`, volts[key], 'voltage')]
    const note = at.flow === null ? 'At that voltage it does not run.' : ''
    return [
      figure(
        `battery.flow.${key}`,
        `Airflow ${words}`,
        'flow',
        flow,
        's²·ρ/1.2·p(Q/(n·s)) = Δp_path(Q)',
        'operating point at that voltage',
        { basis: 'estimated', low: at.flowLow, high: at.flowHigh, inputs, note },
      ),
      figure(
        `battery.level.${key}`,
        `Level ${words}`,
        'level',
        at.level?.value ?? null,
        'L at that voltage',
        'fan sound law',
        { basis: 'estimated', low: at.level?.low, high: at.level?.high, inputs, note },
      ),
    ]
  })
}
