import { describe, expect, test } from 'vitest'
import { computeReport, type Report } from './report'
import {
  connectionOrder,
  diagramOf,
  fanPins,
  feedProblemText,
  nodeFigures,
  partsList,
  slowDownWays,
  wireList,
} from '#core/supply'
import { fanArrayOf, type FanArray } from '#core/system'
import {
  converterOf,
  newBattery,
  newConverter,
  newElement,
  newFan,
  newFeedPart,
  newSource,
  newStreamPlan,
  newSun,
  planSchema,
  sourceOf,
  wholePlan,
  type Fan,
  type FeedPart,
  type StreamPlan,
  plannedFans,
} from '#core/document'
import { withAlso } from '#core/rules'
import { convertBy, feedFrom, hang, pick, putBefore, selectionOf, stand } from '../../tests/plans'

// invented
const fan: Fan = {
  ...newFan('f'),
  maker: 'Testmoor',
  model: 'Whin 80',
  ratedA: 0.2,
  startV: 5,
  minV: 4,
  maxV: 13.2,
  wires: 4,
  pwmMinDuty: 0.2,
  pwmMinSpeed: 0.2,
  price: 10,
  points: [
    { flowM3s: 0, pressurePa: 60 },
    { flowM3s: 0.02, pressurePa: 0 },
  ],
}
const five: Fan = {
  ...fan,
  id: 'five',
  model: 'Whin 40 5 V',
  ratedV: 5,
  minV: 2.5,
  maxV: 5.5,
  startV: 3,
  wires: 2,
}
function plan(change: (p: StreamPlan) => void = () => {}): StreamPlan {
  const p = newStreamPlan('j', 'Machine')
  p.path = [{ ...newElement('o', 'opening'), areaM2: 0.004 }, newElement('fan', 'fan')]
  pick(p, selectionOf('f'), 12)
  feedFrom(
    p,
    {
      ...newSource('s', 'rail'),
      name: 'Rail',
      nominalV: 24,
      lowV: 23,
      highV: 25,
      iMaxA: 1,
      fuseFitted: true,
      fuseA: 0.5,
      polarityChecked: true,
    },
    { wireAwg: 22, wireLengthM: 0.5 },
  )
  convertBy(p, { ...newConverter('c', 12), iMaxA: 1, setFirst: true })
  change(p)
  return p
}
function report(p: StreamPlan): Report {
  const r = computeReport({ shown: null, plan: p, fans: [fan, five] })
  if (!r.ok) throw new Error(r.reason)
  return r.report
}
const fanArray = (p: StreamPlan): FanArray => {
  const made = fanArrayOf(plannedFans(p)!, [fan, five])
  if (!made.ok) throw new Error(made.reason)
  return made.fanArray
}
const ids = (p: StreamPlan) => withAlso(report(p).findings.findings).map((f) => f.id)
const node = (r: Report, id: string) => r.power.feed.nodes.find((n) => n.id === id)!

/** A 24 V machine with a 12 V and a 5 V fan through two converters. */
const machine = plan((p) => {
  hang(
    p,
    {
      ...newFeedPart('c5', 'converter', null),
      name: 'Step-down 5 V',
      outV: 5,
      iMaxA: 1,
      setFirst: true,
      wireAwg: 24,
      wireLengthM: 0.3,
    },
    {
      ...newFeedPart('fan5', 'load', 'c5'),
      name: 'Nozzle fan',
      loadKind: 'fan',
      fanId: 'five',
      wireAwg: 26,
      wireLengthM: 0.4,
    },
    { ...newFeedPart('led', 'load', 'c'), name: 'Indicator', loadKind: 'led', currentA: 0.01, ledV: 2.1 },
  )
})

