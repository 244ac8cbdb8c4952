import { CONTACT_OHM, METERED_TOLERANCE, SETTING_TOLERANCE } from '#core/power'
import { converterOf, sourceOf, type StreamPlan, type Source, type ConverterKind } from '#core/document'
import { figure, input, type Figure } from '#core/figure'
import type { FanArray } from '#core/system'
import { CONTACT_PAIRS } from './feed-lead'
import type { FeedNodeReport } from './feed-node'
import { fansNodeOf } from './feed-tree'
import { converterAbove, type PowerState } from './power'

/** What the figures of the feed speak of: the source, its converter and the node of the selected fans. */
interface Fed {
  plan: StreamPlan
  source: Source
  fanArray: FanArray | null
  power: PowerState
  at: FeedNodeReport
  conv: FeedNodeReport | null
}

/** Volts by which no load differs from running before it is told. A choice of ours. */
export const UNLOADED_TOLD_V = 0.5
const unloaded = ({ highV, runs }: FeedNodeReport) =>
  highV - runs.high > UNLOADED_TOLD_V ? `While nothing is drawn up to ${highV.toFixed(1)} V.` : ''

/** A converter whose output is set. */
const isSet = ({ plan }: Fed) => setKinds.includes(converterOf(plan)?.converterKind ?? 'resistor')
const setKinds: ConverterKind[] = ['buck', 'boost', 'linear']

const settingNote = ({ plan }: Fed) => {
  const off = converterOf(plan)!.measuredV === null ? SETTING_TOLERANCE : METERED_TOLERANCE
  return `The range counts a setting ${100 * off} % off.`
}

/** What hands its voltage on to the fans, in words. */
function feederName({ at, power: { feed } }: Fed): string {
  const above = feed.nodes.find((n) => n.id === at.parentId)
  if (above?.kind === 'source') return 'source, as planned'
  return above?.kind === 'converter' ? 'converter output' : `behind ${above?.name ?? 'its feeder'}`
}

function fanVoltageFigure(fed: Fed): Figure {
  const { at, power } = fed
  const ohm = at.lead?.ohm ?? 0
  return figure('power.fanV', 'At the fan', 'voltage', at.inV, 'V_fan + R·I(V_fan) = V_feed', 'Kirchhoff', {
    low: at.runs.low,
    high: at.runs.high,
    inputs: [
      input('V_feed', feederName(fed), power.feedV, 'voltage'),
      input('R', 'wire both ways and contacts', ohm, 'resistance'),
      input('I', 'drawn there', at.inA, 'current'),
    ],
    note: [
      ohm ? '' : 'No wire given yet: its drop is not counted.',
      isSet(fed) ? settingNote(fed) : '',
      unloaded(at),
    ]
      .filter(Boolean)
      .join(' '),
  })
}

function loadFigure(fed: Fed): Figure {
  const { at, conv, fanArray, power } = fed
  // everything else as the source sees it: what hangs on another converter by that one's input
  const others = power.loadRunA === null ? null : power.loadRunA - ((conv ?? at).inA ?? 0)
  const fans = fanArray?.count ?? 1
  return figure(
    'power.load',
    'Drawn from the source',
    'current',
    power.loadRunA,
    isSet(fed) ? 'I = I_other + V_out·I_out / (η·V_in)' : 'I = I_fan + I_other',
    'sum of the loads; converter power balance',
    {
      basis: 'estimated',
      note:
        at.inA === null
          ? 'The fan’s current is not known.'
          : 'Fan current at its driven voltage: I_r·(V/V_r)^1.3, common practice.',
      inputs: [
        input(
          'I_fan',
          conv
            ? 'what stands before the fans takes'
            : `${fans} fan${fans > 1 ? 's' : ''} at the driven voltage`,
          (conv ?? at).inA,
          'current',
        ),
        input('I_other', 'everything else at the source', others, 'current'),
        ...(conv && isSet(fed)
          ? [
              input('η', 'converter efficiency', conv.efficiency, 'ratio'),
              input('V_in', 'into it', conv.inV, 'voltage'),
              input('V_out', 'out of it', conv.outV, 'voltage'),
              input('I_out', 'out of it', conv.outA, 'current'),
            ]
          : []),
      ],
    },
  )
}

