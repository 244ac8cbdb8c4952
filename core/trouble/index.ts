/** Trouble: from a symptom to its likely cause, by two or three measurements held against the plan's numbers. */
export { symptoms, type Symptom } from './cause'
export { knownOf } from './known'
export { troubleSearch, type Answer } from './search'
