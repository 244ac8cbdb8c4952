import { BANK_EFFICIENCY, batteryForAutonomy, outputCharge, packVoltage } from '#core/power'
import { batterySource, type Battery, type StreamPlan, type Sun } from '#core/document'
import { figure, input, type Figure, type FigureInput } from '#core/figure'
import { DISCHARGE, HOUR_S, lineOfCurrent, PEUKERT, RATE_S, type Pack, type RunningTime } from './running-time'

const ampHours = (coulomb: number | null) => (coulomb === null ? null : coulomb / HOUR_S)

const energyFigure = (battery: Battery, { energyJ, bank, packV }: Pack): Figure =>
  figure(
    'battery.energy',
    'Energy in the cells',
    'energy',
    energyJ,
    'E = Q · V_cell',
    'capacity is printed at cell voltage',
    {
      inputs: [
        input('Q', 'capacity, Ah', ampHours(battery.chargeCoulomb), 'number'),
        input('V', bank ? 'cell' : 'pack', packV, 'voltage'),
      ],
      note: energyJ === null ? 'Type the capacity.' : '',
    },
  )

/** How the running time is worked out: the formula, and what goes into it beside load, depth, cold and duty. */
function runtimeWay(
  plan: StreamPlan,
  pack: Pack,
  loadA: number | null,
): { formula: string; inputs: FigureInput[] } {
  const { bank, packV, cells, energyJ, loadW, idleW } = pack
  const charge = input('Q', 'capacity, Ah', ampHours(plan.battery!.chargeCoulomb), 'number')
  const energy = [charge, input('V', bank ? 'cell voltage' : 'pack voltage', packV, 'voltage')]
  const power = input('P', 'drawn from it', loadW, 'power')
  const idle = input('P_idle', 'its own', idleW, 'power')
  const { battery } = plan
  const { chemistry, leadKind } = battery!
  if (bank)
    return {
      formula: 't = Q·V·depth·cold / (P/η + P_idle) / duty',
      inputs: [
        ...energy,
        input('E', 'in the cells', energyJ, 'energy'),
        power,
        input('η', 'bank’s converter', BANK_EFFICIENCY, 'ratio'),
        idle,
      ],
    }
  if (chemistry === 'lead-acid')
    return {
      formula: 't = H·(Q·cold/(I·H))^k · depth / duty, at most Q·cold/I · depth / duty',
      inputs: [
        charge,
        input('I', 'drawn from it', loadA, 'current'),
        input('H', 'rate of the capacity', RATE_S, 'duration'),
        input('k', leadKind === 'agm' ? 'AGM' : 'flooded', PEUKERT[leadKind], 'number'),
      ],
    }
  if (chemistry !== 'li-ion' && chemistry !== 'lifepo4')
    return { formula: 't = Q·V·depth·cold / (P + P_idle) / duty', inputs: [...energy, power, idle] }
  const ends = [
    input('V₁', 'full', packVoltage(chemistry, cells, 'full'), 'voltage'),
    input('V₂', 'empty', packVoltage(chemistry, cells, 'empty'), 'voltage'),
  ]
  if (pack.constantPower)
    return {
      formula: 't = Q·depth·cold·(V₁ + V₂) / (2·(P + P_idle)) / duty',
      inputs: [charge, ...ends, power, idle],
    }
  const source = batterySource(plan)
  const line = loadA === null || !source?.nominalV ? null : lineOfCurrent(loadA, source.nominalV)
  return {
    formula: 't = Q·depth·cold / (b·(V₁ − V₂)) · ln((a + b·V₁)/(a + b·V₂)) / duty',
    inputs: [
      charge,
      ...ends,
      input('a', 'current at no voltage', line?.a ?? null, 'current'),
      input('b', 'and more for each volt', line?.b ?? null, 'current'),
    ],
  }
}

function runtimeFigure(plan: StreamPlan, pack: Pack, time: RunningTime): Figure {
  const { depth, cold, share } = pack
  const { runtimeS } = time
  const { formula, inputs } = runtimeWay(plan, pack, time.loadA)
  return figure(
    'battery.runtime',
    'It lasts',
    'duration',
    runtimeS,
    formula,
    'energy balances E5, E8, E9; depth, cold and efficiency are common practice',
    {
      basis: 'estimated',
      low: runtimeS === null ? null : 0.8 * runtimeS,
      high: runtimeS === null ? null : 1.15 * runtimeS,
      inputs: [
        ...inputs,
        input('depth', 'usable share', depth, 'ratio'),
        input('cold', 'left at that temperature', cold, 'ratio'),
        input('duty', 'of the time on', share, 'ratio'),
      ],
    },
  )
}

