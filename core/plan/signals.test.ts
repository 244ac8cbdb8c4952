import { describe, expect, test } from 'vitest'
import {
  completePlan,
  newElement,
  newFan,
  newFeedPart,
  newPlan,
  newStreamPlan,
  newSource,
  planSchema,
  type Fan,
  type StreamPlan,
  wholePlan,
  setDuty,
} from '#core/document'
import { withAlso } from '#core/rules'
import { connectionOrder, diagramOf, fanPins, partsList, wireList } from '#core/supply'
import { computeReport, type Report } from './report'
import { feedFrom, hang, pick, selectionOf, stand } from '../../tests/plans'

/** A hub that its own supply feeds and a header steers; PWM and tach wires as they are planned. */

// invented
const fan: Fan = {
  ...newFan('f'),
  maker: 'Testmoor',
  model: 'Whin 120',
  ratedA: 0.3,
  startV: 5,
  minV: 4,
  maxV: 13.2,
  wires: 4,
  pwmMinDuty: 0.2,
  pwmMinSpeed: 0.2,
  points: [
    { flowM3s: 0, pressurePa: 60 },
    { flowM3s: 0.03, pressurePa: 0 },
  ],
}
function plan(change: (p: StreamPlan) => void = () => {}): StreamPlan {
  const p = newStreamPlan('j', 'Rack')
  p.path = [{ ...newElement('o', 'opening'), areaM2: 0.02 }, newElement('fan', 'fan')]
  pick(p, selectionOf('f', { count: 4, arrangement: 'parallel', duty: 1 }), 12)
  feedFrom(p, { ...newSource('hub', 'adapter', 12), name: 'Hub supply', iMaxA: 5 })
  p.sources.push({ ...newSource('head', 'header', 12), name: 'Front header', iMaxA: 1 })
  Object.assign(p.wiring, { hub: 'powered', pwmFrom: 'host', tachTo: 'host', groundsJoined: true })
  change(p)
  expect(planSchema.safeParse(wholePlan(p)).error?.issues ?? []).toEqual([])
  return p
}
function report(p: StreamPlan): Report {
  const r = computeReport({ plan: p, fans: [fan], shown: null })
  if (!r.ok) throw new Error(r.reason)
  return r.report
}
const found = (p: StreamPlan) => withAlso(report(p).findings.findings).map((f) => f.id)
const node = (p: StreamPlan, id: string) => report(p).power.feed.nodes.find((n) => n.id === id)!