describe('the feed of a plan', () => {
  test('both fans stand at their own voltage, and the source gives what the power balance asks for', () => {
    const r = report(machine)
    expect(node(r, 'lead-main').inV).toBeGreaterThan(11.9)
    expect(node(r, 'fan5').inV).toBeGreaterThan(4.9)
    expect(node(r, 'fan5').highV).toBeCloseTo(5.25, 6)
    const watts = r.power.feed.nodes
      .filter((n) => n.kind === 'selection' || n.kind === 'load')
      .reduce((s, n) => s + n.powerW!, 0)
    expect(24 * r.power.loadRunA!).toBeGreaterThan(watts / 0.9)
    expect(24 * r.power.loadRunA!).toBeLessThan(watts / 0.8)
    expect(ids(machine)).not.toContain('power-converter-unset')
  })
  test('an LED gets the next E24 resistor for its voltage', () => {
    expect(node(report(machine), 'led').ohm).toBe(1000)
    // without current it is dark: no resistor is made up for it
    const dark = structuredClone(machine)
    dark.feed.find((f) => f.id === 'led')!.currentA = 0
    const r = report(dark)
    expect(node(r, 'led')).toMatchObject({ ohm: null })
    expect(JSON.stringify(r.power.feed)).not.toMatch(/Infinity|NaN/)
    expect(JSON.stringify(r.power.feed)).toContain('LED string, dark: no current')
  })
  test('one unset converter anywhere is told, at its node as well', () => {
    const p = structuredClone(machine)
    p.feed.find((f) => f.id === 'c5')!.setFirst = false
    expect(ids(p)).toContain('power-converter-unset')
    expect(node(report(p), 'c5').problems.map((x) => x.severity)).toContain('stop')
  })
  test.each([
    [13.5, false, 'just enough: the lead’s few millivolts take nothing a fan would notice'],
    [13, true, 'half a volt short'],
  ])('a step-down to 12 V on %s V: sags %s, %s', (inV, sags) => {
    const p = plan((x) => {
      Object.assign(sourceOf(x)!, { nominalV: inV, lowV: inV, highV: 14 })
    })
    const said = node(report(p), 'c').problems.map((x) => x.code)
    expect(said.includes('input-low')).toBe(sags)
    expect(ids(p).includes('power-converter-dropout')).toBe(sags)
  })
  test('a 5 V fan on the 12 V converter is too much for it', () => {
    const p = structuredClone(machine)
    p.feed.find((f) => f.id === 'fan5')!.parentId = 'c'
    expect(node(report(p), 'fan5').problems.map(feedProblemText).join()).toContain('5.5 V')
  })
  test('what hangs on nothing, or goes round in a loop, is left out and nothing is NaN', () => {
    const p = plan((x) => {
      hang(
        x,
        { ...newFeedPart('a', 'branch', 'b') },
        { ...newFeedPart('b', 'branch', 'a') },
        { ...newFeedPart('l', 'load', 'gone'), currentA: null },
      )
    })
    const { nodes } = report(p).power.feed
    expect(nodes.map((n) => n.id)).toEqual(['s', 'c', 'lead-main'])
    expect(JSON.stringify(nodes)).not.toContain('NaN')
  })
  test('a fan without a current is told, not guessed', () => {
    const r = computeReport({ shown: null, plan: machine, fans: [{ ...fan, ratedA: null }, five] })
    expect(r.ok && node(r.report, 'lead-main').inA).toBeNull()
    expect(r.ok && r.report.power.loadRunA).toBeNull()
  })
  test('four fans on one header overload it; a powered hub takes the load off', () => {
    const header = (hub: 'none' | 'powered') =>
      plan((p) => {
        feedFrom(p, { ...newSource('s', 'header'), polarityChecked: true })
        convertBy(p, null)
        stand(p, selectionOf('f', { count: 4, arrangement: 'parallel' }))
        p.wiring.hub = hub
      })
    const strong = (p: StreamPlan) => computeReport({ shown: null, plan: p, fans: [{ ...fan, ratedA: 0.35 }] })
    const found = (hub: 'none' | 'powered') => {
      const r = strong(header(hub))
      return r.ok ? r.report.findings.findings.map((f) => f.id) : []
    }
    expect(found('none')).toContain('power-header-overload')
    expect(found('powered')).not.toContain('power-header-overload')
  })
  test('a vehicle charges at 14.4 V: too much for a 12 V fan straight on it', () => {
    const p = plan((x) => {
      feedFrom(x, {
        ...newSource('s', 'vehicle'),
        polarityChecked: true,
        transientProtected: false,
        fuseFitted: false,
      })
      convertBy(x, null)
    })
    expect(ids(p)).toEqual(
      expect.arrayContaining(['power-vehicle-high', 'power-vehicle-spikes', 'wire-fuse-missing']),
    )
  })
})