const neededFigure = (
  wishedS: number,
  { bank, loadW, idleW, share, depth, cold, packV }: Pack,
  time: RunningTime,
): Figure =>
  figure(
    'battery.needed',
    'Capacity for the wished time, Ah',
    'number',
    ampHours(time.neededCoulomb),
    bank ? 'Q = (P/η + P_idle)·t·duty / (depth·cold·V)' : 'Q = (P + P_idle)·t·duty / (depth·cold·V)',
    'energy balance',
    {
      basis: 'estimated',
      inputs: [
        input('t', 'wished', wishedS, 'duration'),
        input('P', 'drawn', loadW, 'power'),
        input('P_idle', 'its own', idleW, 'power'),
        ...(bank ? [input('η', 'bank’s converter', BANK_EFFICIENCY, 'ratio')] : []),
        input('duty', 'of the time on', share, 'ratio'),
        input('depth', 'usable share', depth, 'ratio'),
        input('cold', 'left at that temperature', cold, 'ratio'),
        input('V', bank ? 'cell voltage' : 'pack voltage', packV, 'voltage'),
      ],
    },
  )

const dailyFigure = ({ loadW, idleW, share }: Pack, dailyJ: number | null): Figure =>
  figure(
    'battery.daily',
    'Used a day',
    'energy',
    dailyJ,
    'E = (P·duty + P_idle·(1 − duty)) · 24 h',
    'definition',
    {
      basis: 'estimated',
      inputs: [
        input('P', 'drawn', loadW, 'power'),
        input('P_idle', 'its own', idleW, 'power'),
        input('duty', 'of the time on', share, 'ratio'),
      ],
    },
  )

const outputFigure = ({ energyJ }: Pack, nominalV: number): Figure =>
  figure(
    'battery.output',
    'Gives at its output, Ah',
    'number',
    energyJ === null ? null : outputCharge(energyJ, BANK_EFFICIENCY, nominalV) / HOUR_S,
    'Q_out = E·η / V_out',
    'energy balance, E6',
    {
      basis: 'estimated',
      inputs: [
        input('E', 'in the cells', energyJ, 'energy'),
        input('η', 'its converter', BANK_EFFICIENCY, 'ratio'),
        input('V_out', 'output', nominalV, 'voltage'),
      ],
    },
  )

const autonomyFigure = ({ energyJ, depth, cold }: Pack, dailyJ: number | null, days: number | null): Figure =>
  figure(
    'sun.autonomy',
    'Without sun it carries, days',
    'number',
    days === null ? null : Math.round(10 * days) / 10,
    'N = E·depth·cold·η / E_day',
    'energy balance of battery and sun, E10',
    {
      basis: 'estimated',
      inputs: [
        input('E', 'battery', energyJ, 'energy'),
        input('depth', 'usable share', depth, 'ratio'),
        input('cold', 'left at that temperature', cold, 'ratio'),
        input('η', 'of discharging', DISCHARGE, 'ratio'),
        input('E_day', 'used a day', dailyJ, 'energy'),
      ],
    },
  )

function panelFigure(sun: Sun, time: RunningTime): Figure {
  const least = Math.min(...sun.sunHours)
  return figure(
    'sun.panel',
    'Panel needed in the worst month',
    'power',
    time.panelNeededW,
    'W_p = E_day / (PSH·η)',
    'energy balance of battery and sun, E10',
    {
      basis: 'estimated',
      inputs: [
        input('E_day', 'used a day', time.dailyJ, 'energy'),
        input('PSH', 'peak-sun hours, worst month', least, 'number'),
        input('η', `${sun.controller} controller`, time.controllerEfficiency, 'ratio'),
      ],
    },
  )
}

const wishedDaysFigure = (days: number, dailyJ: number, { depth, cold }: Pack): Figure =>
  figure(
    'sun.battery',
    'Battery for the wished days',
    'energy',
    batteryForAutonomy(days, dailyJ, depth * cold, DISCHARGE),
    'E = E_day·N / (depth·cold·η)',
    'energy balance of battery and sun, E10',
    {
      basis: 'estimated',
      inputs: [
        input('N', 'days', days, 'number'),
        input('E_day', 'used a day', dailyJ, 'energy'),
        input('depth', 'usable share', depth, 'ratio'),
        input('cold', 'left at that temperature', cold, 'ratio'),
        input('η', 'of discharging', DISCHARGE, 'ratio'),
      ],
    },
  )

/** A battery and its sun as figures; none without a battery. */
export function batteryFigures(plan: StreamPlan, time: RunningTime): Figure[] {
  const { battery, sun } = plan
  const { pack, dailyJ } = time
  const nominalV = batterySource(plan)?.nominalV ?? null
  if (!battery || !pack || nominalV === null) return []
  const wishedDays = sun?.wishedDays ?? null
  return [
    energyFigure(battery, pack),
    runtimeFigure(plan, pack, time),
    battery.wishedS === null ? null : neededFigure(battery.wishedS, pack, time),
    dailyFigure(pack, dailyJ),
    pack.bank ? outputFigure(pack, nominalV) : null,
    sun && autonomyFigure(pack, dailyJ, time.autonomyDays),
    sun && panelFigure(sun, time),
    wishedDays !== null && dailyJ !== null ? wishedDaysFigure(wishedDays, dailyJ, pack) : null,
  ].filter((f) => f !== null)
}
