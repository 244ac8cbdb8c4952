import { isOneOfSeveral, wantedRange, seenAt, placeName } from '#core/document'
import type { MountReport } from '#core/mount'
import type { Sentence } from '#core/units'
import { slug, type BuildStream, type Env } from './env'
import { logReading, step, type BuildStep } from './step'

/** What comes before and after the wiring: photographs, baseline, cutting, mounting, direction, closing. */

const of = (value: number | null, quantity: 'length' | 'voltage') => ({ value, quantity })
/** Nothing is live below it, V. A choice of ours: a meter's leads pick up so much. */
const DEAD_V = 1

function beforeSteps({ plan, streams }: Env): BuildStep[] {
  const { job, runs } = plan
  return [
    step({
      key: 'as-found',
      tools: ['camera', 'bag'],
      sitting: 'before',
      title: 'Photograph it as found',
      text: [
        'From every side, with its screws and leads. Every original part and screw goes into a labelled bag.',
      ],
      photo: true,
      minutes: 5,
      at: { station: 'brief' },
    }),
    step({
      key: 'baseline',
      tools: ['instruments'],
      sitting: 'before',
      title: 'Take the baseline',
      text: ['Once the hole is cut there is no “before”: three readings at the places that the targets name.'],
      done: runs.some((r) => r.kind === 'baseline'),
      minutes: 20,
      at: { station: 'log' },
    }),
    ...(job.mains || job.opensSupply
      ? [
          step({
            key: 'dead',
            tools: ['meter'],
            sitting: 'before',
            title: 'Unplug, wait, measure that it is dead',
            text: [
              'Five minutes after unplugging, across what you will touch: under ',
              of(DEAD_V, 'voltage'),
              '.',
            ],
            measure: {
              quantity: 'voltage',
              low: -DEAD_V,
              high: DEAD_V,
              below:
                'Something is still charged. Do not touch it; wait, and measure again. If it does not fall, this is for somebody licensed.',
              above:
                'Something is still charged. Do not touch it; wait, and measure again. If it does not fall, this is for somebody licensed.',
            },
            minutes: 8,
            at: { station: 'brief', field: 'mains' },
          }),
        ]
      : []),
    ...streams.flatMap((s) => placesOf(s, drySteps)),
  ]
}

/** Each place of a stream with a name and a key of its own. */
function placesOf(
  stream: BuildStream,
  make: (stream: BuildStream, mount: MountReport, id: string, name: string) => BuildStep[],
): BuildStep[] {
  const { plan, mounts } = stream
  const several = mounts.length > 1
  return mounts.flatMap((mount) => {
    const { place } = seenAt(plan, mount.place)
    const id = slug(several ? `${stream.id}-${place.id}` : stream.id)
    const name = [stream.name, several ? placeName(plan, place) : ''].filter(Boolean).join(', ')
    return make(stream, mount, id, name ? ` (${name})` : '')
  })
}
const fitAt = (stream: BuildStream, mount: MountReport) =>
  ({
    station: 'fit',
    ...(isOneOfSeveral(stream.plan) ? { stream: stream.id } : {}),
    ...(stream.mounts.length > 1 ? { place: mount.place } : {}),
  }) as const

function drySteps(stream: BuildStream, mount: MountReport, id: string, name: string): BuildStep[] {
  const { direction } = seenAt(stream.plan, mount.place).place
  const room: Sentence =
    mount.leftM === null
      ? ['It needs ', of(mount.neededM, 'length'), ' of depth.']
      : ['It needs ', of(mount.neededM, 'length'), ' of depth; ', of(mount.leftM, 'length'), ' are left.']
  return [
    step({
      key: `dry-${id}`,
      tools: ['tape'],
      sitting: 'before',
      title: `Dry fit with tape${name}`,
      text: [
        ...room,
        ' Fan, guard, filter, gasket: the lid closes, the cable reaches, nothing presses on the hub.',
      ],
      minutes: 8,
      at: fitAt(stream, mount),
    }),
    step({
      key: `air-${id}`,
      tools: ['marker'],
      sitting: 'before',
      title: `Write “AIR →” on the housing${name}`,
      text: [
        direction === 'in'
          ? 'It blows in. '
          : direction === 'out'
            ? 'It draws out. '
            : 'Nobody said which way it blows: say it on the Brief. ',
        'Two arrows on the frame tell flow and turn; without them air leaves on the side with the struts.',
      ],
      minutes: 1,
      at: fitAt(stream, mount),
    }),
  ]
}

