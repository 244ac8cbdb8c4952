import type { Control, Day, LoadStep, School, ThermalPartDoc } from '#core/document'

const monthNames = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
]

/** The fields of a control and of its days, piece by piece as the station shows them. */

type ControlField = Field<keyof Control>
type DayField = Field<keyof Day>

export const schoolNames: Record<School, string> = {
  always: 'Always on',
  slow: 'Always slow',
  timer: 'By the clock',
  thermostat: 'On when it is warm',
  curve: 'By a curve',
  host: 'By its host',
  boost: 'Quiet, and boost',
  tool: 'With the tool',
}
export const actuatorNames = {
  contact: 'a contact',
  relay: 'a relay',
  'thermal-switch': 'a thermal switch',
  converter: 'a converter with enable',
  'pwm-wire': 'the PWM wire',
  chopped: 'a chopped supply',
  header: 'a host’s header',
  board: 'a controller board',
}
const looks = (c: Control) => c.school === 'thermostat' || c.school === 'curve' || c.school === 'host'

/** School, what it acts by, what it looks at. */
export function howFields(c: Control, parts: { id: string; name: string }[]): ControlField[] {
  return [
    { key: 'actuator', label: 'It acts by', options: optionsOf(actuatorNames, 'not chosen yet') },
    ...(c.school === 'thermostat'
      ? [
          {
            key: 'sense' as const,
            label: 'It looks at',
            options: optionsOf({ temperature: 'a temperature', humidity: 'the humidity', light: 'the light' }),
          },
        ]
      : []),
    ...(looks(c) && c.sense === 'temperature'
      ? [
          {
            key: 'sensedId' as const,
            label: 'Sensor on',
            options: [
              { value: null, label: parts[0] ? `not told: ${parts[0].name} is taken` : 'the air around' },
              ...parts.map((p) => ({ value: p.id, label: p.name })),
            ],
          },
          {
            key: 'sensorKind' as const,
            label: 'Sensor',
            options: optionsOf(
              {
                thermistor: 'a thermistor',
                digital: 'a digital one',
                switch: 'a bimetal switch',
                capillary: 'a capillary',
                infrared: 'infrared',
                'in-air': 'in the air, beside it',
              },
              'not told',
            ),
          },
          {
            key: 'sensorLagS' as const,
            label: 'It is late by',
            quantity: 'shortTime' as const,
            hint: 'empty: 20 s',
          },
        ]
      : []),
    ...lawFields(c),
  ]
}

function lawFields(c: Control): ControlField[] {
  const runOn: ControlField[] = [
    { key: 'runOnS', label: 'Runs on', quantity: 'duration', hint: 'after the work' },
    {
      key: 'runOnFrom',
      label: 'Fed meanwhile from',
      options: optionsOf({ 'always-on': 'the side that stays on', switched: 'the switched side' }, 'not told'),
    },
  ]
  const levels: ControlField[] = [
    { key: 'onDuty', label: 'While it is on', quantity: 'ratio', hint: 'empty: as planned' },
    { key: 'quietDuty', label: 'In between', quantity: 'ratio', hint: 'empty: off' },
  ]
  switch (c.school) {
    case 'always':
      return [{ key: 'onDuty', label: 'At', quantity: 'ratio', hint: 'empty: as planned' }]
    case 'slow':
      return [{ key: 'quietDuty', label: 'At', quantity: 'ratio', hint: 'of the full drive' }]
    case 'timer':
      return [
        { key: 'timerOnS', label: 'Runs for', quantity: 'duration' },
        { key: 'timerEveryS', label: 'Every', quantity: 'duration' },
        {
          key: 'timerStepS',
          label: 'Its clock sets at least',
          quantity: 'duration',
          hint: 'simple ones: 15 min',
        },
        ...levels,
      ]
    case 'thermostat':
      return [
        ...(c.sense === 'humidity'
          ? [
              { key: 'onRh' as const, label: 'On from', quantity: 'ratio' as const },
              { key: 'offRh' as const, label: 'Off at', quantity: 'ratio' as const },
            ]
          : c.sense === 'light'
            ? [
                {
                  key: 'runsIn' as const,
                  label: 'It runs while it is',
                  options: optionsOf({ light: 'light', dark: 'dark' }),
                },
              ]
            : [
                { key: 'onC' as const, label: 'On from', quantity: 'temperature' as const },
                { key: 'offC' as const, label: 'Off at', quantity: 'temperature' as const },
              ]),
        ...levels,
      ]
    case 'curve':
    case 'host':
      return []
    case 'boost':
      return [
        { key: 'quietDuty', label: 'Quiet level', quantity: 'ratio', hint: 'empty: off' },
        { key: 'onDuty', label: 'Boost', quantity: 'ratio', hint: 'empty: as planned' },
        { key: 'demandW', label: 'Boost from a load of', quantity: 'power', hint: 'empty: any work' },
        { key: 'boostS', label: 'Ends by itself after', quantity: 'duration', hint: 'empty: with the load' },
        ...runOn,
      ]
    case 'tool':
      return [
        { key: 'demandW', label: 'From a load of', quantity: 'power', hint: 'empty: any work' },
        { key: 'onDuty', label: 'At', quantity: 'ratio', hint: 'empty: as planned' },
        ...runOn,
      ]
  }
}

