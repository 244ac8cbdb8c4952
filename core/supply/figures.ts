import { copperResistance, awgArea } from '#core/power'
import type { FeedNodeReport } from './feed-tree'
import { figure, input, type Figure } from '#core/figure'

/** What one node of the feed does, each figure with its working. */
export function nodeFigures(node: FeedNodeReport): Figure[] {
  const { lead } = node
  const key = (name: string) => `feed.${node.id}.${name}`
  const perM = lead?.awg ? copperResistance(awgArea(lead.awg)) : null
  return [
    figure(key('voltage'), 'At its terminals', 'voltage', node.inV, 'V = V_above − R·I', 'Kirchhoff', {
      low: node.lowV,
      high: node.highV,
      inputs: [
        input('R', 'lead both ways and contacts', lead?.ohm ?? 0, 'resistance'),
        input('I', 'drawn', node.inA, 'current'),
      ],
      note: 'The upper end is without load, settings 5 % off and a chopped supply at its peak.',
    }),
    figure(
      key('current'),
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
      key('start'),
      'At the start',
      'current',
      node.startA,
      'I_start at that voltage',
      'measured, or twice the label for fans and pumps (common practice)',
      { basis: 'estimated', inputs: [input('I', 'running', node.inA, 'current')] },
    ),
    figure(key('power'), 'Power', 'power', node.powerW, 'P = V·I', 'definition', {
      basis: 'estimated',
      inputs: [input('V', 'at it', node.inV, 'voltage'), input('I', 'drawn', node.inA, 'current')],
    }),
    ...(node.kind === 'converter'
      ? [
          figure(
            key('heat'),
            'Heat in it',
            'power',
            node.heatW,
            'P = V_in·I_in − V_out·I_out',
            'power balance',
            {
              basis: 'estimated',
              inputs: [
                input('V_out', 'output', node.outV, 'voltage'),
                input('I_out', 'out', node.outA, 'current'),
                input('η', 'efficiency', node.efficiency, 'ratio'),
              ],
            },
          ),
        ]
      : []),
    ...(node.limitA === null
      ? []
      : [
          figure(
            key('use'),
            'Of what it can give',
            'ratio',
            node.utilisation,
            'u = I_out / I_max',
            'good to 80 % (common practice)',
            {
              inputs: [
                input('I_out', 'out', node.outA, 'current'),
                input('I_max', 'can give', node.limitA, 'current'),
              ],
            },
          ),
        ]),
    ...(lead?.ohm
      ? [
          figure(
            key('drop'),
            'Lost in its lead',
            'voltage',
            lead.dropV,
            'ΔV = (2·L·r + contacts)·I',
            'ASTM B258, IEC 60028',
            {
              inputs: [
                input('L', 'one way', lead.lengthM, 'distance'),
                input('r', 'per metre', perM, 'resistance'),
                input('I', 'drawn', node.inA, 'current'),
              ],
            },
          ),
        ]
      : []),
    ...(lead?.longestM
      ? [
          figure(
            key('longest'),
            'Its lead may be',
            'distance',
            lead.longestM,
            'L = ΔV / (2·r·I) for a loss of 5 %',
            'handbook E35',
            { inputs: [input('r', 'per metre', perM, 'resistance'), input('I', 'drawn', node.inA, 'current')] },
          ),
        ]
      : []),
  ]
}
