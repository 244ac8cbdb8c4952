import { crimpPull, SETTING_NEAR, SETTING_TOLERANCE } from '#core/power'
import { isConverter, sourceOf } from '#core/document'
import { UNLOADED_TOLD_V, windowOf } from '#core/supply'
import type { Sentence } from '#core/units'
import { slug, type Env } from './env'
import { logReading, step, type BuildStep } from './step'

/** Wiring on the bench and first power: the handbook's order with the plan's own numbers. */

const of = (value: number | null, quantity: 'voltage' | 'current' | 'distance' | 'temperature') => ({
  value,
  quantity,
})
/** Running current is expected so near, share. Handbook build 2 (common practice). */
const RUN_SHARE = 0.3
/** Together, and steadily below it a short, ohm. Handbook build 2. */
const JOINED_OHM = 0.5
const SHORT_OHM = 10
const TOUCH_C = 60
/** Voltage at the fan's plug may lie so far under what is planned. Handbook power 5.2: 5 % in the wire. */
const DROP_SHARE = 0.1

/** Highest voltage that every fan on the feed stands, V; null where no sheet tells. */
function fansStand({ streams }: Env): number | null {
  const known = streams.flatMap((s) =>
    s.system.fanArray ? s.system.fanArray.groups.map((g) => g.model.fan.maxV) : [],
  )
  return known.length && known.every((v) => v !== null) ? Math.min(...(known as number[])) : null
}

function leadSteps({ feed }: Env): BuildStep[] {
  return feed.nodes.flatMap((node): BuildStep[] => {
    const { lead } = node
    if (!lead || (lead.awg === null && lead.lengthM === null)) return []
    const pull = lead.awg === null ? null : crimpPull(lead.awg)
    const gauge = lead.mm2 !== null ? `${lead.mm2} mm²` : lead.awg === null ? 'as listed' : `${lead.awg} AWG`
    return [
      step({
        key: `lead-${slug(node.id)}`,
        tools: ['strip', 'crimp', 'shrink'],
        sitting: 'wiring',
        title: `Lead to ${node.name}: sleeves on first, then one wire at a time`,
        text: [
          `${gauge}`,
          ...(lead.lengthM === null ? [] : [', ', of(lead.lengthM, 'distance')]),
          '. Slide the shrink on, crimp or solder +, then −; ',
          ...(pull === null ? ['pull each joint.'] : [`pull each: it must hold ${pull.toFixed(0)} N.`]),
        ],
        minutes: 6,
        photo: true,
        at: { station: 'power', part: node.id },
      }),
    ]
  })
}

function sourceSteps(env: Env): BuildStep[] {
  return env.plan.sources.flatMap((source): BuildStep[] => {
    // what the plan counts with, not what was measured then: the step stays the same once it is ticked
    const window = windowOf(env.plan, { ...source, openV: null })
    const words: Sentence = window
      ? [
          'Without load: ',
          of(window.lowV, 'voltage'),
          ' to ',
          of(window.highV, 'voltage'),
          ', DC; find which pin is +.',
        ]
      : ['Without load: note what it gives, DC, and which pin is +.']
    return [
      step({
        key: `source-${slug(source.id)}`,
        tools: ['meter'],
        sitting: 'wiring',
        title: `Measure ${source.name} by itself`,
        text: words,
        measure: {
          quantity: 'voltage',
          low: window ? 0.95 * window.lowV : null,
          high: window ? 1.03 * window.highV : null,
          negative:
            'The probes are swapped, or + and − are: red on + must show a positive number. Find out which before going on.',
          below:
            'Less than it should give: is it switched on, is the battery charged, does it drop to ' +
            'standby? Do not go on with a source that is not what the plan says.',
          above:
            'More than the plan counts with: everything behind it would get too much. ' +
            'Take another source, or change the plan to what it gives.',
        },
        at: { station: 'power', part: source.id },
        apply: (plan, { value }) => {
          for (const s of plan.sources) if (s.id === source.id && value !== null) s.openV = value
        },
      }),
    ]
  })
}

