import { filterMedia } from '#core/airpath'
import { usualBores } from '#core/fit'
import type { Fan, Fit, Job, KeepClear, Place, Thing } from '#core/document'

/** The fields of the place for the fans, piece by piece as the station shows them. */

type FitField = Field<keyof Fit>
const inMm = (key: keyof Fit, label: string, hint?: string): FitField => ({
  key,
  label,
  quantity: 'length',
  ...(hint ? { hint } : {}),
})

export const placeFields: Field<keyof Place>[] = [
  {
    key: 'direction',
    label: 'The fan',
    options: optionsOf({ in: 'blows in', out: 'draws out' }, 'not known'),
  },
  { key: 'fitDepthM', label: 'Depth for the fan', quantity: 'length', hint: 'behind the panel' },
  { key: 'fitWidthM', label: 'Width for the frame', quantity: 'length' },
  { key: 'inletClearM', label: 'Free before the intake', quantity: 'length', hint: 'to the next wall' },
  { key: 'outletClearM', label: 'Free after the outlet', quantity: 'length', hint: 'to the next wall' },
  {
    key: 'stackExtraM',
    label: 'Gasket, filter, heads',
    quantity: 'length',
    hint: 'together; empty: piece by piece',
  },
  { key: 'holeM', label: 'Hole, there or to cut', quantity: 'length' },
  { key: 'screwHoleM', label: 'Screw hole', quantity: 'length', hint: 'empty: for its screw' },
  { key: 'existingHolesM', label: 'Screw holes there', quantity: 'length', hint: 'centre to centre' },
  { key: 'upstreamGapM', label: 'Impeller to next grille', quantity: 'length', hint: 'intake side' },
  {
    key: 'shaft',
    label: 'Shaft will lie',
    options: optionsOf({ horizontal: 'horizontal', vertical: 'vertical' }, 'not known'),
  },
]

export const panelFields = (fit: Fit): FitField[] => [
  {
    key: 'material',
    label: 'Cut into',
    options: optionsOf(
      { wood: 'wood', plastic: 'plastic', metal: 'sheet metal', acrylic: 'acrylic', card: 'card' },
      'not known',
    ),
  },
  {
    key: 'sitsIn',
    label: 'The fan sits in',
    options: optionsOf(
      { panel: 'a panel', duct: 'a duct', shroud: 'a shroud', adapter: 'an adapter' },
      'not known',
    ),
  },
  inMm('panelM', 'Panel, thickness'),
  inMm('panelWidthM', 'Panel, width'),
  inMm('panelHeightM', 'Panel, height'),
  {
    key: 'opening',
    label: 'Opening',
    options: [
      { value: null, label: 'to be cut' },
      { value: 'round', label: 'there, round' },
      { value: 'square', label: 'there, square' },
      { value: 'oval', label: 'there, oval' },
      { value: 'tapered', label: 'there, tapered' },
    ],
  },
  ...(fit.opening === 'square' || fit.opening === 'oval'
    ? [inMm('openingWidthM', 'Opening, width'), inMm('openingHeightM', 'Opening, height')]
    : []),
  ...(fit.opening === 'tapered' ? [inMm('openingWidthM', 'Opening, outside', 'diameter')] : []),
  inMm('gasketM', 'Gasket, free', 'pressed it is half'),
  inMm('spacerM', 'Spacer'),
  inMm('padM', 'Pads, on each face'),
]

