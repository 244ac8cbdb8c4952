import { filterMedia, hoods, mitres, outlets, slackLevels, surfaces, wyes, type Piece } from '#core/airpath'
import type { PathElement } from '#core/document'

type Fields = Field<keyof PathElement>[]
const bore: Fields = [{ key: 'diameterM', label: 'Bore', quantity: 'length', hint: 'inner diameter' }]
const pieces = (list: readonly Piece[]) => list.map((p) => ({ value: p.key, label: p.name }))
const pattern: Fields = [
  {
    key: 'pattern',
    label: 'Hole pattern',
    options: optionsOf(
      {
        staggered: 'round, staggered rows',
        square: 'round, square rows',
        mesh: 'woven mesh',
        slots: 'long slots',
      },
      'none, I know the ratio',
    ),
  },
]
const patternSizes: Fields = [
  { key: 'holeM', label: 'Hole, slot or gap', quantity: 'length' },
  { key: 'pitchM', label: 'Centre to centre', quantity: 'length' },
]

/** Fields of an element's kind, beyond name and how sure. */
export function elementFields(e: PathElement): Fields {
  switch (e.kind) {
    case 'fan':
      return [
        { key: 'widthM', label: 'Largest frame here', quantity: 'length', hint: 'empty: as the Brief says' },
        { key: 'lengthM', label: 'Depth here', quantity: 'length', hint: 'empty: as the Brief says' },
      ]
    case 'opening':
      return [
        { key: 'areaM2', label: 'Free area', quantity: 'area' },
        {
          key: 'edge',
          label: 'Edge',
          options: optionsOf({ sharp: 'sharp hole', slot: 'slot', crack: 'crack', rounded: 'rounded edge' }),
        },
      ]
    case 'slot':
      return [
        { key: 'widthM', label: 'Length of the slot', quantity: 'length' },
        { key: 'gapM', label: 'Width of the slot', quantity: 'length' },
        { key: 'lengthM', label: 'Depth', quantity: 'length', hint: 'thickness of the wall; empty: thin' },
      ]
    case 'grille':
      return [
        { key: 'areaM2', label: 'Gross area', quantity: 'area', hint: 'the whole opening, bars included' },
        {
          key: 'style',
          label: 'What it is',
          options: optionsOf({
            plate: 'punched sheet or stamped grille',
            guard: 'wire guard',
            mesh: 'woven mesh',
          }),
        },
        ...pattern,
        ...(e.pattern
          ? patternSizes
          : [
              {
                key: 'freeAreaRatio' as const,
                label: 'Free-area ratio',
                quantity: 'ratio' as const,
                hint: 'finger guard 80 to 90 %, stamped slots 35 to 55 %, insect mesh 55 to 65 %',
              },
            ]),
      ]
    case 'hood':
      return [...bore, { key: 'style', label: 'How it begins', options: pieces(hoods) }]
    case 'outlet':
      return [...bore, { key: 'style', label: 'How it ends', options: pieces(outlets) }]
    case 'filter':
      return [
        { key: 'areaM2', label: 'Face area', quantity: 'area' },
        {
          key: 'medium',
          label: 'Medium',
          options: [
            ...filterMedia.map((m) => ({ value: m.key, label: m.name })),
            { value: 'bed', label: 'Bed of carbon grains' },
            { value: 'sheet', label: 'own data sheet' },
          ],
        },
        {
          key: 'loadFactor',
          label: 'Condition',
          options: [
            { value: 1, label: 'clean' },
            { value: 2, label: 'loaded (twice the loss)' },
            { value: 3, label: 'overdue (three times)' },
          ],
        },
        ...(e.medium === 'bed'
          ? [
              { key: 'lengthM' as const, label: 'Depth of the bed', quantity: 'length' as const },
              { key: 'grainM' as const, label: 'Grain', quantity: 'length' as const },
            ]
          : []),
        ...(e.medium === 'sheet'
          ? [
              { key: 'c1' as const, label: 'c₁, Pa·s/m', quantity: 'number' as const, hint: 'or points below' },
              { key: 'c2' as const, label: 'c₂, Pa·s²/m²', quantity: 'number' as const },
            ]
          : []),
      ]
    case 'duct':
      return [
        ...(e.widthM || e.heightM ? [] : bore),
        { key: 'lengthM', label: 'Length', quantity: 'distance' },
        {
          key: 'surface',
          label: 'Inner surface',
          options: surfaces.map((x) => ({ value: x.key, label: x.name })),
        },
        {
          key: 'slack',
          label: 'How it lies',
          options: [...slackLevels.map((l) => ({ value: l.factor, label: l.name }))],
        },
        { key: 'widthM', label: 'Rectangular: width', quantity: 'length', hint: 'leave empty for a round one' },
        { key: 'heightM', label: 'and height', quantity: 'length' },
      ]
    case 'bend':
      return [
        ...bore,
        { key: 'style', label: 'Shape', options: [{ value: 'round', label: 'round bend' }, ...pieces(mitres)] },
        ...(e.style && e.style !== 'round'
          ? []
          : [
              {
                key: 'radiusRatio' as const,
                label: 'Radius over bore',
                quantity: 'number' as const,
                hint: '0.5 sharp, 1 usual, 2 wide',
              },
              {
                key: 'angleDeg' as const,
                label: 'Angle',
                options: [90, 60, 45, 30].map((a) => ({ value: a, label: `${a}°` })),
              },
            ]),
        { key: 'count', label: 'How many', quantity: 'number' },
      ]
    case 'reducer':
      return [
        { key: 'diameterM', label: 'Bore before it', quantity: 'length' },
        { key: 'diameter2M', label: 'Bore after it', quantity: 'length' },
        {
          key: 'angleDeg',
          label: 'How it changes',
          options: [
            { value: 180, label: 'at once' },
            { value: 60, label: 'cone of 60° in all' },
            { value: 30, label: 'cone of 30° in all' },
            { value: 20, label: 'cone of 20° in all' },
            { value: 10, label: 'cone of 10° in all' },
          ],
        },
      ]
    case 'wye':
      return [
        { key: 'diameterM', label: 'Bore of this branch', quantity: 'length' },
        { key: 'style', label: 'Shape', options: pieces(wyes) },
      ]
    case 'damper':
      return [
        ...bore,
        { key: 'style', label: 'Kind', options: optionsOf({ blade: 'turning blade', slide: 'slide gate' }) },
        ...(e.style === 'slide'
          ? [
              {
                key: 'freeAreaRatio' as const,
                label: 'Open share',
                quantity: 'ratio' as const,
                hint: '25 % to all',
              },
            ]
          : [
              {
                key: 'angleDeg' as const,
                label: 'Blade from open, degrees',
                quantity: 'number' as const,
                hint: '0 to 70',
              },
            ]),
      ]
    case 'flap':
      return [
        ...bore,
        {
          key: 'headPa',
          label: 'Opens at',
          quantity: 'pressure',
          hint: 'empty: 3.5 Pa, usual for a light one',
        },
      ]
    case 'fins':
      return [
        { key: 'count', label: 'Channels', quantity: 'number' },
        { key: 'gapM', label: 'Gap between fins', quantity: 'length' },
        { key: 'heightM', label: 'Fin height', quantity: 'length' },
        { key: 'lengthM', label: 'Length along the air', quantity: 'length' },
        { key: 'finM', label: 'Fin thickness', quantity: 'length' },
      ]
    case 'adapter':
      return [
        { key: 'widthM', label: 'Blower outlet, width', quantity: 'length' },
        { key: 'heightM', label: 'Blower outlet, height', quantity: 'length' },
        { key: 'diameterM', label: 'or its bore', quantity: 'length' },
        { key: 'diameter2M', label: 'Round opening it ends in', quantity: 'length' },
      ]
    case 'chamber':
      return [{ key: 'areaM2', label: 'Cross-section', quantity: 'area' }]
    case 'custom':
      return [
        ...(e.points.length
          ? []
          : [
              { key: 'a' as const, label: 'a, viscous part', quantity: 'linearDrag' as const },
              { key: 'b' as const, label: 'b, inertial part', quantity: 'quadraticDrag' as const },
            ]),
        {
          key: 'headPa',
          label: 'Opposes before air moves',
          quantity: 'pressure',
          hint: 'wind on the outlet, a box under pressure; empty: nothing',
        },
      ]
    default:
      return []
  }
}

/** How sure an element's loss is, best first. */
export const basisOptions = optionsOf({
  measured: 'measured',
  sheet: 'data sheet',
  'good-guess': 'good guess',
  'rough-guess': 'rough guess',
  assumed: 'assumed, nobody said',
})
