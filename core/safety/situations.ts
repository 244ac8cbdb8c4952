import type { Job } from '#core/document'

/** Keys of a job that say whether a situation applies. */
type YesNoKey = { [K in keyof Job]-?: Job[K] extends boolean | null ? K : never }[keyof Job]

/** Situations that no other field of a job tells; a job lists those that apply. */
export type Caution = Job['cautions'][number]

/** Something that can hurt, what is said of it, and what is asked once it applies. */
export interface Situation {
  key: string
  label: string
  /** the field that says whether it applies; without one the job's list of cautions does */
  says: YesNoKey | null
  /** what is asked where it applies: keys of the job */
  asks: readonly (keyof Job)[]
  /** what to mind, and who is competent where a maker is not */
  caution: string
}

const situation = (
  key: YesNoKey | Caution,
  label: string,
  caution: string,
  asks: Situation['asks'] = [],
  says: YesNoKey | null = key as YesNoKey,
): Situation => ({ key, label, says, asks, caution })
const also = (key: Caution, label: string, caution: string, asks: Situation['asks'] = []): Situation =>
  situation(key, label, caution, asks, null)

/**
 * The situations that a maker ticks when they apply. Handbook: cautions.md (limits there are marked as from memory).
 * Local rules, the equipment's manual and licensed practice come before all of it.
 */
export const situations: readonly Situation[] = [
  situation(
    'mains',
    'Mains parts in reach',
    'Parts inside stay dangerous after switching off: unplug, wait, measure. Only touch the ' +
      'low-voltage side; the mains side belongs to a licensed electrician.',
  ),
  situation(
    'opensSupply',
    'A mains supply is opened',
    'Stored charge can kill. Replace the whole unit, or have a qualified person do it; never open a microwave oven or valve equipment.',
    ['storedV', 'discharged', 'earthRefitted'],
  ),
  situation(
    'wet',
    'Water or spray near',
    'Only extra-low voltage in the wet. The adapter stays dry and above, the lead hangs in a ' +
      'drip loop, the mains has a residual-current device.',
    ['adapterInWet'],
  ),
  situation(
    'flammable',
    'Ignitable vapour, gas, dust',
    'A brushless fan is not explosion-proof. Only equipment certified for the zone, fitted by qualified people.',
  ),
  situation(
    'openFlue',
    'Stove or boiler with a flue',
    'Where a stove or boiler takes its air from the room, drawing air out can pull combustion gas back: carbon ' +
      'monoxide. A gas fitter must confirm the supply air; have an alarm.',
    ['supplyOpening'],
  ),
  situation(
    'laser',
    'A laser in a housing',
    'A hole for a fan is a way out for the beam: a light-tight baffle of two turns, the interlock stays, eyewear for the wavelength.',
    ['lightBaffle'],
  ),
  situation(
    'mustNotFail',
    'Harm if the air stops',
    'Assume that the fan stops: a cut-out that does not hang on its control takes the heat away, or two fans and an alarm.',
    ['thermalCutout'],
  ),
  also(
    'hot',
    'Hot surfaces',
    'Above 60 °C a longer touch burns. Guard it, move it, and never bypass a cut-out.',
    ['touchC'],
  ),
  also(
    'living',
    'Children, pets, plants near',
    'Fingers, hair and tails find blades: guard both sides. Draught, drying and noise harm animals and plants.',
  ),
  also(
    'battery',
    'Batteries in it',
    'A fuse at the pack; lithium never without its protection board, never charged below ' +
      '0 °C; lead-acid makes hydrogen when it charges.',
  ),
  also(
    'height',
    'Work on a ladder or roof',
    'Two people, three points of contact, no wind or rain. A way through a roof is a roofer’s; ' +
      'old boards may hold asbestos: test before drilling.',
  ),
  also(
    'walls',
    'Drilling walls or floors',
    'Find wires, pipes and structure first. Fire compartments and party walls need permission and fire stopping.',
  ),
  also(
    'food',
    'Food in the air',
    'Materials that are safe with food, a filter, nothing that sheds or drips over it, and a fan that can be cleaned.',
  ),
  also(
    'cellar',
    'A cellar or a floor',
    'Drawing air out of a cellar or from under a floor can pull soil gas in: ask for the local guidance first.',
  ),
  also(
    'dust',
    'Dust that can burn',
    'Wood, flour and resin dust burns and explodes in ducts and filters: earthed conductive duct, a certified extractor.',
  ),
  also(
    'sensitive',
    'Audio, radio, drives near',
    'Motor fields, vibration and switching converters disturb microphones, turntables, drives and radio: distance, soft ' +
      'mounts, filtered supplies.',
  ),
  also(
    'rented',
    'Rented or under warranty',
    'Ask the owner. Opening a device may end its warranty: prefer what can be undone.',
  ),
]

/** @returns true: it applies, or what is asked then was answered; false: it does not; null: nobody said. */
export function applies(job: Job, { key, says, asks }: Situation): boolean | null {
  if (asks.some((k) => job[k] !== null && job[k] !== false)) return true
  return says ? job[says] : job.cautions.includes(key as Caution) || null
}

/**
 * Says whether a situation applies. What was asked of it alone is forgotten where it does not.
 * @param job changed in place
 */
export function say(job: Job, { key, says, asks }: Situation, yes: boolean): void {
  if (says) job[says] = yes
  else {
    const others = job.cautions.filter((c) => c !== key)
    job.cautions = yes ? [...others, key as Caution] : others
  }
  if (!yes) for (const k of asks) Object.assign(job, { [k]: null })
}

/** Whatever has not been said of is said not to apply. @param job changed in place */
export function sayNoneElse(job: Job): void {
  for (const s of situations) if (s.says && applies(job, s) === null) job[s.says] = false
}
