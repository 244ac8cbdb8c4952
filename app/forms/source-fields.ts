import {
  sourceSchema,
  windowProblem,
  withNominal,
  type Battery,
  type Converter,
  type Source,
  type Sun,
} from '#core/document'
import { supplyDefaults, type SupplyKind } from '#core/power'
import type { SourceWindow } from '#core/supply'

/** The fields of what feeds the fans: sources, converters, batteries, sun. */

export const sourceKinds = supplyDefaults.map((x) => ({ value: x.kind, label: x.name }))
export const sourceNote = (kind: SupplyKind | undefined) =>
  supplyDefaults.find((x) => x.kind === kind)?.note ?? ''
export const isBattery = (kind: SupplyKind | undefined) =>
  kind === 'power-bank' || kind === 'pack' || kind === 'house-battery' || kind === 'vehicle' || kind === 'solar'

/** Voltages that sources usually have, V. */
export const usualVoltages = [5, 12, 13.8, 24] as const

/** The schemas of a source's fields; its three voltages are held against each other beside the field. */
export function sourceShape(source: Source) {
  const held = (key: 'nominalV' | 'lowV' | 'highV') =>
    sourceSchema.shape[key].superRefine((value, context) => {
      const moved = key === 'nominalV' ? withNominal(source, value) : { ...source, [key]: value }
      const problem = windowProblem(moved)
      if (!problem) return
      const end = key === 'lowV' ? 'above' : 'below'
      const nominal = `The nominal voltage is ${source.nominalV} V: this end cannot lie ${end} it.`
      context.addIssue({ code: 'custom', message: problem.key === key ? problem.message : nominal })
    })
  return { ...sourceSchema.shape, nominalV: held('nominalV'), lowV: held('lowV'), highV: held('highV') }
}

const fuseFields: Field<keyof Source>[] = [
  { key: 'fuseA', label: 'Fuse', quantity: 'current' },
  {
    key: 'fuseFamily',
    label: 'Fuse family',
    options: optionsOf(
      {
        iec60127: 'glass, IEC: carries its value',
        ul248: 'glass, UL: carries 75 %',
        blade: 'blade: carries 75 %',
      },
      'usual',
    ),
  },
  { key: 'fuseDistanceM', label: 'Fuse from the terminal', quantity: 'distance' },
]

/**
 * Fields of a source.
 * @param window what it is judged by where an end is not typed
 */