function converterSteps(env: Env): BuildStep[] {
  const most = fansStand(env)
  return env.feed.nodes.flatMap((node): BuildStep[] => {
    const part = env.plan.feed.filter(isConverter).find((p) => p.id === node.id)
    if (!part) return []
    const kind = part.converterKind
    if (kind !== 'buck' && kind !== 'boost' && kind !== 'linear') return []
    const wanted = part.outV ?? node.outV
    // one without a screw gives what it was made for, within its tolerance
    const screw = part.adjustable
    const near = screw ? SETTING_NEAR : SETTING_TOLERANCE
    const [low, high] = [(1 - near) * wanted, (1 + near) * wanted]
    const danger = most === null ? '' : ` The fan may get ${most.toFixed(1)} V at most.`
    return [
      step({
        key: `converter-${slug(node.id)}`,
        tools: ['meter', 'driver'],
        sitting: 'wiring',
        title: `${screw ? 'Set' : 'Read'} ${node.name}, nothing connected behind it`,
        text: [
          screw ? 'To ' : 'It gives ',
          of(wanted, 'voltage'),
          ', accept ',
          of(low, 'voltage'),
          ' to ',
          of(high, 'voltage'),
          screw ? '; power off, a dab of varnish on the screw.' : '; power off.',
        ],
        measure: {
          quantity: 'voltage',
          low,
          high,
          negative: 'Its output is reversed, or the probes are: do not connect anything.',
          below: screw
            ? 'Too little: turn the screw until the meter reads the wanted voltage. If it does not rise, the input is too low for it.'
            : 'Too little: is its input high enough? Else it is another one than planned.',
          above: screw
            ? `Too much: do not connect the fan.${danger} Turn the screw back until the meter ` +
              `reads the wanted voltage; if it does not fall, the module is damaged.`
            : `Too much: do not connect the fan.${danger} It is damaged, or another one than planned.`,
        },
        minutes: 4,
        photo: true,
        at: { station: 'power', part: node.id },
        apply: (plan, { value }) => {
          const turned = plan.feed.find((p) => p.id === node.id)
          if (turned) Object.assign(turned, { setFirst: true, measuredV: value })
        },
      }),
    ]
  })
}

function continuitySteps(env: Env): BuildStep[] {
  if (!env.feed.nodes.length) return []
  return [
    step({
      key: 'joined',
      tools: ['meter'],
      sitting: 'wiring',
      title: '+ to + and − to −, supply not connected',
      text: [
        `Meter on ohms, from the source’s end to the fan’s plug: under ${JOINED_OHM} Ω each. Type the larger one.`,
      ],
      measure: {
        quantity: 'resistance',
        low: 0,
        high: JOINED_OHM,
        below: 'A resistance is not below zero: touch the probes together first, and read again.',
        above: 'A joint is bad, or the two wires are crossed: pull each crimp, find the one that moves.',
      },
      at: { station: 'power' },
    }),
    step({
      key: 'no-short',
      tools: ['meter'],
      sitting: 'wiring',
      title: 'No short between + and −',
      text: [
        `Meter on ohms at the plug: it may rise while capacitors charge; steady, it reads ${SHORT_OHM} Ω at least.`,
      ],
      measure: {
        quantity: 'resistance',
        low: SHORT_OHM,
        high: null,
        below:
          'A steady reading so low is a short: look for a whisker between + and −, a sleeve that was forgotten. ' +
          'Do not connect the supply.',
        above: '',
      },
      at: { station: 'power' },
    }),
  ]
}

/** Wires that are not used, of every fan. */
function openWires({ streams, plan }: Env): BuildStep[] {
  const wires = Math.max(
    0,
    ...streams.flatMap((s) =>
      s.system.fanArray ? s.system.fanArray.groups.map((g) => g.model.fan.wires ?? 0) : [],
    ),
  )
  const open = [
    ...(wires >= 3 && (plan.wiring.tachTo === null || plan.wiring.tachTo === 'open') ? ['tach'] : []),
    ...(wires >= 4 && (plan.wiring.pwmFrom === null || plan.wiring.pwmFrom === 'open') ? ['PWM'] : []),
  ]
  if (!open.length) return []
  return [
    step({
      key: 'open-wires',
      tools: ['shrink'],
      sitting: 'wiring',
      title: `Insulate the open ${open.join(' and ')} wire${open.length > 1 ? 's' : ''}`,
      text: ['Open ends, each in a sleeve of its own, tied back. An open PWM wire is full speed.'],
      photo: true,
      at: { station: 'power' },
    }),
  ]
}

