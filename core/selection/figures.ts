import { figure, input, type Figure } from '#core/figure'
import { CP_AIR } from '#core/air'
import type { UncertainInput } from '#core/document'
import { doubtedRange, type Delivered } from '#core/requirement'
import { levelDistance } from '#core/noise'
import {
  airRise,
  ASSUMED_DISTANCE_M,
  densityAtFan,
  LEVEL_FLOOR,
  lifeAt,
  type FanArray,
  type FanModel,
  type LevelEstimate,
} from '#core/system'
import { installationsOf, type Candidate } from './candidate'
import type { SelectionContext } from './context'

/** Joins the sentences that apply. */
const sentences = (...list: string[]) => list.filter(Boolean).join(' ')
const correctedAfter = (from: 'own' | 'shelf') =>
  from === 'own' ? 'your own test' : 'what this shelf has shown'
/** How the number of fans is to be read in the working. */
const countWords = (c: Candidate) =>
  c.arrangement === 'places'
    ? `fans, ${c.fans.map((f) => f.count).join(' and ')} at the two places`
    : c.arrangement === 'series'
      ? 'fans in series'
      : 'fans side by side'

function flowNotes(c: Candidate, { curves, fan: { trusted, maxV, curveBasis, curveShare } }: FanModel): string {
  const own = curveBasis === 'measured' && curves.basis === 'measured'
  const corrected = own ? undefined : (trusted?.flow ?? trusted?.rotation)
  return sentences(
    curves.fromLabel
      ? `The curve is estimated from its ${curves.fromLabel}: measure its airflow, or find its sheet.`
      : curves.basis === 'estimated'
        ? 'The curve is estimated from free delivery and shut-off pressure.'
        : '',
    own && curveShare !== null
      ? `The curve was measured, to ±${Math.round(100 * curveShare)} % of its airflow.`
      : '',
    corrected ? `Its claims are corrected after ${correctedAfter(corrected.from)}.` : '',
    maxV !== null && c.driveV > maxV
      ? `Above its highest voltage of ${maxV.toFixed(1)} V: what it would do there, not what it may.`
      : '',
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
      basis: c.estimated ? 'estimated' : model.curves.basis,
      low: c.flowLow,
      high: c.flowHigh,
      inputs: [
        input('V', 'at the fan', c.driveV, 'voltage'),
        input('s', 'speed ratio', c.speed, 'ratio'),
        input('n', countWords(c), c.count, 'number'),
        input('ρ', 'air density', context.air.density, 'density'),
      ],
      note: flowNotes(c, model),
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
    { basis: 'estimated', inputs: [input('Q', 'airflow', c.flow, 'flow')] },
  )

const marginFigure = ({ needFlow }: SelectionContext, c: Candidate): Figure =>
  figure('selection.margin', 'Against the need', 'ratio', c.margin, 'Q / Q_need − 1', 'definition', {
    basis: c.estimated ? 'estimated' : 'computed',
    inputs: [input('Q', 'airflow', c.flow, 'flow'), input('Q_need', 'needed', needFlow, 'flow')],
  })

const LEVEL_FORMULA = 'L = max(15, L_claim + Δ_speed + Δ_distance + Δ_number + Δ_installed + Δ_tests)'
const LEVEL_SOURCE =
  'fan sound law 50·lg s (45 to 60 for small fans); 20·lg(r₀/r) up to the room’s 1.5 m; 10·lg n; ' +
  'what surrounds it: common practice'

/** The situations that the installation stands for. */
function installedNote(context: SelectionContext, c: Candidate, fanArray: FanArray): string {
  const penalties = installationsOf(context, fanArray, c.pressure ?? 0, c.stalled).flatMap((i) => i.penalties)
  const told = [...new Set(penalties.map((p) => `${p.name} ${p.low.toFixed(1)} to ${p.high.toFixed(1)} dB`))]
  return told.length ? `Installed: ${told.join(', ')}; the largest counts fully, the next by half.` : ''
}

/** The two levels of an unlike pair, which add by energy. */
function pairLevelFigure(level: LevelEstimate, pair: [LevelEstimate, LevelEstimate], note: string): Figure {
  return figure(
    'selection.level',
    'Level at the listener',
    'level',
    level.value,
    'L = max(15, 10·lg(10^(L₁/10) + 10^(L₂/10)))',
    LEVEL_SOURCE,
    {
      basis: 'estimated',
      low: level.low,
      high: level.high,
      inputs: [
        input('L₁', 'the first alone', pair[0].exact, 'level'),
        input('L₂', 'the second alone', pair[1].exact, 'level'),
      ],
      note,
    },
  )
}

function levelFigure(context: SelectionContext, c: Candidate, fanArray: FanArray): Figure {
  const { model } = fanArray
  const { level } = c
  const note = sentences(
    levelNotes(model),
    installedNote(context, c, fanArray),
    level && level.exact < LEVEL_FLOOR
      ? `Computed ${level.exact.toFixed(1)}: under what can be heard or stated.`
      : '',
  )
  if (level?.pair) return pairLevelFigure(level, level.pair, note)
  const parts = level?.parts
  const term = (symbol: string, label: string, value: number | undefined) =>
    input(symbol, label, value ?? null, 'levelDifference')
  return figure(
    'selection.level',
    'Level at the listener',
    'level',
    level?.value ?? null,
    LEVEL_FORMULA,
    LEVEL_SOURCE,
    {
      basis: 'estimated',
      low: level?.low,
      high: level?.high,
      openLow: level !== null && level.low <= LEVEL_FLOOR,
      inputs: [
        input('L_claim', claimName(model), model.claimDbA, 'level'),
        term('Δ_speed', `at ${Math.round(100 * c.speed)} % of its speed`, parts?.speed),
        term('Δ_distance', distanceName(context.job.listenerM, model), parts?.distance),
        term('Δ_number', `${c.count} alike`, parts?.count),
        term('Δ_installed', 'installation', parts?.installation),
        term('Δ_tests', 'what tests have shown', parts?.correction),
      ],
      note,
    },
  )
}

const claimName = ({ fan, fromSone }: FanModel) =>
  fromSone ? 'claim, from sone' : fan.noiseIsPower ? 'claim, from its sound power at 1 m' : 'claim'
/** From the claim's distance to the listener, or to where a room's level hardly falls any more. */
const distanceName = (listenerM: number, { claimDistanceM }: FanModel) =>
  `from ${claimDistanceM ?? ASSUMED_DISTANCE_M} m${claimDistanceM === null ? ' (assumed)' : ''} to ${levelDistance(listenerM)} m`

/** What the rise of the air is doubted by. */
const riseKeys: UncertainInput[] = ['heatW', 'wallLossWK']

/** Rise of the air that does the job. */
export function riseFigure({ job, blows, air, doubts }: SelectionContext, delivered: Delivered): Figure {
  const rise = airRise(job, blows, air, delivered.flow)
  const own = doubts.filter((d) => riseKeys.includes(d.key))
  const leaving = densityAtFan(blows, air, job.ambientC + (rise ?? 0))
  return figure(
    'selection.rise',
    'Rise of the air',
    'temperatureDifference',
    rise,
    'Δt = P/(UA + ρ·cp·Q)',
    'heat balance of a stirred box',
    {
      basis: 'estimated',
      ...doubtedRange(job, own, delivered, (j, q) => airRise(j, blows, air, q)),
      inputs: [
        input('P', 'heat inside', job.heatW, 'power'),
        input('UA', 'wall loss', job.wallLossWK ?? 0, 'thermalConductance'),
        input('Q', 'air that does the job', delivered.flow, 'flow'),
        input('ρ', blows === 'out' ? 'air density where it leaves' : 'air density', leaving, 'density'),
        input('cp', 'heat capacity of air, J/(kg·K)', CP_AIR, 'number'),
      ],
      note: job.heatW ? '' : 'No heat given.',
    },
  )
}

/** A candidate's figures with their workings. */
export const candidateFigures = (context: SelectionContext, c: Candidate, fanArray: FanArray): Figure[] => [
  flowFigure(context, c, fanArray.model),
  pressureFigure(c),
  marginFigure(context, c),
  levelFigure(context, c, fanArray),
]

const seconds = (hours: number) => hours * 3600

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
      'Bearing life there, always on',
      'duration',
      seconds(Math.sqrt(life.low * life.high)),
      'L = L10 · 2^((T_ref − T)/k), k 10 to 15 K',
      'bearing life against temperature (common practice)',
      {
        basis: 'estimated',
        low: seconds(life.low),
        high: seconds(life.high),
        note: 'L10: by then one in ten has failed. Dust, shock and a wrong shaft are not in it.',
        inputs: [
          input('L10', 'as the sheet states it', fan.lifeH === null ? null : seconds(fan.lifeH), 'duration'),
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
      basis: candidate.estimated ? 'estimated' : model.curves.basis,
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