export function sourceFields(source: Source, window: SourceWindow | null): Field<keyof Source>[] {
  const usual = (volts: number | undefined) => (volts === undefined ? '' : `${Math.round(100 * volts) / 100} V`)
  const usb = source.kind === 'usb'
  const tap = source.kind === 'tap'
  return [
    { key: 'name', label: 'Name', text: true },
    { key: 'nominalV', label: 'Nominal voltage', quantity: 'voltage' },
    {
      key: 'lowV',
      label: 'Lowest',
      quantity: 'voltage',
      placeholder: usual(window?.lowV),
      hint: 'empty: usual for its kind',
    },
    {
      key: 'highV',
      label: 'Highest',
      quantity: 'voltage',
      placeholder: usual(window?.highV),
      hint: 'empty: usual for its kind',
    },
    {
      key: 'iMaxA',
      label: 'It can give',
      quantity: 'current',
      hint: 'from its label; spare current of a rail',
    },
    { key: 'iPeakA', label: 'For a second', quantity: 'current', hint: 'empty: no more than that' },
    { key: 'output', label: 'Output', options: optionsOf({ dc: 'DC', ac: 'AC' }) },
    { key: 'regulated', label: 'Regulated', yesNo: true },
    ...(source.regulated === false
      ? [{ key: 'openV' as const, label: 'Measured without load', quantity: 'voltage' as const }]
      : []),
    ...(usb
      ? [
          {
            key: 'usbKind' as const,
            label: 'Port',
            options: optionsOf({
              'usb2-unconfigured': 'USB 2, never negotiates',
              'usb2-configured': 'USB 2',
              'usb3-unconfigured': 'USB 3, never negotiates',
              'usb3-configured': 'USB 3',
              bc12: 'charging port',
              'typec-1A5': 'Type-C, 1.5 A',
              'typec-3A': 'Type-C, 3 A',
              'pd-15W': 'power contract, 15 W: 5 V',
              'pd-27W': 'power contract, 27 W: 5, 9 V',
              'pd-45W': 'power contract, 45 W: 5, 9, 15 V',
              'pd-100W': 'power contract, 60 to 100 W: 5, 9, 15, 20 V',
            }),
          },
          { key: 'typeCPullDown' as const, label: 'Type-C lead with 5.1 kΩ', yesNo: true as const },
        ]
      : []),
    ...(tap
      ? [
          {
            key: 'tap' as const,
            label: 'Pins used',
            options: optionsOf({ '12V': '12 V', '5V': '5 V', '7V': '7 V between + and +' }, 'not told'),
          },
          { key: 'fiveLoadA' as const, label: 'Load on the 5 V', quantity: 'current' as const },
        ]
      : []),
    ...(source.kind === 'vehicle'
      ? [{ key: 'transientProtected' as const, label: 'Spike suppressor fitted', yesNo: true as const }]
      : []),
    { key: 'reversible', label: 'Its plug fits both ways', yesNo: true },
    { key: 'polarityChecked', label: 'Polarity metered at the plug', yesNo: true },
    { key: 'fuseFitted', label: 'Fuse fitted', yesNo: true },
    ...(source.fuseFitted === true || source.fuseA !== null ? fuseFields : []),
  ]
}

