export type Severity = 'stop' | 'fix' | 'note'

/**
 * What a rule is judged for one by one. sheet: what is claimed of a fan; array: the picked fans together, at the fan's
 * side of the path; member: each picked fan; driven: each fan that is fed, picked or a further load; the others by their
 * name.
 */
export const subjectKinds = [
  'sheet',
  'array',
  'member',
  'driven',
  'source',
  'converter',
  'lead',
  'switch',
  'led',
  'filter',
  'grille',
  'duct',
  'thing',
  'place',
  'run',
  'target',
  'control',
] as const
export type SubjectKind = (typeof subjectKinds)[number]

/** One design check, as the handbook writes it, with what this product adds. */
export interface Rule {
  id: string
  severity: Severity
  /** expression over facts, see expression.ts */
  trigger: string
  /** placeholders {fact} are printed in the person's units */
  message: string
  /** one sentence of physics */
  why: string
  /** what to do, one sentence */
  fix: string
  source: string
  /** judged for each of these; without: once for the plan */
  each?: SubjectKind
  /** where this is true the rule is silent: what the handbook's trigger does not know */
  unless?: string
  /** it costs air and nothing else: where there is enough of it even so, it is told as a note */
  costsAir?: true
  /** why it can never fire here: a mistake that this product cannot make */
  retired?: string
}