const startFigure = ({ at, power }: Fed): Figure =>
  figure(
    'power.start',
    'At the start',
    'current',
    power.loadStartA,
    'I = ΣI_start through converters and leads',
    'start current as measured, else twice the label (common practice); the feed solved with it',
    { basis: 'estimated', inputs: [input('I_start', 'fans together', at.startA, 'current')] },
  )

const shareFigure = ({ power, source }: Fed): Figure =>
  figure(
    'power.use',
    'Share of the source',
    'ratio',
    power.utilisation,
    'u = I / I_source',
    'good to 80 % (common practice)',
    {
      inputs: [
        input('I', 'drawn, at the worst of its window', power.loadWorstA, 'current'),
        input('I_source', 'source can give', source.iMaxA, 'current'),
      ],
      note: source.iMaxA ? '' : 'The source’s current is not known.',
    },
  )

function dropFigure({ at, power }: Fed): Figure {
  const perM = at.lead?.ohmPerM ?? null
  return figure(
    'power.drop',
    'Lost in the wire',
    'voltage',
    power.wireDropV,
    'ΔV = (2·L·r + n·contacts) · I',
    'ASTM B258, IEC 60028',
    {
      inputs: [
        input('L', 'one way', at.lead?.lengthM ?? null, 'distance'),
        input('r', 'per metre of conductor', perM, 'resistance'),
        input('contacts', 'a pair', CONTACT_OHM, 'resistance'),
        input('n', 'contact pairs', CONTACT_PAIRS, 'number'),
        input('I', 'fan current', at.inA, 'current'),
      ],
      note: at.lead?.ohm ? '' : 'No wire given yet.',
    },
  )
}

const wattsFigure = ({ at }: Fed): Figure =>
  figure(
    'power.watts',
    'Power of the fans',
    'power',
    at.inA === null ? null : at.inA * at.inV,
    'P = V · I',
    'definition',
    {
      basis: 'estimated',
      inputs: [input('V', 'at the fan', at.inV, 'voltage'), input('I', 'fans together', at.inA, 'current')],
    },
  )

const converterHeatFigure = ({ at }: Fed, conv: FeedNodeReport): Figure =>
  figure(
    'power.heat',
    'Heat in the converter',
    'power',
    at.inA === null ? null : conv.heatW,
    'P = V_in·I_in − V_out·I_out',
    'power balance',
    {
      basis: 'estimated',
      inputs: [
        input('V_in', 'into it', conv.inV, 'voltage'),
        input('I_in', 'into it', conv.inA, 'current'),
        input('V_out', 'out of it', conv.outV, 'voltage'),
        input('I_out', 'out of it', conv.outA, 'current'),
      ],
    },
  )

/** The feed of the selected fans as figures; none without a source or a selection. */
export function powerFigures(plan: StreamPlan, fanArray: FanArray | null, power: PowerState): Figure[] {
  const source = sourceOf(plan)
  const at = fansNodeOf(plan, power.feed)
  if (!source || !at) return []
  const fed: Fed = { plan, source, fanArray, power, at, conv: converterAbove(plan, power.feed) }
  return [
    fanVoltageFigure(fed),
    loadFigure(fed),
    startFigure(fed),
    shareFigure(fed),
    dropFigure(fed),
    wattsFigure(fed),
    ...(fed.conv ? [converterHeatFigure(fed, fed.conv)] : []),
  ]
}

const key = (node: FeedNodeReport, name: string) => `feed.${node.id}.${name}`