export const coverFields = (fit: Fit): FitField[] => [
  {
    key: 'guard',
    label: 'Guard',
    options: optionsOf(
      { none: 'none', wire: 'wire rings', mesh: 'mesh', perforated: 'perforated' },
      'not known',
    ),
  },
  ...(fit.guard && fit.guard !== 'none'
    ? [
        inMm('guardM', 'Guard, thickness'),
        inMm('guardOpeningM', 'Its openings', 'narrow side'),
        inMm('guardBarM', 'Between two', 'wire or bar'),
        {
          key: 'guardShape' as const,
          label: 'They are',
          options: optionsOf({ slot: 'slots', square: 'squares', round: 'round' }, 'as usual'),
        },
        inMm('guardGapM', 'Guard to blades'),
      ]
    : []),
  { key: 'reach', label: 'Blades within reach', yesNo: true },
  { key: 'childReach', label: 'Children can reach it', yesNo: true },
  inMm('cableGapM', 'Nearest cable to blades'),
  inMm('filterM', 'Filter, thickness', 'on the intake side'),
  {
    key: 'filterMedium',
    label: 'Filter, medium',
    options: [
      { value: null, label: 'none, or not known' },
      ...filterMedia.map((m) => ({ value: m.key, label: m.name })),
    ],
  },
  ...(fit.filterM !== null || fit.filterMedium !== null || fit.filterAreaM2 !== null
    ? [
        { key: 'filterAreaM2' as const, label: 'Filter, face', quantity: 'area' as const },
        {
          key: 'filterHeld' as const,
          label: 'Filter held by',
          options: optionsOf(
            {
              frame: 'a frame',
              slot: 'a slot',
              magnets: 'magnets',
              'hook-and-loop': 'hook-and-loop',
              screws: 'screws',
            },
            'not known',
          ),
        },
        { key: 'filterReach' as const, label: 'Reached without tools', yesNo: true as const },
      ]
    : []),
]
/** How often the filter is changed or washed: what the care reminders count. */
export const filterCare: Field<keyof Job>[] = [
  { key: 'filterDays', label: 'Filter, every so many days', quantity: 'number', hint: 'empty: 90' },
]

export const adapterFields = (fit: Fit): FitField[] => [
  {
    key: 'adapterFrom',
    label: 'At the fan',
    options: [
      { value: null, label: 'round, as the hole' },
      { value: 'square', label: 'square, as the frame' },
    ],
  },
  {
    key: 'adapterTo',
    label: 'It leads to',
    options: [
      { value: null, label: 'a round bore' },
      { value: 'oval', label: 'an oval opening' },
      { value: 'square', label: 'a rectangle' },
    ],
  },
  fit.adapterTo === 'oval' || fit.adapterTo === 'square'
    ? inMm('adapterM', 'Its width')
    : inMm('adapterM', 'Adapter to a bore of', 'hose or pipe'),
  ...(fit.adapterTo === 'oval' || fit.adapterTo === 'square' ? [inMm('adapterHeightM', 'Its height')] : []),
  inMm('adapterLengthM', 'Adapter, length'),
]
/** Hoses that an adapter is shown for: the usual bores nearest to what it leaves from. */
export const boresNear = (fromM: number, count: number) =>
  usualBores
    .toSorted((a, b) => Math.abs(a - fromM) - Math.abs(b - fromM))
    .slice(0, count)
    .toSorted((a, b) => a - b)

