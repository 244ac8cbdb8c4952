import type { Rule } from '../rule'
import need from './need.json'
import airPath from './air-path.json'
import fan from './fan.json'
import noise from './noise.json'
import fit from './fit.json'
import power from './power.json'
import wiring from './wiring.json'
import control from './control.json'
import battery from './battery.json'
import safety from './safety.json'
import measurement from './measurement.json'
import breathing from './breathing.json'
import place from './place.json'
import feed from './feed.json'
import targets from './targets.json'
import steering from './steering.json'

export interface RuleGroup {
  key: string
  title: string
  rules: Rule[]
}

/**
 * The whole catalogue in the handbook's order, as data with a source column. Ids are stable for ever. C common
 * practice, M from memory, D derived.
 */
export const ruleGroups: RuleGroup[] = [
  { key: 'need', title: 'Need', rules: need as Rule[] },
  { key: 'air-path', title: 'Air path', rules: airPath as Rule[] },
  { key: 'fan', title: 'Fan choice', rules: fan as Rule[] },
  { key: 'noise', title: 'Noise', rules: noise as Rule[] },
  { key: 'fit', title: 'Fit', rules: fit as Rule[] },
  { key: 'power', title: 'Power', rules: power as Rule[] },
  { key: 'wiring', title: 'Wiring', rules: wiring as Rule[] },
  { key: 'control', title: 'Control', rules: control as Rule[] },
  { key: 'battery', title: 'Battery and sun', rules: battery as Rule[] },
  { key: 'safety', title: 'Safety', rules: safety as Rule[] },
  { key: 'measurement', title: 'Measurement', rules: measurement as Rule[] },
]

/**
 * The handbook's catalogue and what this product checks besides: the equipment's own openings, leaks and calibration;
 * panel and guard; limits of fans that no sheet states; every target against what is predicted.
 */
export const allRuleGroups: RuleGroup[] = [
  ...ruleGroups,
  { key: 'breathing', title: 'Where it breathes', rules: breathing as Rule[] },
  { key: 'place', title: 'Panel and guard', rules: place as Rule[] },
  { key: 'feed', title: 'What is assumed of the fan', rules: feed as Rule[] },
  { key: 'targets', title: 'Targets', rules: targets as Rule[] },
  { key: 'steering', title: 'The day', rules: steering as Rule[] },
]