export const smoothFields: ControlField[] = [
  { key: 'hysteresisK', label: 'Falls back after', quantity: 'temperatureDifference', hint: 'empty: 3 K' },
  { key: 'filterTauS', label: 'Filter', quantity: 'shortTime', hint: 'empty: 5 s' },
  { key: 'rampUpPerS', label: 'Rises, a second', quantity: 'ratio', hint: 'empty: 20 %' },
  { key: 'rampDownPerS', label: 'Falls, a second', quantity: 'ratio', hint: 'empty: 5 %' },
]

export const limitFields: ControlField[] = [
  { key: 'minDuty', label: 'Keeps turning from', quantity: 'ratio' },
  { key: 'startDuty', label: 'Starts from', quantity: 'ratio' },
  { key: 'capDuty', label: 'Never above', quantity: 'ratio', hint: 'empty: 100 %' },
  { key: 'fanStop', label: 'It may stand still', yesNo: true },
  { key: 'kickDuty', label: 'Kick to start', quantity: 'ratio', hint: 'empty: 100 %' },
  { key: 'kickS', label: 'Kick lasts', quantity: 'shortTime', hint: '0.3 to 1 s; empty: none' },
]

export const pwmFields: ControlField[] = [
  { key: 'pwmHz', label: 'PWM frequency', quantity: 'frequency', hint: 'empty: from the timer' },
  { key: 'clockHz', label: 'Timer clock', quantity: 'frequency', hint: '16 MHz on many boards' },
  { key: 'prescaler', label: 'Prescaler', quantity: 'number' },
  { key: 'timerTop', label: 'Counts to (TOP)', quantity: 'number' },
  { key: 'counting', label: 'It counts', options: optionsOf({ up: 'up', 'up-down': 'up and down' }) },
  { key: 'inverted', label: 'A transistor turns it round', yesNo: true },
]
export const chopFields: ControlField[] = [
  { key: 'gateV', label: 'Gate gets', quantity: 'voltage' },
  { key: 'gateFullV', label: 'Gate wants, fully on', quantity: 'voltage' },
]

export const failFields = (c: Control): ControlField[] => [
  ...(looks(c)
    ? [
        {
          key: 'onFault' as const,
          label: 'Sensor not believed',
          options: optionsOf(
            { full: 'full speed', cap: 'its cap', hold: 'stays as it is', off: 'off' },
            'not told',
          ),
        },
      ]
    : []),
  {
    key: 'whenDead',
    label: 'Controller dead',
    options: optionsOf({ full: 'the fan runs', hold: 'stays as it was', off: 'the fan stands' }, 'not told'),
  },
  ...(c.school === 'host'
    ? [{ key: 'hostSleeps' as const, label: 'Host may sleep', yesNo: true as const }]
    : []),
  { key: 'secondC', label: 'Second thermostat at', quantity: 'temperature', hint: 'in parallel; empty: none' },
  { key: 'interlock', label: 'Heat goes off with it', yesNo: true },
  { key: 'tachAlarm', label: 'Alarm on a stopped fan', yesNo: true },
  ...(c.tachAlarm
    ? [
        {
          key: 'alarmShare' as const,
          label: 'Below, of its speed',
          quantity: 'ratio' as const,
          hint: 'empty: 70 %',
        },
        { key: 'alarmHoldS' as const, label: 'For', quantity: 'shortTime' as const, hint: 'empty: 5 s' },
        {
          key: 'alarmBlankS' as const,
          label: 'Not after a start for',
          quantity: 'shortTime' as const,
          hint: 'empty: 5 s',
        },
        {
          key: 'gateS' as const,
          label: 'Counts pulses for',
          quantity: 'shortTime' as const,
          hint: 'empty: by period',
        },
      ]
    : []),
]

