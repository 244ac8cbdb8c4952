import type { Fit, Job } from '#core/document'

/** The fields of the place for the fans: what the job asks of it, panel and guard, how they are held. */

export const placeFields: Field<keyof Job>[] = [
  { key: 'fitDepthM', label: 'Depth for the fan', quantity: 'length', hint: 'behind the panel' },
  { key: 'fitWidthM', label: 'Width for the frame', quantity: 'length' },
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

export const panelFields = (fit: Fit): Field<keyof Fit>[] => [
  {
    key: 'material',
    label: 'Cut into',
    options: optionsOf(
      { wood: 'wood', plastic: 'plastic', metal: 'sheet metal', acrylic: 'acrylic', card: 'card' },
      'not known',
    ),
  },
  { key: 'panelM', label: 'Panel, thickness', quantity: 'length' },
  { key: 'panelWidthM', label: 'Panel, width', quantity: 'length' },
  { key: 'panelHeightM', label: 'Panel, height', quantity: 'length' },
  { key: 'gasketM', label: 'Gasket, free', quantity: 'length', hint: 'pressed it is half' },
  { key: 'spacerM', label: 'Spacer', quantity: 'length' },
  { key: 'padM', label: 'Pads, on each face', quantity: 'length' },
  { key: 'filterM', label: 'Filter behind it', quantity: 'length' },
  { key: 'adapterM', label: 'Adapter to a bore of', quantity: 'length', hint: 'hose or pipe' },
  { key: 'adapterLengthM', label: 'Adapter, length', quantity: 'length' },
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
        { key: 'guardM' as const, label: 'Guard, thickness', quantity: 'length' as const },
        {
          key: 'guardOpeningM' as const,
          label: 'Its openings',
          quantity: 'length' as const,
          hint: 'narrow side',
        },
        {
          key: 'guardShape' as const,
          label: 'They are',
          options: optionsOf({ slot: 'slots', square: 'squares', round: 'round' }, 'as usual'),
        },
        { key: 'guardGapM' as const, label: 'Guard to blades', quantity: 'length' as const },
      ]
    : []),
  { key: 'reach', label: 'Blades within reach', yesNo: true },
  { key: 'childReach', label: 'Children can reach it', yesNo: true },
  { key: 'cableGapM', label: 'Nearest cable to blades', quantity: 'length' },
]

/** How it is held: fields of the job first, for what they ask. */
export const holdFields: Field<keyof Job>[] = [
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
export const screwFields: Field<keyof Fit>[] = [
  {
    key: 'thread',
    label: 'Thread',
    options: [
      { value: null, label: 'usual for its frame' },
      ...[2.5, 3, 4, 5].map((m) => ({ value: m, label: `M${m}` })),
    ],
  },
  { key: 'washers', label: 'Washers', quantity: 'number', hint: 'empty: two' },
  { key: 'screwM', label: 'Screws in the drawer', quantity: 'length', hint: 'length under the head' },
  { key: 'behindM', label: 'Room beyond the flange', quantity: 'length', hint: 'to blades, fins or a board' },
  { key: 'surfaceC', label: 'Warmest spot there', quantity: 'temperature' },
  { key: 'softenC', label: 'The mount softens at', quantity: 'temperature' },
  { key: 'sideMeasuredM', label: 'Frame, measured', quantity: 'length' },
  { key: 'spacingMeasuredM', label: 'Screw holes, measured', quantity: 'length' },
]