describe('ways to slow a fan', () => {
  const ways = slowDownWays(plan(), fanArray(plan()), 9)
  const way = (w: string) => ways.find((r) => r.way === w)!
  test('the step-down tells its setting and when', () => {
    expect(way('buck').setting).toContain('9.0 V')
    expect(way('buck').setting).toContain('before the fan is connected')
    expect(way('buck').heatW!).toBeLessThan(0.3)
  })
  test('the resistor is a preferred one, rated twice its heat, and fails at the start where it must', () => {
    const r = way('resistor')
    expect(r.fanV!).toBeGreaterThan(8)
    expect(r.fanV!).toBeLessThan(10)
    expect(r.heatW!).toBeGreaterThan(1)
    expect(r.startMarginV! < 0).toBe(r.starts === false)
  })
  test('half the time of 24 V is 12 V on average and 24 V at the peak', () => {
    const half = slowDownWays(plan(), fanArray(plan()), 12).find((r) => r.way === 'pwm')!
    expect(half.name).toContain('50 %')
    expect(half.peakV).toBe(25)
    expect(half.hazard?.severity).toBe('stop')
  })
  test('a divider is shown with the reason why not', () => {
    expect(way('divider').heatW!).toBeGreaterThan(5 * 9 * 0.14)
    expect(way('divider').hazard?.text).toContain('burns')
  })
  test('a 4-wire fan on its own voltage gets PWM', () => {
    const p = plan((x) => {
      sourceOf(x)!.nominalV = 12
    })
    const pwm = slowDownWays(p, fanArray(p), 8).find((r) => r.way === 'pwm-wire')!
    expect(pwm.name).toContain(`${Math.round(100 * pwm.duty!)} %`)
    expect(pwm.speed).toBeCloseTo(8 / 12, 2)
    expect(way('pwm-wire')).toBeUndefined()
  })
  test('above the source only a step-up is offered', () => {
    const p = plan((x) => {
      feedFrom(x, { ...newSource('s', 'usb') })
    })
    expect(slowDownWays(p, fanArray(p), 9).map((r) => r.way)).toEqual(['boost', 'pwm-wire', 'straight'])
  })
})

describe('on paper', () => {
  test('the wire list has both poles of every lead, with pins, fuse, strip and pull', () => {
    const rows = wireList(machine, report(machine).power.feed)
    expect(rows.filter((r) => r.pole === '+')).toHaveLength(report(machine).power.feed.nodes.length - 1)
    const plus = rows.find((r) => r.to === '1 × Whin 80' && r.pole === '+')!
    expect(plus).toMatchObject({ toPin: '2', awg: 22, fuseA: null, lengthM: 0.5, from: 'Step-down converter' })
    // the fuse of the source stands in each lead that begins there
    expect(rows.filter((r) => r.from === 'Rail' && r.pole === '+').map((r) => r.fuseA)).toEqual([0.5, 0.5])
    expect(plus.pullN).toBeCloseTo(40, 0)
    expect(plus.mm2).toBeCloseTo(0.3255, 3)
  })
  test('pins by position: what stays open is said', () => {
    const pinsOf = (change: (p: StreamPlan) => void = () => {}) => {
      const p = plan(change)
      const { feed } = report(p).power
      return fanPins(
        p,
        feed,
        feed.nodes.find((n) => n.fans)!,
      )
    }
    expect(pinsOf().map((p) => `${p.pin} ${p.use}`)).toEqual([
      '1 ground',
      '2 + supply',
      '3 tach out',
      '4 PWM in',
    ])
    expect(pinsOf()[2]!.connect).toContain('insulated')
    expect(
      pinsOf((p) => {
        p.wiring.tachTo = 'input'
      })[2]!.connect,
    ).toContain('one input')
  })
  test('the converter is set before the fan is plugged in, and polarity is metered between', () => {
    const steps = connectionOrder(machine, report(machine).power.feed).map((s) => s.text)
    const at = (words: string) => steps.findIndex((s) => s.includes(words))
    expect(at('turn the screw')).toBeGreaterThan(at('Disconnect'))
    expect(at('Polarity')).toBeGreaterThan(at('turn the screw'))
    expect(at('Plug in the fan')).toBeGreaterThan(at('Polarity'))
    expect(steps.join()).not.toMatch(/undefined|NaN|null/)
  })
  test('parts: fans at their price, wire by length, what is owned costs nothing', () => {
    const list = partsList(machine, report(machine).power.feed, [fanArray(machine)!], [fan, five])
    expect(list.rows.find((r) => r.what === 'Wire 22 AWG')).toMatchObject({ count: 1.1, unit: 'm' })
    expect(list.total).toBeCloseTo(
      list.rows.reduce((s, r) => s + (r.sum ?? 0), 0),
      9,
    )
    const owned = partsList(
      machine,
      report(machine).power.feed,
      [fanArray(machine)!],
      [fan, { ...five, owned: true }],
    )
    expect(list.total - owned.total).toBeCloseTo(10, 9)
  })
  test('the diagram has a box for every node and a lead to each, with its warning', () => {
    const p = structuredClone(machine)
    converterOf(p)!.setFirst = false
    const d = diagramOf(p, report(p).power.feed)
    expect(d.nodes).toHaveLength(6)
    expect(d.edges).toHaveLength(5)
    expect(d.nodes.find((n) => n.id === 'c')).toMatchObject({
      state: 'stop',
      warning: 'set it before connecting',
    })
    expect(JSON.stringify(d)).not.toMatch(/undefined|NaN/)
    expect(diagramOf(newStreamPlan('x', 'x'), { nodes: [], settled: true })).toEqual({ nodes: [], edges: [] })
  })
})

