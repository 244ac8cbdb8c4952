import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { behindResistor, dividerVoltage } from './resistor'
import { converterInputCurrent } from './converter'
import { solveFeed, type FeedConvert, type FeedNode } from './feed'
import { voltageBehind } from './fan-on-wire'

const convert = (kind: FeedConvert['kind'], rest: Partial<FeedConvert> = {}): FeedConvert => ({
  kind,
  outV: 12,
  dropoutV: 1.5,
  efficiency: 0.9,
  ohm: 0,
  ohm2: 0,
  diodes: 0,
  diodeV: 0.7,
  duty: 1,
  ...rest,
})
const source: FeedNode = { id: 's', parent: -1, ohm: 0, convert: null, current: null }
const load = (parent: number, current: (v: number) => number, ohm = 0): FeedNode => ({
  id: 'l',
  parent,
  ohm,
  convert: null,
  current,
})
const node = (parent: number, c: FeedConvert | null, ohm = 0): FeedNode => ({
  id: 'c',
  parent,
  ohm,
  convert: c,
  current: null,
})
const fan = (v: number) => 0.2 * (v / 12) ** 1.3

describe('a feed as a tree', () => {
  test('a load on a wire stands where bisection puts it', () => {
    const { states, settled } = solveFeed([source, load(0, fan, 9)], 12)
    expect(settled).toBe(true)
    expect(states[1]!.inV).toBeCloseTo(voltageBehind(12, 9, fan), 8)
    expect(states[0]!.outA).toBeCloseTo(fan(states[1]!.inV), 9)
  })
  test('a series resistor and a divider are the closed forms for a linear fan', () => {
    const line = (v: number) => 0.03 + 0.0125 * v
    expect(
      solveFeed([source, node(0, convert('resistor', { ohm: 33 })), load(1, line)], 12).states[2]!.inV,
    ).toBeCloseTo(behindResistor(12, 33, { kind: 'linear', a: 0.03, b: 0.0125 })!, 8)
    expect(
      solveFeed(
        [source, node(0, convert('divider', { ohm: 100, ohm2: 140 })), load(1, (v) => 0.02 + 0.01 * v)],
        12,
      ).states[2]!.inV,
    ).toBeCloseTo(dividerVoltage(12, 100, 140, 0.02, 0.01)!, 8)
  })
  test('a buck holds its output until the input is too low, and draws what the power balance says', () => {
    const at = (v: number) => solveFeed([source, node(0, convert('buck')), load(1, fan)], v).states
    expect(at(24)[2]!.inV).toBeCloseTo(12, 9)
    expect(at(24)[1]!.inA).toBeCloseTo(converterInputCurrent(24, 12, 0.2, 0.9), 9)
    expect(at(12)[2]!.inV).toBeCloseTo(10.5, 6)
    expect(at(12)[1]!.dropout).toBe(true)
  })
  test('a boost draws more the lower its input, also behind a wire', () => {
    const [, boost] = solveFeed([source, node(0, convert('boost'), 0.4), load(1, () => 0.1)], 5).states
    expect(boost!.inV * boost!.inA).toBeCloseTo((12 * 0.1) / 0.9, 6)
    expect(boost!.inV).toBeCloseTo(5 - 0.4 * boost!.inA, 8)
  })
  test('half duty of 24 V is 12 V on average at half the current from the source', () => {
    const [s, c, l] = solveFeed([source, node(0, convert('pwm', { duty: 0.5 })), load(1, fan)], 24).states
    expect(l!.inV).toBeCloseTo(12, 9)
    expect(c!.inA).toBeCloseTo(0.1, 9)
    expect(s!.outA).toBeCloseTo(0.1, 9)
  })
  test('two diodes take their drops', () =>
    expect(
      solveFeed([source, node(0, convert('diode', { diodes: 2, diodeV: 0.75 })), load(1, fan)], 12).states[2]!
        .inV,
    ).toBeCloseTo(10.5, 9))
  test('a regulated fan behind too much resistance is told as unsettled, never as a number that is none', () => {
    const { states } = solveFeed(
      [source, node(0, convert('resistor', { ohm: 33 })), load(1, (v) => (v > 0.01 ? 1.3 / v : 0))],
      12,
    )
    for (const s of states)
      for (const x of Object.values(s)) if (typeof x === 'number') expect(Number.isFinite(x)).toBe(true)
  })
  test('Kirchhoff holds for any tree: what goes in comes out, and each wire drops what it carries', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.nat(1000),
            fc.double({ min: 0, max: 3, noNaN: true }),
            fc.double({ min: 0.01, max: 0.4, noNaN: true }),
            fc.boolean(),
          ),
          { minLength: 1, maxLength: 30 },
        ),
        (list) => {
          const nodes: FeedNode[] = [source]
          const branches = [0]
          for (const [selection, ohm, amps, isLoad] of list) {
            const parent = branches[selection % branches.length]!
            nodes.push(isLoad ? load(parent, (v) => amps * (v / 12) ** 1.3, ohm) : node(parent, null, ohm))
            if (!isLoad) branches.push(nodes.length - 1)
          }
          const { states } = solveFeed(nodes, 12)
          const drawn = nodes.reduce((s, x, i) => s + (x.current ? states[i]!.inA : 0), 0)
          expect(states[0]!.outA).toBeCloseTo(drawn, 6)
          nodes.forEach((x, i) => {
            if (i > 0)
              expect(states[i]!.inV).toBeCloseTo(
                Math.max(0, states[x.parent]!.outV - x.ohm * states[i]!.inA),
                4,
              )
          })
        },
      ),
    )
  })
})
