import type { FeedPart, LoadKind, WireConnector, Wiring } from '#core/document'
import { awgAmpacity, awgArea } from '#core/power'
import { switchNames } from '#core/supply'

/** The fields of leads, of how the fans are wired, and of everything else that hangs on a source. */

const gauges = [
  { value: null, label: 'not known' },
  ...Object.keys(awgAmpacity).map((g) => ({
    value: Number(g),
    label: `${g} AWG, ${(awgArea(Number(g)) * 1e6).toFixed(2)} mm²`,
  })),
]
export const gaugeOptions = gauges

/** Cross-sections of flexible wire as sold, mm2. IEC 60228, and thinner ones of the trade. */
const crossSections = [0.14, 0.25, 0.34, 0.5, 0.75, 1, 1.5, 2.5, 4, 6]
const metricWires = [
  { value: null, label: 'by gauge' },
  ...crossSections.map((x) => ({ value: x, label: `${x} mm²` })),
]

const wire: Field<keyof FeedPart>[] = [
  { key: 'wireAwg', label: 'Gauge', options: gauges },
  { key: 'wireMm2', label: 'or metric', options: metricWires },
  { key: 'wireLengthM', label: 'Length, one way', quantity: 'distance' },
  { key: 'fuseA', label: 'Fuse in this lead', quantity: 'current' },
]
const hangsOn = (parents: Option[]): Field<keyof FeedPart> => ({
  key: 'parentId',
  label: 'Hangs on',
  options: parents,
})
/** The lead of the stream's fans; what it hangs on where there is a choice. */
export const fansLeadFields = (parents: Option[]): Field<keyof FeedPart>[] => [
  ...wire,
  ...(parents.length > 1 ? [hangsOn(parents)] : []),
]
/** What a part is called, what it hangs on, and by which lead. */
export const feedPlaceFields = (parents: Option[]): Field<keyof FeedPart>[] => [
  { key: 'name', label: 'Name', text: true, required: true },
  hangsOn(parents),
  ...wire,
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
export const controlWireFields = (w: Wiring): Field<keyof Wiring>[] => [
  {
    key: 'pwmFrom',
    label: 'PWM wire comes from',
    options: optionsOf(
      {
        open: 'nothing: open, insulated',
        host: 'a header of the host',
        controller: 'a controller',
        tied: '5 V through a resistor',
      },
      'not told',
    ),
  },
  ...(w.pwmFrom === 'tied'
    ? [{ key: 'pwmTieOhm' as const, label: 'Resistor to 5 V', quantity: 'resistance' as const }]
    : []),
  {
    key: 'tachTo',
    label: 'Tach wire leads to',
    options: optionsOf(
      {
        open: 'nothing: open, insulated',
        host: 'a header of the host',
        controller: 'a controller',
        alarm: 'an alarm',
        input: 'another input',
      },
      'not told',
    ),
  },
  ...(w.pwmFrom === 'host' || w.tachTo === 'host' || w.pwmFrom === 'controller' || w.tachTo === 'controller'
    ? [{ key: 'groundsJoined' as const, label: 'Grounds joined', yesNo: true as const }]
    : []),
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
  const place = feedPlaceFields(parents)
  const [name, on] = place
  // a stream's fans are told where they are chosen
  if (part.streamId !== null || part.kind === 'branch') return place
  const head = [name!, on!]
  if (part.kind === 'switch') return [...head, ...switchFields(part), ...wire]
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
