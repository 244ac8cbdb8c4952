import type { Goal, Job, KeepBasis } from '#core/document'

type JobField = Field<keyof Job>
/** A goal's form: what is always asked, and what stays folded until it is wanted. */
export interface GoalForm {
  title: string
  fields: JobField[]
  more: { title: string; fields: JobField[] }[]
}

/** The seven goals as a person would say them. */
export const goalCards: { value: Goal; name: string; what: string }[] = [
  { value: 'cool', name: 'Cool a box', what: 'It runs hot: carry its heat off' },
  { value: 'part', name: 'Cool a part', what: 'A heatsink or chip: air over its fins' },
  { value: 'ventilate', name: 'Ventilate', what: 'It smells or is damp: change its air' },
  { value: 'fume', name: 'Carry off fumes', what: 'Catch them at the source, take them out' },
  { value: 'stir', name: 'Stir', what: 'Cold or drying box: even it out' },
  { value: 'chill', name: 'Chill water', what: 'Let it evaporate, know what it costs' },
  { value: 'quieten', name: 'Quieten', what: 'Too loud: keep its air, drop the sound' },
]
export const goalName = (goal: Goal) => goalCards.find((g) => g.value === goal)?.name.toLowerCase() ?? goal

const field = (
  key: keyof Job,
  label: string,
  quantity: NonNullable<Extract<JobField, { quantity: unknown }>['quantity']>,
  hint = '',
  placeholder = '',
): JobField => ({ key, label, quantity, ...(hint ? { hint } : {}), ...(placeholder ? { placeholder } : {}) })
const bases = optionsOf({
  measured: 'measured (wall meter, V × I)',
  nameplate: 'from the label',
  estimate: 'my guess',
})
const heatFields: JobField[] = [
  field('heatW', 'Heat released inside', 'power', '', '60 W'),
  { key: 'heatBasis', label: 'Where this heat figure comes from', options: bases },
]

