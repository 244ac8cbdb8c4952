import {
  isConverter,
  type StreamPlan,
  type ConverterKind,
  placesInUse,
  directionsOf,
  plannedFans,
} from '#core/document'
import type { SittingKey } from './step'

/**
 * The cautions of the handbook: which of them a plan calls for, what is said, who is competent, before which sitting.
 * Local codes, the equipment's manual and licensed practice come before all of it. Handbook: cautions.md.
 */

export interface Caution {
  id: string
  say: string
  do: string
  /** before which part of the build it is told */
  sitting: SittingKey
  /** holds the sitting: it wants another plan, or a stated reason with a name; null: only a caution */
  stop: string | null
}
export interface CautionRule extends Omit<Caution, 'stop'> {
  /** true: this plan calls for it; null: nobody said whether it does */
  calls: (plan: StreamPlan) => boolean | null
  /** why it holds, where it does */
  stop?: (plan: StreamPlan) => string | null
}

const told = (...texts: (string | null | undefined)[]) => texts.filter(Boolean).join(' ')
const mentions = ({ job }: StreamPlan, words: RegExp) =>
  words.test(told(job.equipment, job.complaint, job.breathesIn, job.breathesOut, job.untouchable, job.name))
const picked = (plan: StreamPlan) => [plan, ...plan.beside].some((s) => plannedFans(s) !== null)
const lithium = (c: string | undefined) => c === 'li-ion' || c === 'lifepo4'
const converts = ({ feed }: StreamPlan, ...kinds: ConverterKind[]) =>
  feed.some((p) => isConverter(p) && kinds.includes(p.converterKind))
const switching = (plan: StreamPlan) => converts(plan, 'buck', 'boost', 'pwm')
const warmConverter = (plan: StreamPlan) => converts(plan, 'resistor', 'linear', 'divider')
const outdoors = ({ job }: StreamPlan) => job.airOutlet === 'outdoors'
const cuts = (plan: StreamPlan) =>
  placesInUse(plan).some(
    ({ fit, holeM }) => fit !== null && fit.opening === null && (fit.material !== null || holeM !== null),
  )
/** Highest extra-low voltage that is planned here, V. IEC 62368-1 class ES1, from memory. */
const LOW_V = 60
/** Heat from which a fire is thought of, W; hours a day from which it runs unattended. Choices of ours. */
const HOT_W = 50
const LONG_H = 12
/** Burns skin on longer touch, degC. From memory. */
const TOUCH_C = 60
const DAMP = 0.75

const ELECTRICIAN = 'a licensed electrician'
const rule = (
  id: string,
  sitting: SittingKey,
  say: string,
  doThis: string,
  calls: CautionRule['calls'],
  stop?: CautionRule['stop'],
): CautionRule => ({ id, sitting, say, do: doThis, calls, ...(stop ? { stop } : {}) })