export const converterKinds = [
  { value: 'none' as const, label: 'none: straight to the fan' },
  { value: 'buck' as const, label: 'step-down (buck)' },
  { value: 'boost' as const, label: 'step-up (boost)' },
  { value: 'linear' as const, label: 'linear regulator' },
  { value: 'resistor' as const, label: 'series resistor' },
  { value: 'diode' as const, label: 'diodes in a row' },
  { value: 'pwm' as const, label: 'switched supply (PWM)' },
  { value: 'divider' as const, label: 'divider (why not: see below)' },
]
export function converterFields(c: Converter): Field<keyof Converter>[] {
  const set: Field<keyof Converter> = {
    key: 'outV',
    label:
      c.converterKind === 'buck' || c.converterKind === 'boost' || c.converterKind === 'linear'
        ? 'Set to'
        : 'Wanted at the fan',
    quantity: 'voltage',
    required: true,
  }
  if (c.converterKind === 'resistor')
    return [
      set,
      { key: 'ohm', label: 'Resistor', quantity: 'resistance', hint: 'empty: the nearest of E12' },
      { key: 'ratingW', label: 'Its rating', quantity: 'power', hint: 'twice its heat' },
      { key: 'capV', label: 'Capacitor across the fan', quantity: 'voltage', hint: 'its rating' },
    ]
  if (c.converterKind === 'divider')
    return [
      set,
      { key: 'ohm', label: 'Upper resistor', quantity: 'resistance' },
      { key: 'ohm2', label: 'Lower resistor', quantity: 'resistance' },
    ]
  if (c.converterKind === 'diode')
    return [
      set,
      {
        key: 'diodeKind',
        label: 'Kind',
        options: optionsOf({ silicon: 'silicon, 0.75 V each', schottky: 'Schottky, 0.3 V each' }),
      },
      { key: 'diodes', label: 'Diodes', quantity: 'number', hint: 'empty: as many as it takes' },
    ]
  if (c.converterKind === 'pwm') {
    return [
      set,
      { key: 'duty', label: 'Share on', quantity: 'ratio' },
      { key: 'pwmHz', label: 'Frequency', quantity: 'frequency' },
      {
        key: 'switchSide',
        label: 'Switch in',
        options: optionsOf({ high: 'the + lead', low: 'the ground lead' }, 'not known'),
      },
      { key: 'flyback', label: 'Diode across the fan', yesNo: true },
      { key: 'capV', label: 'Capacitor', quantity: 'voltage', hint: 'its rating' },
    ]
  }
  return [
    set,
    { key: 'iMaxA', label: 'It can give', quantity: 'current', hint: 'as advertised; plan with 70 %' },
    ...(c.converterKind === 'linear'
      ? [
          {
            key: 'junctionToAirKPerW' as const,
            label: 'Junction to air',
            quantity: 'thermalResistance' as const,
            hint: 'bare TO-220: 60 K/W',
          },
          { key: 'capsFitted' as const, label: 'Its capacitors fitted', yesNo: true as const },
        ]
      : [
          {
            key: 'efficiency' as const,
            label: 'Efficiency',
            quantity: 'ratio' as const,
            hint: 'empty: 88 % down, 85 % up',
          },
        ]),
    { key: 'measuredV', label: 'Measured, unloaded', quantity: 'voltage' },
  ]
}
export function batteryFields(b: Battery, kind: SupplyKind): Field<keyof Battery>[] {
  return [
    {
      key: 'chemistry',
      label: 'Chemistry',
      options: optionsOf({
        'li-ion': 'Li-ion',
        lifepo4: 'LiFePO₄',
        'lead-acid': 'lead-acid',
        nimh: 'NiMH',
        alkaline: 'alkaline',
      }),
    },
    ...(kind === 'pack'
      ? [{ key: 'cells' as const, label: 'Cells in series', quantity: 'number' as const }]
      : []),
    {
      key: 'chargeCoulomb',
      label: 'Capacity',
      quantity: 'charge',
      hint: kind === 'power-bank' ? 'as printed, at cell voltage' : 'as printed',
    },
    ...(b.chemistry === 'lead-acid'
      ? [
          {
            key: 'leadKind' as const,
            label: 'Build',
            options: optionsOf({ agm: 'AGM or gel', flooded: 'flooded' }),
          },
        ]
      : []),
    { key: 'wishedS', label: 'Wished running time', quantity: 'duration' },
    { key: 'dutyShare', label: 'Of the time on', quantity: 'ratio', hint: 'empty: the job’s hours a day' },
    ...(kind === 'power-bank'
      ? [{ key: 'autoOffA' as const, label: 'Switches off below', quantity: 'current' as const }]
      : []),
    {
      key: 'depth',
      label: 'Usable share',
      quantity: 'ratio',
      hint: b.chemistry === 'lead-acid' ? 'empty: 50 %' : 'empty: 80 to 90 %',
    },
    { key: 'maxA', label: 'It may give', quantity: 'current' },
    { key: 'coldC', label: 'Its temperature', quantity: 'temperature', hint: 'empty: the job’s air' },
    { key: 'idleW', label: 'Converter’s own draw', quantity: 'power' },
    {
      key: 'energyBasis',
      label: 'mAh multiplied with',
      options: optionsOf({ 'cell-voltage': 'cell voltage (right)', 'output-voltage': 'output voltage' }),
    },
    ...(b.chemistry === 'li-ion' || b.chemistry === 'lifepo4'
      ? [
          { key: 'protectedPack' as const, label: 'Protection board', yesNo: true as const },
          { key: 'chargedCold' as const, label: 'May be charged below 0 °C', yesNo: true as const },
          { key: 'airTravel' as const, label: 'Goes by air', yesNo: true as const },
        ]
      : []),
  ]
}
export const sunFields: Field<keyof Sun>[] = [
  { key: 'panelW', label: 'Panel', quantity: 'power' },
  { key: 'panelVmp', label: 'Its working voltage', quantity: 'voltage' },
  { key: 'panelVoc', label: 'Open-circuit voltage', quantity: 'voltage' },
  {
    key: 'controller',
    label: 'Controller',
    options: optionsOf({ tracking: 'tracking', series: 'simple, in series', none: 'none' }),
  },
  { key: 'wishedDays', label: 'Days without sun', quantity: 'number' },
]