describe('batteries and sun', () => {
  const bank = (change: (p: StreamPlan) => void = () => {}) =>
    plan((p) => {
      feedFrom(p, { ...newSource('s', 'power-bank'), polarityChecked: true })
      convertBy(p, null)
      stand(p, selectionOf('five'))
      p.battery = {
        ...newBattery('b', 'power-bank'),
        chargeCoulomb: 36000,
        dutyShare: 1,
        cellV: 3.7,
        depth: 1,
        coldC: 20,
      }
      change(p)
    })
  test('a bank gives its cells’ energy less its converter: 10 Ah at 3.7 V and 1 W are 31 h', () => {
    const r = report(bank()).runtime
    expect(r.energyJ).toBeCloseTo(37 * 3600, 6)
    const watts = r.loadA! * 5
    expect(r.runtimeS! / 3600).toBeCloseTo((37 * 0.85) / watts, 3)
  })
  test('half the time on lasts twice as long, and the wished time tells the size', () => {
    const half = report(
      bank((p) => {
        Object.assign(p.battery!, { dutyShare: 0.5, wishedS: 100 * 3600 })
      }),
    ).runtime
    expect(half.runtimeS).toBeCloseTo(2 * report(bank()).runtime.runtimeS!, 3)
    // the needed capacity lasts exactly the wished time
    const exact = report(
      bank((p) => {
        Object.assign(p.battery!, { dutyShare: 0.5, chargeCoulomb: half.neededCoulomb })
      }),
    ).runtime
    expect(exact.runtimeS! / 3600).toBeCloseTo(100, 6)
  })
  test('too small a load lets the bank switch off: a resistor that keeps it on', () => {
    const p = bank((x) => {
      x.battery!.autoOffA = 0.5
    })
    expect(ids(p)).toContain('batt-auto-off')
    expect(report(p).runtime.keepAlive!.watts).toBeGreaterThan(1)
  })
  test('the cold shortens it, a wished time that it does not reach is a finding', () => {
    expect(
      report(
        bank((p) => {
          p.battery!.coldC = -10
        }),
      ).runtime.runtimeS!,
    ).toBeLessThan(report(bank()).runtime.runtimeS!)
    expect(
      ids(
        bank((p) => {
          p.battery!.wishedS = 1000 * 3600
        }),
      ),
    ).toContain('batt-runtime-short')
  })
  test('a pack straight on the fan: the exact law of a falling voltage', () => {
    const p = plan((x) => {
      feedFrom(x, { ...newSource('s', 'pack'), polarityChecked: true, fuseFitted: true, fuseA: 1 })
      convertBy(x, null)
      x.battery = { ...newBattery('b', 'pack'), chargeCoulomb: 9000, dutyShare: 1, depth: 1, coldC: 20 }
    })
    const r = report(p).runtime
    // fine steps of charge instead of the closed form
    let seconds = 0
    const slope = (1.3 * r.loadA!) / 11.1
    for (let i = 0; i < 20000; i++)
      seconds += 9000 / 20000 / (r.loadA! + slope * (12.6 - (3.6 * (i + 0.5)) / 20000 - 11.1))
    expect(r.runtimeS!).toBeCloseTo(seconds, -1)
  })
  test('the sun by month: the worst one decides', () => {
    const p = bank((x) => {
      feedFrom(x, { ...newSource('s', 'solar'), nominalV: 12, highV: 13, polarityChecked: true })
      stand(x, selectionOf('f'))
      x.battery = { ...newBattery('b', 'solar'), chargeCoulomb: 7 * 3600, dutyShare: 1, coldC: 20 }
      x.sun = { ...newSun('u'), panelW: 10, controller: 'tracking', wishedDays: 6 }
    })
    const r = report(p).runtime
    expect(r.months).toHaveLength(12)
    expect(r.worst!.month).toBe(11)
    expect(r.worst!.harvestJ).toBeCloseTo(10 * 0.8 * 3600 * 0.7, 6)
    expect(ids(p)).toEqual(expect.arrayContaining(['batt-solar-short', 'batt-autonomy-short']))
  })
})