function cutSteps(stream: BuildStream, mount: MountReport, id: string, name: string): BuildStep[] {
  const { fit } = seenAt(stream.plan, mount.place).place
  const there = fit?.opening != null
  const holeM = mount.holeM ?? mount.wantedM
  const centre = mount.layout?.centres[0]
  const { screw } = mount
  const marked: Sentence =
    centre && fit?.panelWidthM
      ? [' First middle ', of(centre.xM + fit.panelWidthM / 2, 'length'), ' from the left edge.']
      : []
  const cut = there
    ? []
    : [
        step({
          key: `cut-${id}`,
          tools: ['template', 'punch', 'saw', 'eyes'],
          sitting: 'cutting',
          title: `Mark and cut the hole${name}`,
          text: [
            ...(mount.inOpening > 1 ? [`${mount.inOpening} holes of `] : ['A hole of ']),
            of(holeM, 'length'),
            mount.sawn ? ' with the saw,' : ',',
            ' centred with the template, punched first.',
            ...marked,
          ],
          minutes: 20,
          photo: true,
          at: fitAt(stream, mount),
        }),
        step({
          key: `chips-${id}`,
          tools: ['file', 'vacuum', 'eyes'],
          sitting: 'cutting',
          title: `Deburr, and take out every chip${name}`,
          text: ['File the edge, vacuum, sticky tape, look with a lamp. Boards were covered, or are out.'],
          minutes: 8,
          at: fitAt(stream, mount),
        }),
      ]
  const screws: Sentence =
    screw && screw.lengthM !== null
      ? [
          `M${screw.thread} × `,
          of(screw.lengthM, 'length'),
          `, four a fan${screw.nuts ? `, nut and ${screw.washers} washers each` : ''}. `,
        ]
      : []
  return [
    ...cut,
    step({
      key: `mount-${id}`,
      tools: ['driver'],
      sitting: 'cutting',
      title: `Mount ${mount.count > 1 ? `the ${mount.count} fans` : 'the fan'}${name}`,
      text: [
        ...screws,
        'Snug, not tight: a warped frame rubs. The arrow points as planned; turn the blades by hand.',
      ],
      minutes: 10,
      photo: true,
      at: fitAt(stream, mount),
    }),
    ...(mount.guarded
      ? [
          step({
            key: `guard-${id}`,
            tools: ['driver'],
            sitting: 'cutting',
            title: `Guards on the open sides${name}`,
            text:
              mount.guardM === null
                ? ['Wherever a finger, a cable or a tail can reach.']
                : ['At least ', of(mount.guardM, 'length'), ' from the blades.'],
            minutes: 4,
            at: fitAt(stream, mount),
          }),
        ]
      : []),
  ]
}

/** What shall be cool enough, after an hour under load. */
const hourSteps = ({ targets }: Env['plan']): BuildStep[] =>
  targets.flatMap((t) => {
    const { high } = wantedRange(t)
    if (t.kind !== 'temperature' || high === null) return []
    const place = t.place || 'inside'
    return [
      step({
        key: `hour-${slug(t.id)}`,
        sitting: 'hour',
        title: `“${place}” after an hour of load`,
        text: ['Wanted: ', { value: high, quantity: 'temperature' }, ' at most. Stay with it meanwhile.'],
        measure: {
          quantity: 'temperature',
          low: null,
          high,
          below: '',
          above:
            'Warmer than wanted. Is the load the planned one? If so, take the load off, and search “Nothing gets cooler”.',
        },
        tools: ['probe'],
        minutes: 5,
        at: { station: 'log' },
        apply: (plan, tick) => logReading(plan, tick, 'temperature', place),
      }),
    ]
  })

