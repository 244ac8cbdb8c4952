import { of, POWER, FIT, PATH, CONTROL, type Cause } from './cause'
import type { Known } from './known'
import { shared } from './shared-causes'

/** It does not turn, turns slowly, the wrong way, or stops after a while. */

export const still = (known: Known): Cause[] => [
  {
    key: 'no-supply',
    title: 'No voltage arrives: fuse, switch or an open joint',
    share: 3,
    shows: {
      fanV: { none: 0.95 },
      openV: { none: 0.95 },
      fanA: { none: 0.95 },
      turns: { free: 0.9 },
      sourceV: { ok: 0.7, none: 0.25 },
    },
    physics: 'An open place stands in front of the whole voltage, and no current flows.',
    fix: [
      'From the source towards the fan, red probe along the +: the place where the voltage goes is open',
      ...(known.fuseA === null ? ['.'] : [': look at the fuse of ', of(known.fuseA, 'current'), ' first.']),
    ],
    at: POWER,
  },
  shared.swapped(known),
  shared.starved(known),
  shared.setLow(known),
  shared.rubs(known),
  shared.held(known),
  {
    key: 'dead',
    title: 'The fan’s electronics are dead',
    share: 1,
    shows: {
      fanV: { ok: 0.95 },
      openV: { ok: 0.95 },
      fanA: { none: 0.8, high: 0.15 },
      turns: { free: 0.95 },
      full: { same: 0.95 },
    },
    physics: 'Reversed once, or fed too much, its driver no longer switches the windings.',
    fix: ['Another fan; first find out what killed this one: polarity and voltage at the plug.'],
    at: { station: 'line-up' },
  },
]

/** What may be behind air that goes the wrong way. */
export const backwards = (known: Known): Cause[] => [
  {
    key: 'mounted-round',
    title: 'It is mounted the wrong way round',
    share: 4,
    shows: { arrow: { other: 0.97 }, spin: { same: 0.95 }, paper: { towards: 0.9 } },
    physics: 'An axial fan moves air one way along its shaft, whichever way the box wants it.',
    fix: ['Turn the frame round, struts to where the air shall go; never swap + and −.'],
    at: FIT,
  },
  {
    key: 'windmill',
    title: 'It does not run: another fan or the wind turns it',
    share: known.several ? 2 : 0.7,
    shows: {
      arrow: { same: 0.9 },
      spin: { other: 0.85, still: 0.1 },
      paper: { towards: 0.7, still: 0.25 },
      fanA: { none: 0.9 },
    },
    physics: 'Blades without power are a windmill, and an open hole for the air of the others.',
    fix: ['Search “It does not turn” for this fan.'],
    at: POWER,
  },
  {
    key: 'loop',
    title: 'Air goes round in a loop beside the fan',
    share: 1.5,
    shows: { arrow: { same: 0.95 }, spin: { same: 0.95 }, paper: { still: 0.6, towards: 0.3 } },
    physics: 'Air takes the shortest way back to the low pressure: through the gap beside the frame.',
    fix: ['Gasket round the frame, tape over open slots near it; then the paper again.'],
    at: PATH,
  },
  {
    key: 'tight',
    title: 'The path lets too little through',
    share: 1.2,
    shows: { arrow: { same: 0.95 }, spin: { same: 0.95 }, paper: { still: 0.85 }, front: { better: 0.8 } },
    physics: 'At shut-off an axial fan only stirs: part of its air comes back through the blades.',
    fix: ['Compare the openings with the plan: is one covered, a flap shut, the filter full?'],
    at: PATH,
  },
]

/** What may be behind a fan that turns slower than planned. */
export const slow = (known: Known): Cause[] => [
  shared.starved(known),
  shared.setLow(known),
  shared.thinWire(known),
  shared.held(known),
  shared.rubs(known),
  { ...shared.bearing(), share: 0.7 },
  {
    key: 'source-low',
    title: 'The source itself gives too little',
    share: known.battery ? 2 : 0.8,
    shows: {
      fanV: { low: 0.8, 'below-start': 0.15 },
      openV: { low: 0.55, ok: 0.4 },
      sourceV: { low: 0.95 },
      rpm: { low: 0.9 },
      fanA: { low: 0.85 },
      turns: { free: 0.95 },
      others: { better: 0.5, same: 0.45 },
    },
    physics: 'An empty battery, or an adapter at its limit, hands on less than its label.',
    fix: ['Charge it, or take a source that holds its voltage under this load; the plan tells how much.'],
    at: POWER,
  },
]

/** What may be behind a fan that stops now and then. */
export const stops = (known: Known): Cause[] => [
  {
    key: 'bank',
    title: 'The power bank switches off: too little current',
    share: known.autoOffA !== null ? 4 : known.battery ? 1 : 0.2,
    shows: { cools: { reset: 0.9 }, sourceV: { none: 0.95 }, turns: { free: 0.95 }, fanA: { none: 0.9 } },
    physics: 'A power bank takes a small load for none, and saves itself.',
    fix: [
      'A load that keeps it awake, or a bank without that switch',
      ...(known.autoOffA === null ? ['.'] : ['; this one wants ', of(known.autoOffA, 'current'), ' at least.']),
    ],
    at: POWER,
  },
  {
    key: 'too-warm',
    title: 'The converter or source switches off when warm',
    share: known.converter ? 2 : 1,
    shows: {
      cools: { again: 0.9 },
      sourceV: { ok: 0.7, none: 0.25 },
      fanV: { none: 0.7, low: 0.25 },
      turns: { free: 0.95 },
    },
    physics: 'Its own over-temperature switch opens, and closes when it has cooled.',
    fix: ['Search “The converter gets hot”.'],
    at: POWER,
  },
  {
    key: 'control',
    title: 'The control stops it, as it should',
    share: known.switched ? 2 : 0.1,
    shows: {
      cools: { again: 0.7, never: 0.25 },
      sourceV: { ok: 0.95 },
      fanV: { ok: 0.4, none: 0.55 },
      full: { right: 0.95 },
      turns: { free: 0.95 },
    },
    physics: 'Cool enough, or its time is over: it waits for warmth or for its clock.',
    fix: ['See on Control when it stops and starts on a usual day, and warm its sensor.'],
    at: CONTROL,
  },
  {
    key: 'empty',
    title: 'The battery is empty',
    share: known.battery ? 3 : 0.1,
    shows: {
      cools: { never: 0.6, reset: 0.35 },
      sourceV: { low: 0.6, none: 0.35 },
      fanV: { low: 0.5, none: 0.45 },
      turns: { free: 0.95 },
    },
    physics: 'Its board opens at the lowest voltage, to save the cells.',
    fix: ['Charge it; Power tells how long it should last with this load.'],
    at: POWER,
  },
  {
    key: 'fuse',
    title: 'A fuse opened',
    share: 1,
    shows: {
      cools: { never: 0.75, again: 0.2 },
      sourceV: { ok: 0.9 },
      fanV: { none: 0.95 },
      turns: { free: 0.8 },
    },
    physics:
      'More than its rating for long enough melts it; a self-resetting one comes back when it has cooled.',
    fix: ['Search “The current is too high” before the new one goes in, of the same value.'],
    at: POWER,
  },
  {
    ...shared.bearing(),
    title: 'The bearing sticks when warm',
    shows: {
      cools: { again: 0.7 },
      sourceV: { ok: 0.95 },
      fanV: { ok: 0.95 },
      turns: { rubs: 0.6, stuck: 0.35 },
    },
  },
]
