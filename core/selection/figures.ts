import { figure, input, type Figure } from '#core/figure'
import { CP_AIR } from '#core/air'
import type { UncertainInput } from '#core/document'
import { doubtedRange, type Delivered } from '#core/requirement'
import { airRise, densityAtFan, lifeAt, type FanModel } from '#core/system'
import type { Candidate } from './candidate'
import type { SelectionContext } from './context'

/** Joins the sentences that apply. */
const sentences = (...list: string[]) => list.filter(Boolean).join(' ')
const correctedAfter = (from: 'own' | 'shelf') =>
  from === 'own' ? 'your own test' : 'what this shelf has shown'
const besides = (c: Candidate) => c.arrangement === 'parallel' || c.arrangement === 'single'

function flowNotes({ curves, fan: { trusted } }: FanModel): string {
  const corrected = trusted?.flow ?? trusted?.rotation
  return sentences(
    curves.basis === 'estimated' ? 'The curve is estimated from free delivery and shut-off pressure.' : '',
    corrected ? `Its claims are corrected after ${correctedAfter(corrected.from)}.` : '',
  )
}

function levelNotes({ claimDbA, fan: { noiseDbA, trusted } }: FanModel): string {
  const level = trusted?.level
  return sentences(
    claimDbA === null
      ? 'The sheet states no level.'
      : noiseDbA === null
        ? 'Sone to dB(A): ±5 dB between spectra.'
        : '',
    level ? `Corrected by ${level.middle.toFixed(1)} dB after ${correctedAfter(level.from)}.` : '',
  )
}

const flowFigure = (context: SelectionContext, c: Candidate, model: FanModel): Figure =>
  figure(
    'selection.flow',
    'Airflow at the operating point',
    'flow',
    c.flow,
    's²·ρ/1.2·p(Q/(n·s)) = Δp_path(Q)',
    'monotone cubic through the fan’s curve; affinity laws; bracketed root',
    {
      basis: model.curves.basis,
      low: c.flowLow,
      high: c.flowHigh,
      inputs: [
        input('V', 'at the fan', c.driveV, 'voltage'),
        input('s', 'speed ratio', c.speed, 'ratio'),
        input('n', besides(c) ? 'fans side by side' : 'fans in series', c.count, 'number'),
        input('ρ', 'air density', context.air.density, 'density'),
      ],
      note: flowNotes(model),
    },
  )

const pressureFigure = (c: Candidate): Figure =>
  figure(
    'selection.pressure',
    'Pressure at the operating point',
    'pressure',
    c.pressure,
    'Δp_path(Q)',
    'the path’s resistance at that flow',
    { inputs: [input('Q', 'airflow', c.flow, 'flow')] },
  )

const marginFigure = ({ needFlow }: SelectionContext, c: Candidate): Figure =>
  figure('selection.margin', 'Against the need', 'ratio', c.margin, 'Q / Q_need − 1', 'definition', {
    inputs: [input('Q', 'airflow', c.flow, 'flow'), input('Q_need', 'needed', needFlow, 'flow')],
  })

const levelFigure = (listenerM: number, c: Candidate, model: FanModel): Figure =>
  figure(
    'selection.level',
    'Level at the listener',
    'level',
    c.level?.value ?? null,
    'L = L_claim + 50·lg s − 20·lg(r/r₀) + 10·lg n + installation',
    'fan sound law; free field to 1.5 m; installed fans 0 to 8 dB louder (common practice)',
    {
      basis: 'estimated',
      low: c.level?.low,
      high: c.level?.high,
      inputs: [
        input('L_claim', model.fan.noiseDbA === null ? 'claim, from sone' : 'claim', model.claimDbA, 'level'),
        input('r₀', 'distance of the claim (1 m if unstated)', model.claimDistanceM ?? 1, 'distance'),
        input('r', 'listener', listenerM, 'distance'),
        input('n', 'fans', c.count, 'number'),
        input('s', 'speed ratio', c.speed, 'ratio'),
      ],
      note: levelNotes(model),
    },
  )

/** What the rise of the air is doubted by. */
const riseKeys: UncertainInput[] = ['heatW', 'wallLossWK']

function riseFigure({ job, air, doubts }: SelectionContext, delivered: Delivered): Figure {
  const rise = airRise(job, air, delivered.flow)
  const own = doubts.filter((d) => riseKeys.includes(d.key))
  const leaving = densityAtFan(job, air, job.ambientC + (rise ?? 0))
  return figure(
    'selection.rise',
    'Rise of the air',
    'temperatureDifference',
    rise,
    'Δt = P/(UA + ρ·cp·Q)',
    'heat balance of a stirred box',
    {
      basis: 'estimated',
      ...doubtedRange(job, own, delivered, (j, q) => airRise(j, air, q)),
      inputs: [
        input('P', 'heat inside', job.heatW, 'power'),
        input('UA', 'wall loss', job.wallLossWK ?? 0, 'thermalConductance'),
        input('Q', 'air that does the job', delivered.flow, 'flow'),
        input('ρ', job.direction === 'out' ? 'air density where it leaves' : 'air density', leaving, 'density'),
        input('cp', 'heat capacity of air, J/(kg·K)', CP_AIR, 'number'),
      ],
      note: job.heatW ? '' : 'No heat given.',
    },
  )
}

/** A candidate's figures with their workings. */
export const candidateFigures = (
  context: SelectionContext,
  c: Candidate,
  delivered: Delivered,
  model: FanModel,
): Figure[] => [
  flowFigure(context, c, model),
  pressureFigure(c),
  marginFigure(context, c),
  levelFigure(context.job.listenerM, c, model),
  riseFigure(context, delivered),
]

/** Hours of life are worth no more than hundreds. */
const hundreds = (hours: number) => Math.round(hours / 100) * 100

/**
 * Bearing life of the selected fan.
 * @param airC air at the fan, degC
 * @returns null where the sheet states no life
 */
export function lifeFigure({ fan }: FanModel, airC: number): Figure | null {
  const life = lifeAt(fan, airC)
  return (
    life &&
    figure(
      'selection.life',
      'Bearing life there, hours',
      'number',
      hundreds(Math.sqrt(life.low * life.high)),
      'L = L10 · 2^((T_ref − T)/k), k 10 to 15 K',
      'bearing life against temperature (common practice)',
      {
        basis: 'estimated',
        low: hundreds(life.low),
        high: hundreds(life.high),
        note: 'L10: by then one in ten has failed. Dust, shock and a wrong shaft are not in it.',
        inputs: [
          input('L10', 'sheet, hours', fan.lifeH, 'number'),
          input('T_ref', 'stated at', fan.lifeC ?? 40, 'temperature'),
          input('T', 'air at the fan', airC, 'temperature'),
        ],
      },
    )
  )
}

/** What the selection gives to the job: its flow less what leaks past. */
export const servedFigure = (candidate: Candidate, { flow, low, high }: Delivered, model: FanModel): Figure =>
  figure(
    'selection.served',
    'The picked fan gives',
    'flow',
    flow,
    'Q_job = Q · (1 − leak share)',
    'operating point; ways side by side share one pressure drop',
    {
      basis: model.curves.basis,
      low,
      high,
      inputs: [
        input('Q', 'through the fan', candidate.flow, 'flow'),
        input(
          'leak',
          'share that leaks past',
          candidate.flow && flow !== null ? 1 - flow / candidate.flow : null,
          'ratio',
        ),
      ],
    },
  )
