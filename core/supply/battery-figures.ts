import { BANK_EFFICIENCY, batteryForAutonomy, outputCharge } from '#core/power'
import type { Battery, PlanDocument, Sun } from '#core/document'
import { figure, input, type Figure } from '#core/figure'
import { DISCHARGE, HOUR_S, type Pack, type RunningTime } from './running-time'

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

const runtimeFormula = (battery: Battery, bank: boolean) =>
  bank
    ? 't = E·depth·cold / (P/η + P_idle) / duty'
    : battery.chemistry === 'lead-acid'
      ? 't = H·(C/(I·H))^k · depth / duty'
      : 'pack voltage falling with its charge (E8)'

const runtimeFigure = (
  battery: Battery,
  { bank, loadW, depth, cold, share }: Pack,
  runtimeS: number | null,
): Figure =>
  figure(
    'battery.runtime',
    'It lasts',
    'duration',
    runtimeS,
    runtimeFormula(battery, bank),
    'energy balances E5, E8, E9; depth, cold and efficiency are common practice',
    {
      basis: 'estimated',
      low: runtimeS === null ? null : 0.8 * runtimeS,
      high: runtimeS === null ? null : 1.15 * runtimeS,
      inputs: [
        input('P', 'drawn from it', loadW, 'power'),
        input('depth', 'usable share', depth, 'ratio'),
        input('cold', 'left at that temperature', cold, 'ratio'),
        input('duty', 'of the time on', share, 'ratio'),
        ...(bank ? [input('η', 'bank’s converter', BANK_EFFICIENCY, 'ratio')] : []),
      ],
    },
  )

const neededFigure = (wishedS: number, { loadW }: Pack, time: RunningTime): Figure =>
  figure(
    'battery.needed',
    'Capacity for the wished time, Ah',
    'number',
    ampHours(time.neededCoulomb),
    'Q = P·t·duty / (depth·cold·V)',
    'energy balance',
    {
      basis: 'estimated',
      inputs: [input('t', 'wished', wishedS, 'duration'), input('P', 'drawn', loadW, 'power')],
    },
  )

const dailyFigure = ({ loadW, share }: Pack, dailyJ: number | null): Figure =>
  figure('battery.daily', 'Used a day', 'energy', dailyJ, 'E = P · duty · 24 h', 'definition', {
    basis: 'estimated',
    inputs: [input('P', 'drawn', loadW, 'power'), input('duty', 'of the time on', share, 'ratio')],
  })

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
      inputs: [input('E', 'in the cells', energyJ, 'energy'), input('V_out', 'output', nominalV, 'voltage')],
    },
  )

const autonomyFigure = (energyJ: number | null, dailyJ: number | null, days: number | null): Figure =>
  figure(
    'sun.autonomy',
    'Without sun it carries, days',
    'number',
    days === null ? null : Math.round(10 * days) / 10,
    'N = E·depth·η / E_day',
    'energy balance of battery and sun, E10',
    {
      basis: 'estimated',
      inputs: [input('E', 'battery', energyJ, 'energy'), input('E_day', 'used a day', dailyJ, 'energy')],
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
    'E = E_day·N / (depth·η)',
    'energy balance of battery and sun, E10',
    { basis: 'estimated', inputs: [input('N', 'days', days, 'number')] },
  )

/** A battery and its sun as figures; none without a battery. */
export function batteryFigures({ battery, sun, source }: PlanDocument, time: RunningTime): Figure[] {
  const { pack, dailyJ } = time
  const nominalV = source?.nominalV ?? null
  if (!battery || !pack || nominalV === null) return []
  const wishedDays = sun?.wishedDays ?? null
  return [
    energyFigure(battery, pack),
    runtimeFigure(battery, pack, time.runtimeS),
    battery.wishedS === null ? null : neededFigure(battery.wishedS, pack, time),
    dailyFigure(pack, dailyJ),
    pack.bank ? outputFigure(pack, nominalV) : null,
    sun && autonomyFigure(pack.energyJ, dailyJ, time.autonomyDays),
    sun && panelFigure(sun, time),
    wishedDays !== null && dailyJ !== null ? wishedDaysFigure(wishedDays, dailyJ, pack) : null,
  ].filter((f) => f !== null)
}