export const cautionRules: readonly CautionRule[] = [
  rule(
    'mains-inside',
    'before',
    'Parts inside stay dangerous after switching off.',
    `Unplug, wait, measure. Only touch the low-voltage side, below ${LOW_V} V DC; no work on the mains side: that is for ${ELECTRICIAN}.`,
    ({ job }) => job.mains,
    ({ job }) =>
      job.opensSupply === true ? `The plan works on the mains side: that is for ${ELECTRICIAN}.` : null,
  ),
  rule(
    'earth-path',
    'closing',
    'Refit every earth lead and its toothed washer.',
    'From the case to the earth pin under 0.1 to 0.5 Ω; else stop, and have it looked at.',
    ({ job }) => job.mains,
  ),
  rule(
    'isolation',
    'wiring',
    'Keep low-voltage and mains wiring apart.',
    'Double insulation, ties, 8 mm of air at least (from memory); when in doubt outside the case.',
    ({ job }) => job.mains,
  ),
  rule(
    'capacitors',
    'before',
    'Stored charge can kill. Do not open supply units.',
    'Only by the manual’s discharge procedure. Microwave, tube and valve equipment is not opened at all.',
    ({ job }) =>
      job.opensSupply === true || (job.storedV !== null && job.storedV > LOW_V)
        ? true
        : job.opensSupply === null && job.mains === true
          ? null
          : false,
    ({ job }) =>
      job.storedV !== null && job.storedV > LOW_V && job.discharged !== true
        ? 'Nobody confirmed that what is stored was discharged and measured.'
        : null,
  ),
  rule(
    'supply-fan',
    'before',
    'Replacing the fan of a supply unit means opening a mains supply.',
    'Replace the unit, or have a qualified person do it.',
    ({ job }) => job.opensSupply === true,
  ),
  rule(
    'lithium-pack',
    'wiring',
    'Never without a protection board; never charge below 0 °C, unattended or on fabric.',
    'A fuse at the pack, a matched charger, a fire-safe surface, no damaged or ' +
      'puffed cells. In aircraft cabins at most 100 Wh (from memory).',
    (plan) =>
      lithium(plan.battery?.chemistry) ||
      plan.sources.some((s) => s.kind === 'pack' || s.kind === 'power-bank'),
    ({ battery }) =>
      battery && lithium(battery.chemistry) && battery.protectedPack === false
        ? 'The pack has no protection board.'
        : null,
  ),
  rule(
    'lead-acid',
    'wiring',
    'Charging makes hydrogen; acid burns; a spanner across the poles melts.',
    'Vent high and low, no sparks, eye protection, insulated tools, a fuse within 0.2 m of the pole.',
    (plan) =>
      plan.battery?.chemistry === 'lead-acid' ||
      plan.sources.some((s) => s.kind === 'house-battery' || s.kind === 'vehicle'),
  ),
  rule(
    'gas-appliance',
    'before',
    'Exhausting a room can pull combustion gas back: carbon monoxide.',
    'No extraction without a supply opening of at least the same area; a licensed gas fitter tests for spillage; have an alarm.',
    (plan) => plan.job.openFlue ?? (outdoors(plan) ? null : false),
    (plan) => {
      const { openFlue, supplyOpening } = plan.job
      if (openFlue === true && supplyOpening !== true)
        return 'No competent person has confirmed the supply air: that is for a licensed gas fitter.'
      return openFlue === null && outdoors(plan)
        ? 'Air is drawn out of the building, and nobody said whether a stove or boiler takes its air from it.'
        : null
    },
  ),
  rule(
    'radon-soil',
    'before',
    'Under-pressure can draw soil gas into the room.',
    'Ask for the local guidance before drawing air out of a cellar or from under a floor.',
    (plan) =>
      plan.job.cautions.includes('cellar') ||
      (directionsOf(plan).includes('out') && mentions(plan, /cellar|basement|crawl|under.?floor/i)),
  ),
  rule(
    'flammable-vapour',
    'before',
    'A brushless fan is not explosion-proof: it has electronics, start currents, static charge.',
    'Only equipment certified for the zone, installed by qualified people.',
    ({ job }) => job.flammable,
    ({ job }) =>
      job.flammable === true
        ? 'Ignitable air is not planned here: certified equipment, qualified people.'
        : null,
  ),
  rule(
    'combustible-dust',
    'before',
    'Dust in duct and filter burns and explodes.',
    'Earthed conductive duct and a certified extractor.',
    (plan) =>
      plan.job.cautions.includes('dust') || mentions(plan, /sanding|flour|sawdust|wood dust|resin dust/i),
  ),
  rule(
    'fumes',
    'before',
    'Outdoors is the first choice for fumes.',
    'A filter only with the right media, particles and carbon; it gives no warning when it is used ' +
      'up. A fan replaces no respirator; the local limits for the workplace hold.',
    ({ job }) => job.goal === 'fume',
  ),
  rule(
    'fume-neighbour',
    'closing',
    'Do not blow at neighbours’ windows or your own intake.',
    '3 m from openings at least (from memory), upwards, above head height; ask the landlord and the local rules.',
    (plan) => outdoors(plan) && (plan.job.goal === 'fume' || plan.job.goal === 'ventilate'),
  ),
  rule(
    'laser',
    'cutting',
    'A fan hole is a way out for the beam.',
    'A light-tight baffle of two turns; the interlock stays; extraction before firing and ' +
      'after; a fire watch with an extinguisher; eyewear for the wavelength.',
    ({ job }) => job.laser,
    ({ job }) =>
      job.laser === true && job.lightBaffle === false ? 'There is no light-tight baffle at the opening.' : null,
  ),
  rule(
    'water-near',
    'wiring',
    'Only extra-low voltage in the wet; the adapter stays dry and above.',
    'A residual-current device on the mains, a drip loop, splash-proof parts; dew settles on electronics.',
    ({ job }) => (job.goal === 'chill' ? true : job.wet),
    ({ job }) => (job.wet === true && job.adapterInWet === true ? 'A mains adapter stands in the wet.' : null),
  ),
  rule(
    'condensation',
    'closing',
    'A cold surface below the dew point wets electronics.',
    'Check the dew point, coat the board, give the water a way out.',
    (plan) => plan.job.humidity > DAMP || mentions(plan, /cold box|fridge|cellar|cool room/i),
  ),
  rule(
    'vehicle',
    'wiring',
    'Charging voltage and spikes kill 12 V fans; the fuse sits at the battery.',
    'A wide-range fan or a regulator; nothing loose near pedals, airbags, exhaust. Engine cooling only with parts approved for it.',
    (plan) => plan.job.domain === 'vehicle' || plan.sources.some((s) => s.kind === 'vehicle'),
  ),
  rule(
    'aircraft-medical',
    'before',
    'Certified parts and maintainers only.',
    'This is not planned here: ask the certified maintainer.',
    ({ job }) => ['aircraft', 'medical', 'life-safety'].includes(job.domain),
    ({ job }) =>
      ['aircraft', 'medical', 'life-safety'].includes(job.domain)
        ? 'Aircraft, medical and life-safety equipment belongs to certified maintainers.'
        : null,
  ),
  rule(
    'must-cool',
    'hour',
    'Assume the fan stops: what happens next?',
    'Two fans, or a cut-out that does not hang on the controller; an alarm; the heat off without air.',
    ({ job }) => job.mustNotFail,
  ),
  rule(
    'thermal-cutout',
    'wiring',
    'A fan that fails must cut the heat.',
    'A one-shot cut-off and a resettable thermostat; never bypass one that is there, never fit a higher value.',
    (plan) => plan.job.mustNotFail === true || plan.job.cautions.includes('hot') || warmConverter(plan),
  ),
  rule(
    'fire',
    'hour',
    'Do not run it unattended until the checks of the first hour and first day are passed.',
    'A smoke alarm, a support that does not burn, a fuse per branch, flame-retardant material near heat.',
    (plan) =>
      (plan.job.heatW ?? 0) >= HOT_W || plan.job.hoursPerDay >= LONG_H || plan.job.cautions.includes('dust'),
  ),
  rule(
    'hot-surface',
    'power',
    `Above ${TOUCH_C} °C a longer touch burns skin.`,
    'Guard it, or move it.',
    (plan) =>
      plan.job.cautions.includes('hot') ||
      (plan.job.touchC !== null && plan.job.touchC > TOUCH_C) ||
      warmConverter(plan),
  ),
  rule(
    'rotating-parts',
    'power',
    'Keep fingers, hair, cords and pets away from the blades; large 24 V fans cut.',
    'Guards on both open sides; power off before cleaning.',
    picked,
  ),
  rule(
    'ladder-roof',
    'cutting',
    'Work at height kills more hobbyists than electricity.',
    'Two people, three points of contact, no wind or rain. A way through a roof ' +
      'is a roofer’s; test old boards for asbestos before drilling.',
    (plan) => plan.job.cautions.includes('height') || mentions(plan, /\b(roof|attic|loft|eaves)\b/i),
  ),
  rule(
    'hidden-services',
    'cutting',
    'Wires, pipes and structure lie behind walls and floors.',
    'Use a detector. Fire compartments and party walls need permission and fire stopping.',
    (plan) => plan.job.cautions.includes('walls') || mentions(plan, /\bwall\b/i),
  ),
  rule(
    'hearing',
    'power',
    '80 dB(A) over a day already calls for action, 85 needs protection (action values of the EU, from memory).',
    'Keep your distance, test shortly, wear protectors.',
    (plan) => plan.job.heardDbA !== null && plan.job.heardDbA >= 80,
  ),
  rule(
    'eyes-dust',
    'cutting',
    'Eye protection and a mask while cutting.',
    'Gloves for sheet edges, never at rotating tools. Mould or droppings: wet, with mask and gloves.',
    cuts,
  ),
  rule(
    'magnet-vibration',
    'closing',
    'Motor fields and vibration disturb drives, cameras, microphones, turntables.',
    'Distance, and soft mounts.',
    (plan) =>
      plan.job.cautions.includes('sensitive') ||
      mentions(plan, /turntable|microphone|camera|telescope|disk|recorder/i),
  ),
  rule(
    'animals-plants',
    'closing',
    'Draught, noise and drying harm animals and plants.',
    'Indirect flow, a guard, and advice on their welfare.',
    (plan) =>
      plan.job.cautions.includes('living') || mentions(plan, /terrari|aquari|hutch|fruiting|salad|seedling/i),
  ),
  rule(
    'food',
    'closing',
    'Food wants materials that are safe with it, and hygiene.',
    'A filter, a fan that can be cleaned, no lubricant over food.',
    (plan) => plan.job.cautions.includes('food') || mentions(plan, /cheese|meat|bread|salad/i),
  ),
  rule(
    'warranty',
    'before',
    'Opening a device may end its warranty and its conformity.',
    'Prefer what can be undone; keep every original part and screw.',
    ({ job }) => job.cautions.includes('rented') || job.existingFanId !== null,
  ),
  rule(
    'tenancy',
    'before',
    'Walls, windows and outlets belong to somebody.',
    'Ask the owner first.',
    (plan) => plan.job.cautions.includes('rented') || outdoors(plan),
  ),
  rule(
    'radio-noise',
    'closing',
    'Step-down converters and PWM may disturb audio and radio.',
    'A filter, twisted leads, a metal box.',
    (plan) =>
      switching(plan) &&
      (plan.job.cautions.includes('sensitive') ||
        mentions(plan, /audio|radio|amplifier|choir|sound|recorder/i)),
  ),
]

/** The cautions that a plan calls for, and those that nobody answered. */
export function cautionsOf(plan: StreamPlan): { called: Caution[]; open: Caution[] } {
  const rows = cautionRules.map(({ calls, stop, ...words }) => ({
    called: calls(plan),
    caution: { ...words, stop: stop?.(plan) ?? null },
  }))
  return {
    // what holds is told even where it is only unanswered
    called: rows.filter((r) => r.called === true || r.caution.stop !== null).map((r) => r.caution),
    open: rows.filter((r) => r.called === null && r.caution.stop === null).map((r) => r.caution),
  }
}