test('each node opens to its workings, none of them without a number or a reason', () => {
  for (const n of report(machine).power.feed.nodes) {
    for (const f of nodeFigures(n)) {
      expect(f.formula, f.key).not.toBe('')
      expect(f.value === null || Number.isFinite(f.value), f.key).toBe(true)
    }
  }
  const p = plan((x) => {
    feedFrom(x, { ...newSource('s', 'header') })
    convertBy(x, null)
  })
  expect(slowDownWays(p, fanArray(p), 8).map((r) => r.way)).toContain('header')
})

describe('in the lead of the fans', () => {
  const thermal = (rest: Partial<FeedPart> = {}): FeedPart => ({
    ...newFeedPart('sw', 'switch', 'c'),
    name: 'Thermal switch',
    switchKind: 'thermal-no',
    onC: 40,
    offC: 30,
    sensorAt: 'the heatsink',
    contactV: 30,
    contactA: 5,
    ...rest,
  })
  const diode: FeedPart = {
    ...newFeedPart('d', 'converter', 'sw'),
    name: 'Protection diode',
    converterKind: 'diode',
    diodeKind: 'schottky',
    diodes: 1,
    setFirst: null,
    outV: null,
  }
  const behind = (...parts: FeedPart[]) =>
    plan((p) => {
      putBefore(p, ...parts)
      p.wiring.strainRelief = true
    })
  test('the fans hang behind the switch, and their current is the switch’s', () => {
    const r = report(behind(thermal()))
    expect(node(r, 'sw')).toMatchObject({ parentId: 'c', kind: 'switch' })
    expect(node(r, 'lead-main').parentId).toBe('sw')
    expect(node(r, 'sw').outA).toBeCloseTo(node(r, 'lead-main').inA!, 9)
    expect(node(r, 'lead-main').inV).toBeCloseTo(node(report(plan()), 'lead-main').inV, 6)
  })
  test('a Schottky diode behind it takes its 0.3 V from the fans', () => {
    const without = node(report(behind(thermal())), 'lead-main').inV
    const r = report(behind(thermal(), diode))
    expect(node(r, 'lead-main').parentId).toBe('d')
    expect(without - node(r, 'lead-main').inV).toBeCloseTo(0.3, 2)
  })
  test('a relay’s coil is drawn from what feeds it, not through the fans', () => {
    const r = report(behind(thermal({ switchKind: 'relay', onC: null, offC: null, coilA: 0.07 })))
    expect(node(r, 'sw').outA).toBeCloseTo(node(r, 'lead-main').inA!, 9)
    expect(node(r, 'c').outA! - node(r, 'lead-main').inA!).toBeCloseTo(0.07, 6)
  })
  test('wire list, order and parts follow: + goes in and out, − passes by, standing still is no fault', () => {
    const p = behind(thermal({ sparkDiode: true }))
    const r = report(p)
    const rows = wireList(p, r.power.feed)
    const to = (name: string, pole: string) => rows.find((x) => x.to === name && x.pole === pole)!
    expect([to('Thermal switch', '+').toPin, to('Thermal switch', '−').toPin]).toEqual(['in', 'passes by'])
    expect(rows.filter((x) => x.from === 'Thermal switch').map((x) => x.fromPin)).toEqual(['out', 'passes by'])
    const order = connectionOrder(p, r.power.feed).map((s) => s.text)
    expect(order.some((t) => t.includes('Below 40 °C the fan stands still: that is no fault'))).toBe(true)
    expect(order.some((t) => t.includes('Thermal switch bridged'))).toBe(true)
    const what = partsList(p, r.power.feed, [], []).rows.map((x) => x.what)
    expect(what).toContain('Thermal switch')
    expect(what).toContain('Diode across the load')
  })
  test('a contact is held against what it opens; one that nobody rated stays open', () => {
    expect(ids(behind(thermal({ contactV: 6 })))).toContain('wire-contact-dc')
    expect(ids(behind(thermal()))).not.toContain('wire-contact-dc')
    const unrated = report(behind(thermal({ contactV: null, contactA: null }))).findings
    expect(unrated.passed).not.toContain('wire-contact-dc')
  })
  test.each([
    ['a contact that opens above where it closes', [thermal({ offC: 50 })], 'opens below that'],
    [
      'one that opens when warm and closes above it',
      [thermal({ switchKind: 'thermal-nc' })],
      'closes below that',
    ],
  ])('%s is refused where it happened', (_, parts: FeedPart[], message: string) => {
    const checked = planSchema.safeParse(wholePlan(behind(...parts)))
    expect(checked.error!.issues[0]).toMatchObject({ path: ['feed'] })
    expect(checked.error!.issues[0]!.message).toContain(message)
  })
})