export const contactFields: ControlField[] = [
  { key: 'operations', label: 'Contact made for', quantity: 'number', hint: 'operations; empty: 100 000' },
  { key: 'snubber', label: 'Diode or snubber across', yesNo: true },
]

export const dayFields: DayField[] = [
  { key: 'usualLowC', label: 'Usual day, from', quantity: 'temperature' },
  { key: 'usualHighC', label: 'to', quantity: 'temperature' },
  { key: 'hotLowC', label: 'Hottest, from', quantity: 'temperature' },
  { key: 'hotHighC', label: 'to (hottest)', quantity: 'temperature' },
  { key: 'coldLowC', label: 'Coldest, from', quantity: 'temperature' },
  { key: 'coldHighC', label: 'to (coldest)', quantity: 'temperature' },
]
export const clockFields: DayField[] = [
  { key: 'hottestAtS', label: 'Warmest at', clock: true, hint: 'empty: 14:00' },
  { key: 'nightFromS', label: 'Night from', clock: true, hint: 'empty: 22:00' },
  { key: 'nightToS', label: 'Night to', clock: true, hint: 'empty: 06:00' },
  { key: 'lightFromS', label: 'Light from', clock: true, hint: 'empty: 07:00' },
  { key: 'lightToS', label: 'Light to', clock: true, hint: 'empty: 19:00' },
]
export const daySunFields: DayField[] = [
  {
    key: 'month',
    label: 'Sun of',
    options: [
      { value: null, label: 'the worst month' },
      ...monthNames.map((label, i) => ({ value: i + 1, label })),
    ],
  },
  { key: 'greyShare', label: 'A grey day brings', quantity: 'ratio', hint: 'empty: 20 %' },
  { key: 'startCharge', label: 'Charge at first', quantity: 'ratio', hint: 'empty: full' },
]
export const idleField: DayField[] = [
  { key: 'idleW', label: 'Load in between', quantity: 'power', hint: 'empty: none' },
]
export const loadFields: Field<keyof LoadStep>[] = [
  { key: 'name', label: 'Work', text: true },
  { key: 'fromS', label: 'From', clock: true },
  { key: 'toS', label: 'To', clock: true },
  { key: 'watts', label: 'Heat', quantity: 'power' },
]

export const materialNames = {
  aluminium: 'aluminium',
  copper: 'copper',
  steel: 'steel',
  plastic: 'plastic',
  wood: 'wood',
  water: 'water',
  glass: 'glass',
  electronics: 'electronics, mixed',
}
export const warmFields = (
  part: ThermalPartDoc,
  streams: { id: string; name: string }[],
): Field<keyof ThermalPartDoc>[] => [
  { key: 'name', label: 'Part', text: true },
  { key: 'limitC', label: 'Never above', quantity: 'temperature' },
  ...(streams.length > 1
    ? [
        {
          key: 'streamId' as const,
          label: 'Cooled by',
          options: streams.map(({ id, name }) => ({ value: id === 'main' ? null : id, label: name })),
        },
      ]
    : []),
  ...(part.capacityJK === null
    ? [
        { key: 'massKg' as const, label: 'Mass', quantity: 'mass' as const },
        { key: 'material' as const, label: 'Of', options: optionsOf(materialNames, 'not told') },
      ]
    : []),
  ...(part.massKg === null
    ? [{ key: 'capacityJK' as const, label: 'or heat it stores', quantity: 'heatCapacity' as const }]
    : []),
  { key: 'movedWK', label: 'To moving air', quantity: 'thermalConductance' },
  { key: 'atM3s', label: 'at a flow of', quantity: 'flow', hint: 'empty: the plan’s' },
  { key: 'stillWK', label: 'Without air', quantity: 'thermalConductance', hint: 'empty: a fifth' },
  { key: 'loadShare', label: 'Of the heat', quantity: 'ratio', hint: 'empty: all' },
]
export const curvePointFields: Field<'temperatureC' | 'duty'>[] = [
  { key: 'temperatureC', label: 'From', quantity: 'temperature' },
  { key: 'duty', label: 'Duty', quantity: 'ratio' },
]
