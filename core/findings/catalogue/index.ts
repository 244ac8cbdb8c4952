import type { Rule } from '../rule'
import { needRules } from './need'
import { airPathRules } from './air-path'
import { fanRules } from './fan'
import { noiseRules } from './noise'
import { fitRules } from './fit'
import { powerRules } from './power'
import { wiringRules } from './wiring'
import { controlRules } from './control'
import { batteryRules } from './battery'
import { safetyRules } from './safety'
import { measurementRules } from './measurement'

export interface RuleGroup { key: string, title: string, rules: Rule[] }

/** The whole catalogue in the handbook's order. Ids are stable for ever. */
export const ruleGroups: RuleGroup[] = [
  { key: 'need', title: 'Need', rules: needRules },
  { key: 'air-path', title: 'Air path', rules: airPathRules },
  { key: 'fan', title: 'Fan choice', rules: fanRules },
  { key: 'noise', title: 'Noise', rules: noiseRules },
  { key: 'fit', title: 'Fit', rules: fitRules },
  { key: 'power', title: 'Power', rules: powerRules },
  { key: 'wiring', title: 'Wiring', rules: wiringRules },
  { key: 'control', title: 'Control', rules: controlRules },
  { key: 'battery', title: 'Battery and sun', rules: batteryRules },
  { key: 'safety', title: 'Safety', rules: safetyRules },
  { key: 'measurement', title: 'Measurement', rules: measurementRules },
]
