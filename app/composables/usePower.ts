import {
  sourceSchema,
  windowProblem,
  withNominal,
  type Battery,
  type Converter,
  type FeedPart,
  type LoadKind,
  type Source,
  type Sun,
  type WireConnector,
  type Wiring,
} from '#core/document'
import { converterNames, switchNames, type SourceWindow } from '#core/supply'
import { awgAmpacity, awgArea, supplyDefaults, type SupplyKind } from '#core/power'

/** The forms of the Power station. */

const gauges = [
  { value: null, label: 'not known' },
  ...Object.keys(awgAmpacity).map((g) => ({
    value: Number(g),
    label: `${g} AWG, ${(awgArea(Number(g)) * 1e6).toFixed(2)} mm²`,
  })),
]
export const gaugeOptions = gauges
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
    label: c.kind === 'buck' || c.kind === 'boost' || c.kind === 'linear' ? 'Set to' : 'Wanted at the fan',
    quantity: 'voltage',
    required: true,
  }
  if (c.kind === 'resistor')
    return [
      set,
      { key: 'ohm', label: 'Resistor', quantity: 'resistance', hint: 'empty: the nearest of E12' },
      { key: 'ratingW', label: 'Its rating', quantity: 'power', hint: 'twice its heat' },
      { key: 'capV', label: 'Capacitor across the fan', quantity: 'voltage', hint: 'its rating' },
    ]
  if (c.kind === 'divider')
    return [
      set,
      { key: 'ohm', label: 'Upper resistor', quantity: 'resistance' },
      { key: 'ohm2', label: 'Lower resistor', quantity: 'resistance' },
    ]
  if (c.kind === 'diode')
    return [
      set,
      {
        key: 'diodeKind',
        label: 'Kind',
        options: optionsOf({ silicon: 'silicon, 0.75 V each', schottky: 'Schottky, 0.3 V each' }),
      },
      { key: 'diodes', label: 'Diodes', quantity: 'number', hint: 'empty: as many as it takes' },
    ]
  if (c.kind === 'pwm') {
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
    ...(c.kind === 'linear'
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
/** Cross-sections of flexible wire as sold, mm2. IEC 60228, and thinner ones of the trade. */
const crossSections = [0.14, 0.25, 0.34, 0.5, 0.75, 1, 1.5, 2.5, 4, 6]
const metricWires = [
  { value: null, label: 'by gauge' },
  ...crossSections.map((x) => ({ value: x, label: `${x} mm²` })),
]

export const leadFields: Field<keyof Source>[] = [
  { key: 'wireAwg', label: 'Gauge', options: gauges },
  { key: 'wireMm2', label: 'or metric', options: metricWires },
  { key: 'wireLengthM', label: 'Length, one way', quantity: 'distance' },
  { key: 'fuseFitted', label: 'Fuse fitted', yesNo: true },
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
  { key: 'polarityChecked', label: 'Polarity metered at the plug', yesNo: true },
]
const connectors: Record<WireConnector, string> = {
  header: 'keyed fan header',
  'pin-housing': 'loose pin housing',
  'wire-to-board': 'wire-to-board, 2 to 2.5 mm',
  'small-1.25': 'small, 1.25 mm',
  barrel: 'barrel plug',
  peripheral: 'peripheral 4-pin',
  xt30: 'two-pole power plug, 15 A',
  xt60: 'two-pole power plug, 30 A',
  'spade-2.8': 'spade 2.8 mm',
  'spade-4.8': 'spade 4.8 mm',
  spade: 'spade 6.3 mm',
  screw: 'screw terminal',
  'usb-a': 'USB-A',
  'usb-c': 'USB Type-C',
  splice: 'soldered splice',
}
export const wiringFields = (w: Wiring): Field<keyof Wiring>[] => [
  { key: 'plusColour', label: 'Colour of +', text: true },
  { key: 'minusColour', label: 'Colour of −', text: true },
  {
    key: 'identifiedBy',
    label: 'Leads told by',
    options: optionsOf({ position: 'position in the plug', measurement: 'meter', colour: 'colour' }, 'not yet'),
  },
  { key: 'connector', label: 'Connector', options: optionsOf(connectors, 'not chosen') },
  {
    key: 'join',
    label: 'Joined by',
    options: optionsOf({ adapter: 'adapter lead (reversible)', cut: 'cut and splice' }, 'not chosen'),
  },
  ...(w.connector === 'barrel'
    ? [
        { key: 'barrelPlugM' as const, label: 'Plug, inner', quantity: 'length' as const },
        { key: 'barrelJackM' as const, label: 'Jack, pin', quantity: 'length' as const },
      ]
    : []),
  { key: 'strainRelief', label: 'Strain relief', yesNo: true },
  { key: 'reverseProtected', label: 'Protected against reversal', yesNo: true },
  { key: 'routeM', label: 'Length of the route', quantity: 'distance' },
  { key: 'bundle', label: 'Loaded conductors together', quantity: 'number' },
  { key: 'insulationC', label: 'Insulation stands', quantity: 'temperature', hint: 'empty: 70 °C' },
  { key: 'wireAirC', label: 'Air beside the wire', quantity: 'temperature', hint: 'empty: 30 °C' },
  ...(w.join === 'cut'
    ? [
        { key: 'shrinkBoreM' as const, label: 'Heat-shrink, as supplied', quantity: 'length' as const },
        { key: 'shrinkRatio' as const, label: 'It shrinks to 1 in', quantity: 'number' as const },
      ]
    : []),
  { key: 'crimpPullN', label: 'Crimp held, newton', quantity: 'number' },
  { key: 'switchDcV', label: 'Switch: DC volts', quantity: 'voltage' },
  { key: 'switchDcA', label: 'Switch: DC amps', quantity: 'current' },
  { key: 'electricalSeries', label: 'Fans in series electrically', yesNo: true },
]
export const controlWireFields: Field<keyof Wiring>[] = [
  { key: 'tachUsed', label: 'Tach is read', yesNo: true },
  { key: 'tachJoined', label: 'Tach leads tied together', quantity: 'number' },
  {
    key: 'hub',
    label: 'Splitter or hub',
    options: optionsOf({ none: 'none', passive: 'splitter, unpowered', powered: 'powered hub' }, 'not told'),
  },
  {
    key: 'headerMode',
    label: 'Header works by',
    options: optionsOf({ pwm: 'PWM', voltage: 'voltage' }, 'not told'),
  },
  { key: 'pwmSinkA', label: 'PWM driver can sink', quantity: 'current' },
  { key: 'pwmPinV', label: 'Highest on the PWM pin', quantity: 'voltage' },
]

export const loadKinds: Record<LoadKind, string> = {
  fan: 'another fan',
  led: 'LED with resistor',
  module: 'thermoelectric module',
  board: 'board computer',
  pump: 'pump',
  other: 'anything else',
}
const warmKinds: (string | null)[] = ['thermal-no', 'thermal-nc', 'thermostat']
const switchFields = (part: FeedPart): Field<keyof FeedPart>[] => [
  { key: 'switchKind', label: 'Kind', options: optionsOf(switchNames) },
  ...(warmKinds.includes(part.switchKind)
    ? [
        { key: 'onC' as const, label: 'Closes at', quantity: 'temperature' as const },
        { key: 'offC' as const, label: 'Opens at', quantity: 'temperature' as const },
        { key: 'sensorAt' as const, label: 'Its sensor sits', text: true as const },
      ]
    : []),
  { key: 'contactV', label: 'Contact: DC volts', quantity: 'voltage' },
  { key: 'contactA', label: 'Contact: DC amps', quantity: 'current' },
  { key: 'sparkDiode', label: 'Diode across the load', yesNo: true },
  ...(part.switchKind === 'hand' || part.switchKind === 'thermal-no' || part.switchKind === 'thermal-nc'
    ? []
    : [{ key: 'coilA' as const, label: 'Draws itself', quantity: 'current' as const }]),
]
export function partFields(part: FeedPart, parents: Option[], fans: Option[]): Field<keyof FeedPart>[] {
  const wire: Field<keyof FeedPart>[] = [
    { key: 'wireAwg', label: 'Gauge', options: gauges },
    { key: 'wireMm2', label: 'or metric', options: metricWires },
    { key: 'wireLengthM', label: 'Length, one way', quantity: 'distance' },
    { key: 'fuseA', label: 'Fuse', quantity: 'current' },
  ]
  const head: Field<keyof FeedPart>[] = [
    { key: 'name', label: 'Name', text: true, required: true },
    { key: 'parentId', label: 'Hangs on', options: parents },
  ]
  const carries: Field<keyof FeedPart> = {
    key: 'carriesFans',
    label: 'In the lead of the fans',
    options: [
      { value: true, label: 'yes, they hang behind it' },
      { value: false, label: 'no' },
    ],
  }
  // a stream's fans are told where they are chosen
  if (part.streamId !== null) return [...head, ...wire]
  if (part.kind === 'branch') return [...head, carries, ...wire]
  if (part.kind === 'switch') return [...head, ...switchFields(part), carries, ...wire]
  if (part.kind === 'converter') {
    return [
      ...head,
      {
        key: 'converterKind',
        label: 'Kind',
        options: optionsOf({
          buck: converterNames.buck,
          boost: converterNames.boost,
          linear: converterNames.linear,
          resistor: converterNames.resistor,
          diode: converterNames.diode,
        }),
      },
      ...(part.converterKind === 'diode'
        ? [
            {
              key: 'diodeKind' as const,
              label: 'Diode',
              options: optionsOf(
                { silicon: 'silicon, 0.7 to 0.9 V', schottky: 'Schottky, 0.3 to 0.5 V' },
                'silicon',
              ),
            },
            { key: 'diodes' as const, label: 'In series', quantity: 'number' as const },
            carries,
          ]
        : part.converterKind === 'resistor'
          ? [{ key: 'ohm' as const, label: 'Resistor', quantity: 'resistance' as const }]
          : [
              { key: 'outV' as const, label: 'Set to', quantity: 'voltage' as const },
              { key: 'iMaxA' as const, label: 'It can give', quantity: 'current' as const },
              { key: 'setFirst' as const, label: 'Set with a meter first', yesNo: true as const },
            ]),
      ...wire,
    ]
  }
  const own: Field<keyof FeedPart>[] =
    part.loadKind === 'fan'
      ? [{ key: 'fanId', label: 'Which fan', options: fans }]
      : part.loadKind === 'led'
        ? [
            { key: 'currentA', label: 'Current, each', quantity: 'current' },
            { key: 'ledString', label: 'LEDs in a string', quantity: 'number' },
            {
              key: 'ledColour',
              label: 'Colour',
              options: optionsOf(
                { red: 'red', yellow: 'yellow', green: 'green', blue: 'blue', white: 'white' },
                'not told',
              ),
            },
            { key: 'ledV', label: 'Drop of each', quantity: 'voltage', hint: 'empty: by its colour' },
          ]
        : [
            { key: 'currentA', label: 'Current, each', quantity: 'current' },
            { key: 'startA', label: 'At the start, each', quantity: 'current' },
            ...(part.loadKind === 'module' || part.loadKind === 'board'
              ? [{ key: 'ratedV' as const, label: 'at', quantity: 'voltage' as const }]
              : []),
          ]
  return [
    ...head,
    { key: 'loadKind', label: 'What', options: optionsOf(loadKinds) },
    { key: 'count', label: 'Number', quantity: 'number', required: true },
    ...own,
    ...wire,
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