describe('a hub with its own supply, steered by a header', () => {
  test('the supply carries the fans, the header nothing', () => {
    // by hand: four fans of 0.3 A at their rated voltage, 1.2 A of 5 A
    const p = plan()
    expect(node(p, 'hub').outA).toBeCloseTo(4 * 0.3, 2)
    expect(node(p, 'head').outA).toBe(0)
    expect(node(p, 'head').problems).toEqual([])
    expect(found(p)).not.toContain('power-header-overload')
    expect(found(p)).not.toContain('own-hub-unfed')
  })
  test('the same fans straight on the header: it is told once, as the hub without power', () => {
    const p = plan((x) => {
      feedFrom(x, x.sources[1]!)
    })
    expect(found(p)).toContain('own-hub-unfed')
    expect(found(p)).not.toContain('power-header-overload')
  })
  test('the header is judged for its pins', () => {
    // 4 inputs of 5 mA each: 20 mA
    const sink = (a: number) => found(plan((p) => Object.assign(p.wiring, { pwmSinkA: a })))
    expect(sink(0.015)).toContain('wire-pwm-sink')
    expect(sink(0.025)).not.toContain('wire-pwm-sink')
    expect(found(plan((p) => Object.assign(p.wiring, { tachJoined: 4 })))).toContain('wire-tach-joined')
  })
  test('drawn, listed and connected: signals and ground from the header, its + open', () => {
    const p = plan()
    const { feed } = report(p).power
    const signal = diagramOf(p, feed).edges.filter((e) => e.signal)
    expect(signal).toMatchObject([{ from: 'head', to: 'lead-main', label: ['PWM, 1 tach, ground'] }])
    const rows = wireList(p, feed).map((r) => `${r.pole} ${r.from} ${r.fromPin} > ${r.to} ${r.toPin}`)
    expect(rows).toEqual(
      expect.arrayContaining([
        expect.stringMatching(/^tach .* 3 > Front header 3$/),
        expect.stringMatching(/^PWM Front header 4 > .* 4$/),
        expect.stringMatching(/^− Front header 1 > .* 1$/),
      ]),
    )
    expect(rows.filter((r) => r.startsWith('+') && r.includes('Front header'))).toEqual([])
    expect(new Set(wireList(p, feed).map((r) => r.number)).size).toBe(rows.length)
    const order = connectionOrder(p, feed).map((s) => s.text)
    expect(order.some((t) => t.includes('Its supply pin stays open'))).toBe(true)
    const parts = partsList(p, feed, [], [fan]).rows.map((r) => r.what)
    expect(parts).toContain('Powered fan hub')
  })
  test('grounds: apart is a fault, not told is asked, one and the same needs no joining', () => {
    const asked = (p: StreamPlan) => report(p).findings.open.map((o) => o.name)
    expect(found(plan((p) => Object.assign(p.wiring, { groundsJoined: false })))).toContain('own-grounds-apart')
    expect(asked(plan((p) => Object.assign(p.wiring, { groundsJoined: null })))).toContain(
      'signal.groundsJoined',
    )
    const onHeader = plan((p) => {
      feedFrom(p, p.sources[1]!)
      Object.assign(p.wiring, { hub: 'none', groundsJoined: null })
      stand(p, selectionOf(fan.id))
    })
    expect(asked(onHeader)).not.toContain('signal.groundsJoined')
  })
  test('a controller board on the same source has the same ground; elsewhere it is asked', () => {
    const controlled = (board: boolean) =>
      plan((p) => {
        Object.assign(p.wiring, { pwmFrom: 'controller', tachTo: 'controller', groundsJoined: null })
        if (board) hang(p, { ...newFeedPart('b', 'load', null), loadKind: 'board', currentA: 0.2, ratedV: 12 })
      })
    const asked = (p: StreamPlan) => report(p).findings.open.some((o) => o.name === 'signal.groundsJoined')
    expect(asked(controlled(false))).toBe(true)
    expect(asked(controlled(true))).toBe(false)
  })
})

describe('the PWM pin and the tach pin say what they lead to', () => {
  const pins = (change: (p: StreamPlan) => void) => {
    const p = plan(change)
    const { feed } = report(p).power
    return fanPins(
      p,
      feed,
      feed.nodes.find((n) => n.fans)!,
    ).map((x) => x.connect)
  }
  test.each([
    [{ pwmFrom: 'open', tachTo: 'open' }, /full speed/, /insulated/],
    [{ pwmFrom: 'tied', pwmTieOhm: 10000, tachTo: 'alarm' }, /5 V through 10 kΩ: full speed/, /alarm/],
    [{ pwmFrom: 'tied', pwmTieOhm: null, tachTo: 'input' }, /4\.7 to 10 kΩ/, /one input/],
    [{ pwmFrom: 'host', tachTo: 'host' }, /Front header, pin 4/, /Front header, pin 3/],
    [{ pwmFrom: 'controller', tachTo: 'controller' }, /open drain/, /controller/],
  ])('%j', (wires, pwm, tach) => {
    const [, , three, four] = pins((p) => Object.assign(p.wiring, wires))
    expect(three).toMatch(tach)
    expect(four).toMatch(pwm)
  })
  test('a duty on a wire that nothing drives is told; full speed on it is none', () => {
    const open = (duty: number | null) =>
      found(
        plan((p) => {
          p.wiring.pwmFrom = 'open'
          setDuty(p, duty)
        }),
      )
    expect(open(0.5)).toContain('own-pwm-undriven')
    expect(open(null)).not.toContain('own-pwm-undriven')
  })
})

test.each([
  [true, 'input'],
  [false, 'open'],
  [null, null],
])('an older plan that said tach read: %s', (tachUsed, tachTo) => {
  const plan = newPlan('j', 'Old')
  const { tachTo: _, ...wiring } = plan.wiring
  const raw = completePlan({ ...plan, wiring: { ...wiring, tachUsed } })
  expect(planSchema.parse(raw).wiring.tachTo).toBe(tachTo)
})
