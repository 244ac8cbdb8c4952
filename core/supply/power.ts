import { awgArea, CONTACT_OHM, copperResistance, headroomVerdict, SETTING_TOLERANCE } from '#core/power'
import type { Fan, PlanDocument } from '#core/document'
import { feedOf, type FeedReport } from './feed-tree'
import { figure, input, type Figure } from '#core/figure'
import type { FanArray } from '#core/system'

export interface PowerReport {
  /** lowest, planned and highest voltage at the fan's terminals, V; null without a source or pick */
  fanLowV: number | null
  fanV: number | null
  fanHighV: number | null
  /** what leaves the converter, or the source when there is none */
  feedV: number | null
  fanRunA: number | null
  fanStartA: number | null
  wireDropV: number | null
  wireAmpacityA: number | null
  loadRunA: number | null
  loadStartA: number | null
  /** current out of the converter, A */
  converterOutA: number | null
  utilisation: number | null
  headroom: 'ok' | 'fix' | 'stop' | null
  figures: Figure[]
  /** the whole tree */
  feed: FeedReport
}

const none: PowerReport = {
  fanLowV: null,
  fanV: null,
  fanHighV: null,
  feedV: null,
  fanRunA: null,
  fanStartA: null,
  wireDropV: null,
  wireAmpacityA: null,
  loadRunA: null,
  loadStartA: null,
  converterOutA: null,
  utilisation: null,
  headroom: null,
  figures: [],
  feed: { nodes: [], settled: true },
}

/**
 * From the source to the fan: voltages at the terminals, currents, wire drop, head-room, and the whole feed as a tree.
 * Without a source the fan is taken at its picked drive voltage.
 */
export function computePower(
  plan: PlanDocument,
  fanArray: FanArray | null,
  fans: readonly Fan[] = [],
): PowerReport {
  const { source, converter, selection } = plan
  const feed = feedOf(plan, fanArray, fans)
  const [root] = feed.nodes
  if (!root || !source) return { ...none, feed, fanV: selection && fanArray ? selection.driveV : null }
  const at = feed.nodes.find((n) => n.id === selection?.id && n.kind === 'selection') ?? null
  const conv = converter ? (feed.nodes.find((n) => n.id === converter.id) ?? null) : null
  const known = feed.nodes.every((n) => n.kind !== 'selection' || n.inA !== null)
  const loadRunA = known ? root.outA : null
  const loadStartA = known ? root.startA : null
  const utilisation = loadRunA !== null && source.iMaxA ? loadRunA / source.iMaxA : null
  if (!at)
    return {
      ...none,
      feed,
      loadRunA,
      loadStartA,
      utilisation,
      headroom: utilisation === null ? null : headroomVerdict(utilisation),
    }
  const fanRunA = at.inA
  const out = conv?.outV ?? root.outV
  const set =
    converter && (converter.kind === 'buck' || converter.kind === 'boost' || converter.kind === 'linear')
  const ohm = at.lead?.ohm ?? 0
  const drop = fanRunA === null || !ohm ? null : at.lead!.dropV
  const others = feed.nodes.filter((n) => n.kind === 'load').reduce((s, n) => s + (n.inA ?? 0), 0)
  const figures: Figure[] = [
    figure('power.fanV', 'At the fan', 'voltage', at.inV, 'V_fan + R·I(V_fan) = V_feed', 'Kirchhoff', {
      low: at.lowV,
      high: at.highV,
      inputs: [
        input('V_feed', converter ? 'converter output' : 'source, nominal', out, 'voltage'),
        input('R', 'wire both ways and contacts', ohm, 'resistance'),
      ],
      note: [
        ohm ? '' : 'No wire given yet: its drop is not counted.',
        set ? `The range counts a setting ${100 * SETTING_TOLERANCE} % off.` : '',
      ]
        .filter(Boolean)
        .join(' '),
    }),
    figure(
      'power.load',
      'Drawn from the source',
      'current',
      loadRunA,
      converter && set ? 'I = ΣI_direct + V_out·I_out / (η·V_in)' : 'I = ΣI',
      'sum of the loads; converter power balance',
      {
        basis: 'estimated',
        note:
          fanRunA === null
            ? 'The fan’s current is not known.'
            : 'Fan current at its driven voltage: I_r·(V/V_r)^1.3, common practice.',
        inputs: [
          input(
            'I_fan',
            `${fanArray?.count ?? 1} fan${fanArray && fanArray.count > 1 ? 's' : ''} at the driven voltage`,
            fanRunA,
            'current',
          ),
          input('I_other', 'other loads', others, 'current'),
          ...(conv
            ? [
                input('η', 'converter efficiency', conv.efficiency, 'ratio'),
                input('V_in', 'source', source.nominalV, 'voltage'),
                input('V_out', 'converter output', out, 'voltage'),
              ]
            : []),
        ],
      },
    ),
    figure(
      'power.start',
      'At the start',
      'current',
      loadStartA,
      'I_start = 2 · I_label · V/V_r',
      'start current unmeasured: twice the label (common practice)',
      { basis: 'estimated', inputs: [input('I_start', 'fans together', at.startA, 'current')] },
    ),
    figure(
      'power.use',
      'Share of the source',
      'ratio',
      utilisation,
      'u = I / I_source',
      'good to 80 % (common practice)',
      {
        inputs: [
          input('I', 'drawn', loadRunA, 'current'),
          input('I_source', 'source can give', source.iMaxA, 'current'),
        ],
        note: source.iMaxA ? '' : 'The source’s current is not known.',
      },
    ),
    figure(
      'power.drop',
      'Lost in the wire',
      'voltage',
      drop,
      'ΔV = (2·L·r + contacts) · I',
      'ASTM B258, IEC 60028',
      {
        inputs: [
          input('L', 'one way', source.wireLengthM, 'distance'),
          input(
            'r',
            'per metre of conductor',
            source.wireAwg ? copperResistance(awgArea(source.wireAwg)) : null,
            'resistance',
          ),
          input('contacts', 'a pair', CONTACT_OHM, 'resistance'),
          input('I', 'fan current', fanRunA, 'current'),
        ],
        note: ohm ? '' : 'No wire given yet.',
      },
    ),
    figure(
      'power.watts',
      'Power of the fans',
      'power',
      fanRunA === null ? null : fanRunA * at.inV,
      'P = V · I',
      'definition',
      {
        basis: 'estimated',
        inputs: [input('V', 'at the fan', at.inV, 'voltage'), input('I', 'fans together', fanRunA, 'current')],
      },
    ),
    ...(conv
      ? [
          figure(
            'power.heat',
            'Heat in the converter',
            'power',
            fanRunA === null ? null : conv.heatW,
            'P = V_in·I_in − V_out·I_out',
            'power balance',
            {
              basis: 'estimated',
              inputs: [
                input('I', 'out of the converter', conv.outA, 'current'),
                input('η', 'efficiency', conv.efficiency, 'ratio'),
              ],
            },
          ),
        ]
      : []),
  ]
  return {
    fanLowV: at.lowV,
    fanV: at.inV,
    fanHighV: at.highV,
    feedV: out,
    fanRunA,
    fanStartA: at.startA,
    wireDropV: drop,
    wireAmpacityA: at.lead?.ampacityA ?? null,
    loadRunA,
    loadStartA,
    converterOutA: conv && fanRunA !== null ? conv.outA : null,
    utilisation,
    headroom: utilisation === null ? null : headroomVerdict(utilisation),
    figures,
    feed,
  }
}