/** How it is held: fields of the place first, for what they ask. */
export const holdFields: Field<keyof Place>[] = [
  {
    key: 'mountKind',
    label: 'Held by',
    options: optionsOf(
      {
        screws: 'screws through both flanges',
        'near-flange': 'screws and nuts, near flange',
        'self-tapping': 'self-tapping screws',
        inserts: 'threaded inserts',
        'push-pins': 'soft push pins',
        clips: 'clips',
        strips: 'hook-and-loop or adhesive strips',
        adhesive: 'adhesive',
        magnets: 'magnets',
        bracket: 'a printed bracket',
        rubber: 'hung on rubber',
        ties: 'cable ties',
      },
      'not known',
    ),
  },
  { key: 'mountCapacityKg', label: 'It may carry', quantity: 'mass' },
  { key: 'mountIsolated', label: 'Soft mounts', yesNo: true },
  { key: 'thinPanel', label: 'Thin or wide panel', yesNo: true },
  { key: 'panelHz', label: 'Panel rings at', quantity: 'frequency' },
]
const soft = ['push-pins', 'rubber', 'strips']
export const screwFields = ({ mountKind, mountIsolated }: Place): FitField[] => [
  {
    key: 'thread',
    label: 'Thread',
    options: [
      { value: null, label: 'usual for its frame' },
      ...[2.5, 3, 4, 5].map((m) => ({ value: m, label: `M${m}` })),
    ],
  },
  { key: 'washers', label: 'Washers', quantity: 'number', hint: 'empty: two' },
  inMm('screwM', 'Screws in the drawer', 'length under the head'),
  inMm('behindM', 'Room beyond the flange', 'to blades, fins or a board'),
  ...(mountIsolated || soft.includes(mountKind ?? '')
    ? [inMm('sinkM', 'They give', 'under the fan’s weight')]
    : []),
  { key: 'surfaceC', label: 'Warmest spot there', quantity: 'temperature' },
  { key: 'softenC', label: 'The mount softens at', quantity: 'temperature' },
  inMm('cableM', 'Cable, outside', 'where it goes through'),
  { key: 'leadM', label: 'Lead of the fan', quantity: 'distance' },
  { key: 'routeM', label: 'Way to its plug', quantity: 'distance' },
  { key: 'slackM', label: 'For a door or lid', quantity: 'distance' },
]
/** What a calliper is put to: a frame has a pattern, a blower its own lugs and outlet. */
export const measuredFields = ({ kind }: Fan): FitField[] =>
  kind === 'axial'
    ? [inMm('sideMeasuredM', 'Frame, measured'), inMm('spacingMeasuredM', 'Screw holes, measured')]
    : [
        {
          key: 'blowerFace',
          label: 'Against the panel',
          options: optionsOf({ intake: 'its flat side', outlet: 'its outlet' }, 'not known'),
        },
        { key: 'intakes', label: 'Intakes', quantity: 'number', hint: 'one, or one in each side' },
        inMm('intakeM', 'Intake, diameter'),
        inMm('outletWidthM', 'Outlet, width'),
        inMm('outletHeightM', 'Outlet, height'),
        inMm('outletFromM', 'Outlet from the left side'),
      ]

export const keepClearFields: Field<keyof KeepClear>[] = [
  { key: 'name', label: 'Keep clear', text: true, required: true },
  { key: 'leftM', label: 'From the left', quantity: 'length', required: true },
  { key: 'bottomM', label: 'From below', quantity: 'length', required: true },
  { key: 'widthM', label: 'Width', quantity: 'length', required: true },
  { key: 'heightM', label: 'Height', quantity: 'length', required: true },
]
export const thingFields = ({ moving }: Thing): Field<keyof Thing>[] => [
  { key: 'name', label: 'In the way', text: true, required: true },
  {
    key: 'side',
    label: 'Side',
    options: [
      { value: 'inside', label: 'inside' },
      { value: 'outside', label: 'outside' },
    ],
  },
  { key: 'fromPanelM', label: 'From the panel', quantity: 'length', hint: 'where it rests' },
  {
    key: 'moving',
    label: 'It',
    options: [
      { value: false, label: 'stays there' },
      { value: true, label: 'moves' },
    ],
  },
  ...(moving ? [{ key: 'travelM' as const, label: 'Comes nearer by', quantity: 'length' as const }] : []),
]
export const lugFields: Field<'xM' | 'yM'>[] = [
  { key: 'xM', label: 'Lug, from the left', quantity: 'length', required: true },
  { key: 'yM', label: 'Lug, from below', quantity: 'length', required: true },
]
/** How a hole is cut. */
export const cutFields = ({ cutWay }: Fit): FitField[] => [
  {
    key: 'cutWay',
    label: 'Cut with',
    options: optionsOf(
      {
        saw: 'a hole saw',
        'jig-saw': 'a jig saw',
        'fly-cutter': 'a fly cutter',
        chain: 'a chain of drilled holes',
        ring: 'rings of holes, left as a grille',
      },
      'not chosen',
    ),
  },
  ...(cutWay === 'chain' || cutWay === 'ring' ? [inMm('drillM', 'Drill')] : []),
]
