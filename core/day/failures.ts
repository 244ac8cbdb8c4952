import type { Control, StreamPlan } from '#core/document'
import { onlySwitches, usesWire } from './controls'

/** What this control really does when one of its parts fails, and what is wanted. */

export interface Failure {
  part: 'sensor' | 'controller' | 'fan' | 'supply' | 'host'
  /** what happens, in words */
  happens: string
  /** the air goes on as it should; null: it depends on what nobody told */
  safe: boolean | null
  /** what to do about it; '' where nothing is needed */
  remedy: string
}

const looks = ({ school }: Control) => school === 'thermostat' || school === 'curve' || school === 'host'

function sensorFails(control: Control): Failure | null {
  if (!looks(control)) return null
  const { onFault } = control
  const words = {
    full: 'Goes to full speed.',
    cap: 'Goes to its cap.',
    hold: 'Stays as it is: it may be standing.',
    off: 'Stops the fan.',
  }
  const simple = onlySwitches(control)
  if (onFault === null)
    return {
      part: 'sensor',
      happens: simple
        ? 'A switch that does not close leaves the fan standing.'
        : 'Nobody said what it does then.',
      safe: simple ? false : null,
      remedy: simple
        ? 'Put a second one beside it that closes a little warmer.'
        : 'Say it: full speed is wanted.',
    }
  const covered = control.secondC !== null
  const safe = onFault === 'full' || onFault === 'cap' || covered
  return {
    part: 'sensor',
    happens:
      covered && onFault !== 'full' ? `${words[onFault]} The second thermostat takes over.` : words[onFault],
    safe,
    remedy: safe ? '' : 'Let it go to full speed, and say so on its display.',
  }
}

function controllerFails(control: Control, plan: StreamPlan): Failure | null {
  if (control.school === 'always' || control.school === 'slow') return null
  const { whenDead, actuator } = control
  const covered = control.secondC !== null
  const wire = usesWire(control, plan)
  const told = whenDead ?? (wire && actuator === 'pwm-wire' ? 'full' : null)
  if (told === null)
    return {
      part: 'controller',
      happens: onlySwitches(control)
        ? 'Its contact stays open: the fan stands.'
        : 'Nobody said which way it fails.',
      safe: covered ? true : onlySwitches(control) ? false : null,
      remedy: covered ? '' : 'Choose pull-ups and contacts so that the fan runs without it.',
    }
  const words = {
    full: wire ? 'An open PWM input is full speed by itself.' : 'The fan runs on.',
    hold: 'Stays as it was: it may be standing.',
    off: 'The fan stands.',
  }
  const safe = told === 'full' || covered
  return {
    part: 'controller',
    happens: covered && told !== 'full' ? `${words[told]} The second thermostat takes over.` : words[told],
    safe,
    remedy: safe ? '' : 'Choose pull-ups and contacts so that the fan runs without it.',
  }
}

function fanFails(control: Control, { job }: StreamPlan): Failure {
  const { tachAlarm } = control
  return {
    part: 'fan',
    happens:
      tachAlarm === true
        ? 'The alarm tells it, after its hold time.'
        : tachAlarm === false
          ? 'Nobody is told.'
          : 'Nobody said whether its speed is watched.',
    // an alarm that nobody hears cuts no heat: what must not fail wants the cut-off as well
    safe: tachAlarm === true && job.mustNotFail === true ? job.thermalCutout : tachAlarm,
    remedy:
      job.thermalCutout === true ? '' : 'An independent thermal cut-off takes the heat away, whatever fails.',
  }
}

function supplyFails({ interlock }: Control, plan: StreamPlan): Failure {
  const battery = plan.sources.some(
    (s) => s.kind === 'pack' || s.kind === 'house-battery' || s.kind === 'power-bank',
  )
  if (interlock === true)
    return { part: 'supply', happens: 'The heat goes off with it.', safe: true, remedy: '' }
  return {
    part: 'supply',
    happens:
      interlock === false ? 'The heat stays on without air.' : 'Nobody said whether the heat goes off with it.',
    safe: interlock === false ? false : null,
    remedy: battery
      ? 'Let the heat go off with it, and warn before the battery is empty.'
      : 'Feed fan and heat from one switch, or let the heat go off with the fan’s supply.',
  }
}

function hostFails(control: Control): Failure | null {
  if (control.school !== 'host' && control.actuator !== 'header') return null
  const { hostSleeps, secondC } = control
  const covered = secondC !== null
  return {
    part: 'host',
    happens:
      hostSleeps === true
        ? covered
          ? 'The second thermostat runs the fan while it sleeps.'
          : 'Nobody cools while it sleeps.'
        : hostSleeps === false
          ? 'It does not sleep while there is heat.'
          : 'Nobody said whether it may sleep while there is heat.',
    safe: covered || hostSleeps === false ? true : hostSleeps === true ? false : null,
    remedy: covered || hostSleeps === false ? '' : 'Put a thermostat beside it, in parallel.',
  }
}

/**
 * What happens when each part fails.
 * Reference: handbook control 5
 */
export const failuresOf = (control: Control, plan: StreamPlan): Failure[] =>
  [
    sensorFails(control),
    controllerFails(control, plan),
    fanFails(control, plan),
    supplyFails(control, plan),
    hostFails(control),
  ].filter((f) => f !== null)
