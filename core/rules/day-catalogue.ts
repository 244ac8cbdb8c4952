import type { FactInfo } from './fact-catalogue'

/** The facts of the days that a control has to serve. */
export const dayCatalogue = {
  'day.peak': { unit: 'degC', meaning: 'hottest that a part becomes', quantity: 'temperature', symbol: '°C' },
  'day.part': { unit: 'text', meaning: 'the part that comes nearest to its limit, or passes it most' },
  'day.limit': { unit: 'degC', meaning: 'its limit', quantity: 'temperature', symbol: '°C' },
  'day.lowestCharge': { unit: '1', meaning: 'lowest charge of the planned week' },
  'ctl.neverOn': { unit: 'bool', meaning: 'a thermostat that never switches on' },
  'ctl.converterFixed': { unit: 'bool', meaning: 'steered by a converter that gives one voltage' },
  'ctl.asks': {
    unit: '%',
    meaning: 'duty that is asked for and starts nothing',
    quantity: 'ratio',
    symbol: '%',
  },
  'ctl.startsFrom': { unit: '%', meaning: 'duty that starts the fans', quantity: 'ratio', symbol: '%' },
  'ctl.cycle': { unit: 's', meaning: 'one cycle of a thermostat', quantity: 'duration', symbol: 's' },
  'ctl.timerStep': { unit: 's', meaning: 'smallest step of its clock', quantity: 'duration', symbol: 's' },
  'ctl.timerOn': { unit: 's', meaning: 'how long a timer runs', quantity: 'duration', symbol: 's' },
  'ctl.runOnFrom': { unit: 'text', meaning: 'side that feeds the run-on: always-on or switched' },
  'ctl.interlock': { unit: 'bool', meaning: 'the heat goes off with the fan’s supply' },
  'ctl.lowestV': {
    unit: 'V',
    meaning: 'lowest voltage that it gives while it runs',
    quantity: 'voltage',
    symbol: 'V',
  },
  'ctl.startDriveV': {
    unit: 'V',
    meaning: 'voltage at start, kick included',
    quantity: 'voltage',
    symbol: 'V',
  },
  'ctl.fanMinV': {
    unit: 'V',
    meaning: 'lowest voltage that keeps the fans turning',
    quantity: 'voltage',
    symbol: 'V',
  },
  'ctl.fanStartV': {
    unit: 'V',
    meaning: 'lowest voltage that starts the fans',
    quantity: 'voltage',
    symbol: 'V',
  },
} as const satisfies Record<string, FactInfo>