/** What stands after it, in order. */
export function lateSteps({ plan, day }: Env): BuildStep[] {
  const steered = day?.model.groups.find((g) => plan.controls.includes(g.control))
  return [
    step({
      key: 'direction',
      look: {
        right: 'as planned',
        wrong: [
          {
            label: 'the other way',
            means:
              'The frame is in the wrong way round. Power off, turn it, struts to where the air shall go; never swap + and −.',
          },
          {
            label: 'it hangs still',
            means:
              'No air, or a loop beside the fan: power off, look for a covered opening or a gap round the frame.',
          },
        ],
      },
      tools: ['paper'],
      sitting: 'power',
      title: 'Which way does the air go?',
      text: [
        'A strip of thin paper at every intake clings, at every outlet leans away. No loop from outlet to intake.',
      ],
      photo: true,
      at: { station: 'air-path' },
    }),
    step({
      key: 'positions',
      sitting: 'power',
      title: 'Turn it into every position of its use',
      text: ['No scraping, cables clear of the blades by a finger’s width.'],
      at: { station: 'fit' },
    }),
    ...(steered
      ? [
          step({
            key: 'control',
            tools: ['warm'],
            sitting: 'power',
            title: 'The control does what it should',
            text: [
              steered.control.school === 'thermostat' && steered.control.onC !== null
                ? 'Warm the sensor by hand or with a bag of warm water until it switches on; let it cool until it stops.'
                : 'See it start from rest, run at its lowest, and at its highest.',
              ' Pull the sensor: it must go the safe way.',
            ],
            minutes: 8,
            at: { station: 'control' },
          }),
        ]
      : []),
    ...(plan.job.mains
      ? [
          step({
            key: 'earth',
            tools: ['meter'],
            sitting: 'closing',
            title: 'Earth from the case to the pin',
            text: ['Every lead and toothed washer back in its place; unplugged, meter on ohms.'],
            measure: {
              quantity: 'resistance',
              low: 0,
              high: 0.5,
              below: 'A resistance is not below zero: touch the probes together first, and read again.',
              above: 'The case is not earthed. Stop, do not plug it in: this is for a licensed electrician.',
            },
            at: { station: 'brief', field: 'earthRefitted' },
            apply: (d) => {
              d.job.earthRefitted = true
            },
          }),
        ]
      : []),
    step({
      key: 'close',
      tools: ['ties', 'driver'],
      sitting: 'closing',
      title: 'Strain relief, ties, close up',
      text: [
        'Relief within 50 mm of every connector and at every hole, a loop at doors; labels on plugs, fuse and screw.',
      ],
      minutes: 10,
      photo: true,
      at: { station: 'power' },
    }),
    ...hourSteps(plan),
    step({
      key: 'after',
      tools: ['instruments'],
      sitting: 'hour',
      title: 'The run after the change',
      text: ['Same places, same stage, same soak as the baseline: now the verdict can tell.'],
      done: plan.runs.some((r) => r.kind === 'after'),
      minutes: 20,
      at: { station: 'log' },
    }),
    step({
      key: 'first-day',
      sitting: 'hour',
      title: 'After a day',
      text: ['Screws, ties, the temperature at full load, odd noises; a power bank still on.'],
      minutes: 5,
      at: { station: 'log' },
    }),
  ]
}

/** What stands before the wiring, in order. */
export const placeSteps = (env: Env): BuildStep[] => [
  ...beforeSteps(env),
  ...env.streams.flatMap((s) => placesOf(s, cutSteps)),
]