/** Voltage and current at the fans of every stream. */
function fanSteps(env: Env): BuildStep[] {
  const several = env.streams.length > 1
  return env.streams.flatMap((s): BuildStep[] => {
    const { fanV, fanRunA } = s.power
    if (!s.system.fanArray || fanV === null) return []
    const unloadedV = s.power.fanHighV ?? fanV
    const name = several ? ` of ${s.name}` : ''
    const key = slug(s.id)
    const plug = step({
      key: `polarity-${key}`,
      tools: ['meter'],
      sitting: 'wiring',
      title: `Polarity at the fan’s own plug${name}`,
      text: [
        'Fan not plugged in, red probe on +: the meter shows +',
        of(fanV, 'voltage'),
        ', not −',
        of(fanV, 'voltage'),
        ...(unloadedV - (s.power.fanRuns?.high ?? unloadedV) > UNLOADED_TOLD_V
          ? ['; as nothing is drawn it may show up to ', of(unloadedV, 'voltage')]
          : []),
        '.',
      ],
      measure: {
        quantity: 'voltage',
        low: (1 - DROP_SHARE) * fanV,
        high: unloadedV * 1.03,
        negative: 'Swapped: + and − change places before the fan is plugged in, or its electronics die.',
        below:
          'Too little arrives: a bad joint, a wire too thin, or a converter that is not set. Measure again nearer to the source.',
        above: 'Too much arrives: do not plug the fan in. Is the converter set, and is it in the lead at all?',
      },
      at: { station: 'power', ...(several ? { stream: s.id } : {}) },
      apply: (plan, tick) => {
        const source = sourceOf({ ...plan, stream: s.id })
        if (source) source.polarityChecked = true
        logReading(plan, tick, 'voltage', `plug of the fan${name}`)
      },
    })
    if (fanRunA === null) return [plug]
    const current = (sitting: 'power' | 'hour', id: string, title: string): BuildStep =>
      step({
        key: `${id}-${key}`,
        tools: ['meter', 'supply'],
        sitting,
        title,
        text: [
          'Expect ',
          of(fanRunA, 'current'),
          ', stop above ',
          of((1 + RUN_SHARE) * fanRunA, 'current'),
          ' or below ',
          of((1 - RUN_SHARE) * fanRunA, 'current'),
          '.',
        ],
        measure: {
          quantity: 'current',
          low: (1 - RUN_SHARE) * fanRunA,
          high: (1 + RUN_SHARE) * fanRunA,
          negative: 'The meter is in the wrong way round: swap its leads, and see that it is in the + wire.',
          below:
            'Too little: does it turn, do all of them turn, does it get its voltage? A controlled fan may be slowed down.',
          above:
            'Too much: switch off. Something rubs or is stuck, the voltage is too high, or a wire touches another.',
        },
        minutes: 3,
        at: { station: 'power', ...(several ? { stream: s.id } : {}) },
        apply: (plan, tick) =>
          logReading(plan, tick, 'current', `${sitting === 'hour' ? 'after an hour' : 'first power'}${name}`),
      })
    return [
      plug,
      current(
        'power',
        'first',
        `First power${name}, with a current limit or the smallest fuse that carries the start`,
      ),
      current('hour', 'later', `Current after an hour${name}`),
    ]
  })
}

/** What may be warm after an hour. */
function warmStep({ plan }: Env): BuildStep[] {
  const warm = plan.feed.some(isConverter)
  return [
    step({
      key: 'warm',
      tools: ['probe'],
      sitting: 'hour',
      title: warm ? 'Converter and plugs after an hour' : 'Plugs after an hour',
      text: [
        'Power off first, then by touch or by infrared: nothing above ',
        of(TOUCH_C, 'temperature'),
        '. Type the warmest.',
      ],
      measure: {
        quantity: 'temperature',
        low: null,
        high: TOUCH_C,
        below: '',
        above:
          'Too warm to touch: a joint with resistance, or a converter at its limit. More air ' +
          'over it, a larger one, or a better joint; do not leave it running.',
      },
      minutes: 5,
      at: { station: 'power' },
      apply: (d, tick) => logReading(d, tick, 'temperature', 'warmest plug or converter, after an hour'),
    }),
  ]
}

/** Steps on the bench and of the first power, in order. */
export function wiringSteps(env: Env): BuildStep[] {
  if (!env.plan.sources.length && !env.feed.nodes.length) return []
  return [
    ...sourceSteps(env),
    ...leadSteps(env),
    ...openWires(env),
    ...continuitySteps(env),
    ...converterSteps(env),
    ...fanSteps(env),
    ...warmStep(env),
  ]
}