/** What every node of the feed does. */
const terminalFigures = (node: FeedNodeReport): Figure[] => [
  figure(key(node, 'voltage'), 'At its terminals', 'voltage', node.inV, 'V = V_above − R·I', 'Kirchhoff', {
    low: node.runs.low,
    high: node.runs.high,
    inputs: [
      input('V_above', 'handed to it', node.aboveV, 'voltage'),
      input('R', 'lead both ways and contacts', node.lead?.ohm ?? 0, 'resistance'),
      input('I', 'drawn', node.inA, 'current'),
    ],
    note: unloaded(node),
  }),
  figure(
    key(node, 'current'),
    'Draws',
    'current',
    node.inA,
    node.kind === 'converter' ? 'I_in from the power balance or Kirchhoff' : 'I(V) of the load',
    'currents at the driven voltage, not the label’s',
    {
      basis: 'estimated',
      inputs: [input('V', 'at it', node.inV, 'voltage'), input('I_out', 'handed on', node.outA, 'current')],
    },
  ),
  figure(
    key(node, 'start'),
    'At the start',
    'current',
    node.startA,
    'I_start at that voltage',
    'measured, or twice the label for fans and pumps (common practice)',
    { basis: 'estimated', inputs: [input('I', 'running', node.inA, 'current')] },
  ),
  figure(key(node, 'power'), 'Power', 'power', node.powerW, 'P = V·I', 'definition', {
    basis: 'estimated',
    inputs: [input('V', 'at it', node.inV, 'voltage'), input('I', 'drawn', node.inA, 'current')],
  }),
]

const heatFigure = (node: FeedNodeReport): Figure =>
  figure(key(node, 'heat'), 'Heat in it', 'power', node.heatW, 'P = V_in·I_in − V_out·I_out', 'power balance', {
    basis: 'estimated',
    inputs: [
      input('V_in', 'into it', node.inV, 'voltage'),
      input('I_in', 'into it', node.inA, 'current'),
      input('V_out', 'out of it', node.outV, 'voltage'),
      input('I_out', 'out of it', node.outA, 'current'),
    ],
  })

const useFigure = (node: FeedNodeReport, limitA: number): Figure =>
  figure(
    key(node, 'use'),
    'Of what it can give',
    'ratio',
    node.utilisation,
    'u = I_out / I_max',
    'good to 80 % (common practice)',
    {
      inputs: [
        input('I_out', 'out, at the worst of its window', node.worstOutA, 'current'),
        input('I_max', 'can give', limitA, 'current'),
      ],
    },
  )

/** The lead that feeds a node: its loss, and how long it may be. */
function leadFigures(node: FeedNodeReport): Figure[] {
  const { lead } = node
  if (!lead) return []
  const perM = lead.ohmPerM
  const lost = figure(
    key(node, 'drop'),
    'Lost in its lead',
    'voltage',
    lead.dropV,
    'ΔV = (2·L·r + n·contacts)·I',
    'ASTM B258, IEC 60028',
    {
      inputs: [
        input('L', 'one way', lead.lengthM, 'distance'),
        input('r', 'per metre', perM, 'resistance'),
        input('contacts', 'a pair', CONTACT_OHM, 'resistance'),
        input('n', 'contact pairs', CONTACT_PAIRS, 'number'),
        input('I', 'drawn', node.inA, 'current'),
      ],
    },
  )
  const longest = figure(
    key(node, 'longest'),
    'Its lead may be',
    'distance',
    lead.longestM,
    'L = ΔV / (2·r·I) for a loss of 5 %',
    'Ohm’s law, E35',
    {
      inputs: [
        input(
          'ΔV',
          'may be lost',
          perM === null || node.inA === null ? null : 2 * (lead.longestM ?? 0) * perM * node.inA,
          'voltage',
        ),
        input('r', 'per metre', perM, 'resistance'),
        input('I', 'drawn', node.inA, 'current'),
      ],
    },
  )
  return [...(lead.ohm ? [lost] : []), ...(lead.longestM ? [longest] : [])]
}

/** What one node of the feed does, each figure with its working. */
export const nodeFigures = (node: FeedNodeReport): Figure[] => [
  ...terminalFigures(node),
  ...(node.kind === 'converter' ? [heatFigure(node)] : []),
  ...(node.limitA === null ? [] : [useFigure(node, node.limitA)]),
  ...leadFigures(node),
]