/** The fields each goal asks for: few at first, the rest folded. */
export function useGoalFields(job: Ref<Job>, insideFromTarget: Ref<string>) {
  const { show } = useUnits()
  const fans = useFanOptions('not chosen')
  const keepers = computed((): Record<KeepBasis, JobField[]> => ({
    'existing-fan': [
      {
        key: 'existingFanId',
        label: 'Fan in it now',
        hint: 'not listed? add it on the shelf',
        options: fans.value,
      },
      { key: 'existingCount', label: 'How many', quantity: 'number', required: true },
      field('existingV', 'Voltage at it', 'voltage', 'empty: its rated voltage'),
    ],
    temperature: [
      ...heatFields,
      field('measuredRiseK', 'Measured rise, intake to exhaust', 'temperatureDifference'),
    ],
    typed: [field('typedFlowM3s', 'Airflow now', 'flow')],
  }))
  const clearing = [
    field('clearS', 'Clear again within', 'duration', 'after a dirty job'),
    field('clearShare', 'Clear means, of the first level', 'ratio', 'empty: 5 %'),
    field('mixing', 'Mixing factor', 'number', '1 perfect, 3 to 5 usual, 10 dead corners; empty: 3'),
  ]
  return computed((): GoalForm => {
    const { goal, keepBasis, fumeWay, ambientC } = job.value
    const intake = `air at the intake: ${show(ambientC, 'temperature')}`
    const forms: Record<Goal, () => GoalForm> = {
      cool: () => ({
        title: 'How much air carries the heat off?',
        fields: [
          ...heatFields,
          field(
            'insideMaxC',
            'Highest temperature inside',
            'temperature',
            insideFromTarget.value || intake,
            '40 °C',
          ),
          field('wallLossWK', 'Lost through the walls', 'thermalConductance', 'leave empty to count none'),
        ],
        more: [
          {
            title: 'Something else cools too',
            fields: [{ key: 'activeCooling', label: 'Refrigeration or evaporation takes part', yesNo: true }],
          },
        ],
      }),
      part: () => ({
        title: 'How much air does the part want?',
        fields: [
          { ...heatFields[0]!, label: 'Heat of the part' } as JobField,
          heatFields[1]!,
          field('partMaxC', 'Part at most', 'temperature', intake, '70 °C'),
          field(
            'partInnerKPerW',
            'From the part to its fins',
            'thermalResistance',
            'paste, pad, case; empty: none',
          ),
        ],
        more: [],
      }),
      ventilate: () => ({
        title: 'How much air changes the space?',
        fields: [
          field('volumeM3', 'Free air volume', 'volume'),
          field('airChangesPerH', 'Air changes per hour', 'perHour', '', '20'),
        ],
        more: [
          { title: 'Clear after a dirty job', fields: clearing },
          {
            title: 'Moisture',
            fields: [
              field('waterKgS', 'Water released', 'waterRate', 'what dries or breathes'),
              field('insideC', 'Temperature inside', 'temperature', 'empty: as at the intake'),
              field('insideRhMax', 'Humidity inside at most', 'ratio', '', '75 %'),
              field('surfaceC', 'Coldest surface it meets', 'temperature', 'for dew'),
            ],
          },
          {
            title: 'CO₂',
            fields: [
              field('co2M3s', 'CO₂ released', 'gasFlow', 'seated adult about 0.31 L/min'),
              field('co2Max', 'Inside at most', 'concentration', '', '1000 ppm'),
              field('co2Fresh', 'In the fresh air', 'concentration', 'empty: 420 ppm'),
            ],
          },
        ],
      }),
      fume: () => ({
        title: 'How much air catches it?',
        fields: [
          {
            key: 'fumeWay',
            label: 'How it is caught',
            options: optionsOf({
              capture: 'nozzle or hood at a distance',
              slot: 'slot along the bench',
              enclosure: 'in a box under negative pressure',
            }),
          },
          ...(fumeWay === 'enclosure'
            ? [
                field('workOpeningM2', 'Opening to work through', 'area', 'hands, door left ajar'),
                field('faceSpeedMs', 'Air speed into it', 'speed', '0.4 to 1 m/s by hazard'),
                field('leakAreaM2', 'Cracks and leaks', 'area', 'taped box 0.05 to 0.2 % of its surface'),
                field('boxPressurePa', 'Under-pressure wanted', 'pressure', '2.5 to 5 Pa'),
              ]
            : [
                field('captureSpeedMs', 'Air speed wanted at the source', 'speed'),
                field(
                  'captureDistanceM',
                  'Source to opening',
                  'distance',
                  'halving it saves three quarters of the air',
                ),
              ]),
          ...(fumeWay === 'capture'
            ? [
                field('nozzleAreaM2', 'Opening of the nozzle', 'area'),
                {
                  key: 'nozzleOpening' as const,
                  label: 'Its rim',
                  options: optionsOf({
                    plain: 'plain',
                    flanged: 'with a flange as wide as the opening',
                    bench: 'standing on the bench',
                  }),
                },
              ]
            : []),
          ...(fumeWay === 'slot'
            ? [
                field('slotLengthM', 'Length of the slot', 'distance'),
                {
                  key: 'slotFlanged' as const,
                  label: 'With a flange',
                  options: [
                    { value: false, label: 'no' },
                    { value: true, label: 'yes' },
                  ],
                },
              ]
            : []),
        ],
        more: [
          {
            title: 'Clear-out and the room behind',
            fields: [
              field('volumeM3', 'Free air volume of the box', 'volume'),
              ...clearing,
              field('roomVolumeM3', 'Volume of the room', 'volume'),
              field('roomChangesPerH', 'Air changes of the room', 'perHour', 'living room 0.5 to 1'),
              field('roomMixing', 'Mixing factor of the room', 'number', 'empty: 3'),
            ],
          },
          {
            title: 'Filter, if it stays inside',
            fields: [
              { key: 'fumeRated', label: 'Particle and gas media for this fume', yesNo: true },
              field('carbonHours', 'Hours since the carbon was new', 'number'),
              field('carbonLifeH', 'Hours it lasts', 'number'),
            ],
          },
        ],
      }),
      stir: () => ({
        title: 'How much air stirs it?',
        fields: [
          field('volumeM3', 'Free air volume', 'volume'),
          field('turnoversPerH', 'Turnovers per hour', 'perHour', '10 to 60 is a usual start', '40'),
          field('jetReachM', 'Far end of the box', 'distance', 'the jet should still be felt there'),
          field('jetSpeedMs', 'Felt means', 'speed', 'empty: 0.25 m/s'),
        ],
        more: [
          {
            title: 'The heat the fan adds',
            fields: [
              field('dutyShare', 'Share of the day it runs', 'ratio', 'empty: always'),
              field('cop', 'COP of the cooling', 'number', 'empty: 1'),
              field('wallLossWK', 'Lost or gained through the walls', 'thermalConductance'),
              field('insideMaxC', 'Temperature wanted inside', 'temperature'),
            ],
          },
          {
            title: 'Back to temperature after the door',
            fields: [
              field('boxPowerW', 'Cooling power of the box', 'power'),
              field(
                'contentsJK',
                'Heat capacity of air and contents',
                'heatCapacity',
                '1 L of water is 4.2 kJ/K',
              ),
              field('warmedK', 'Warmed by', 'temperatureDifference'),
              field('nearK', 'Near enough', 'temperatureDifference', 'empty: 1 K'),
            ],
          },
        ],
      }),
      chill: () => ({
        title: 'How much air chills the water?',
        fields: [
          field('waterAreaM2', 'Water surface', 'area'),
          field('waterC', 'Temperature of the water', 'temperature'),
          field('crossAreaM2', 'Cross-section the air crosses', 'area', 'width × height over the water'),
          field('coolingW', 'Cooling wanted', 'power', 'or leave it and type a speed'),
          field('surfaceSpeedMs', 'Air speed over the water', 'speed', '0.1 to 0.7 m/s'),
          {
            key: 'lid',
            label: 'Over the water',
            options: optionsOf({ open: 'open', mesh: 'mesh lid', still: 'closed lid' }),
          },
        ],
        more: [
          {
            title: 'Top-up',
            fields: [
              field('reserveM3', 'May be lost before it matters', 'volume'),
              field('daysUnattended', 'Longest time without a visit (days)', 'number'),
            ],
          },
        ],
      }),
      quieten: () => ({
        title: 'How much air must stay?',
        fields: [
          {
            key: 'keepBasis',
            label: 'Keep the air that comes from',
            options: optionsOf({
              'existing-fan': 'the fan that is in it',
              temperature: 'heat and measured rise',
              typed: 'a flow I know',
            }),
          },
          ...keepers.value[keepBasis],
          field(
            'giveRiseK',
            'It may get warmer by',
            'temperatureDifference',
            'kelvin given away for quiet; empty: none',
          ),
        ],
        more: [
          {
            title: 'What is known of now',
            fields: [
              ...(keepBasis === 'existing-fan'
                ? [
                    field(
                      'keptFlowM3s',
                      'Airflow as it was found',
                      'flow',
                      'held once the path is changed; empty: from the path as it stands',
                    ),
                  ]
                : []),
              ...(keepBasis === 'temperature'
                ? []
                : [...heatFields, field('measuredRiseK', 'Measured rise now', 'temperatureDifference')]),
              field('wallLossWK', 'Lost through the walls', 'thermalConductance', 'leave empty to count none'),
            ],
          },
        ],
      }),
    }
    return forms[goal]()
  })
}
