import { of, POWER, FIT, PATH, CONTROL, planned, type Cause } from './cause'
import type { Known } from './known'
import { shared } from './shared-causes'

/** It whines or hums, or is louder than before. */

export const whines = (known: Known): Cause[] => [
  {
    key: 'chopped',
    title: 'Its supply is chopped at a tone that can be heard',
    share: known.pwmHz !== null && known.pwmHz < 20_000 ? 4 : known.duty !== null || known.switched ? 1.5 : 0.3,
    shows: {
      tone: { stays: 0.55, gone: 0.4 },
      full: { right: 0.95 },
      hand: { same: 0.8 },
      front: { same: 0.95 },
    },
    physics: 'Current in steps pulls the windings in steps: the motor sings at the switching frequency.',
    fix: [
      'A PWM frequency above 20 kHz, on the PWM wire where there is one; or a smooth voltage from a converter',
      ...(known.pwmHz === null ? ['.'] : ['; it is planned at ', of(known.pwmHz, 'frequency'), '.']),
    ],
    at: CONTROL,
  },
  {
    key: 'blade-tone',
    title: 'Blades beat on what stands close before them',
    share: known.guarded ? 2.5 : 1,
    shows: { tone: { follows: 0.9 }, front: { better: 0.85 }, full: { same: 0.9 }, hand: { same: 0.8 } },
    physics: 'Each blade meets the wake of the grille’s bars: a tone at blades × speed.',
    fix: [
      'A tenth of the diameter between blades and guard or grille on the intake, thin round bars instead of slots.',
    ],
    at: FIT,
  },
  {
    key: 'structure',
    title: 'The panel sings with it',
    share: 2,
    shows: { tone: { follows: 0.85 }, hand: { quiet: 0.95 }, front: { same: 0.8 }, full: { same: 0.85 } },
    physics: 'A stiff mount hands every shake of the rotor to a panel that is a good loudspeaker.',
    fix: ['Soft mounts, a gasket, or a slower speed away from the panel’s own tone.'],
    at: FIT,
  },
  {
    key: 'converter-tone',
    title: 'The converter itself whistles',
    share: known.converter ? 1 : 0.1,
    shows: { tone: { stays: 0.8 }, hand: { same: 0.95 }, front: { same: 0.95 }, full: { right: 0.9 } },
    physics: 'At a light load it switches in bursts, and its coil follows at a tone within hearing.',
    fix: ['Put an ear to it. A smaller one, a little more load on it, or the fan straight from the source.'],
    at: POWER,
  },
  shared.bearing(),
]

/** What may be behind a fan that has become louder. */
export const louder = (known: Known): Cause[] => [
  {
    ...whines(known)[1]!,
    share: 1.5,
    shows: { front: { better: 0.85 }, hand: { same: 0.8 }, rpm: { ok: 0.85 }, position: { same: 0.9 } },
  },
  {
    ...whines(known)[2]!,
    shows: { hand: { quiet: 0.95 }, front: { same: 0.85 }, rpm: { ok: 0.9 }, position: { same: 0.6 } },
  },
  {
    key: 'faster',
    title: 'It turns faster than planned',
    share: 1.5,
    shows: { rpm: { high: 0.95 }, hand: { same: 0.8 }, front: { same: 0.85 }, position: { same: 0.95 } },
    physics: 'Sound grows with the fifth power of the speed: 10 % faster is 2 dB.',
    fix: ['Set it back to ', ...planned(known)],
    at: POWER,
  },
  {
    key: 'unbalance',
    title: 'Dust on the blades shakes it',
    share: 1.5,
    shows: { hand: { quiet: 0.6 }, rpm: { ok: 0.6, low: 0.35 }, front: { same: 0.9 }, position: { same: 0.8 } },
    physics: 'Unequal dust moves the centre of mass off the shaft: a shake once per turn.',
    fix: ['Supply off, hold the rotor, soft brush; then the same reading again.'],
    at: { station: 'log' },
  },
  { ...shared.bearing(), share: 1.2 },
  {
    key: 'choked',
    title: 'It works against a loaded filter or a shut opening',
    share: known.hasFilter ? 1.5 : 0.8,
    shows: {
      front: { better: 0.9 },
      rpm: { ok: 0.6, high: 0.35 },
      hand: { same: 0.9 },
      position: { same: 0.95 },
    },
    physics: 'Towards shut-off the flow on the blades separates: a rumble, for less air.',
    fix: ['Clean the filter, free the openings; then the same reading again.'],
    at: PATH,
  },
]
