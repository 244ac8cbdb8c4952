export type Severity = 'stop' | 'fix' | 'note'

/** One design check, as the handbook writes it. */
export interface Rule {
  id: string
  severity: Severity
  /** expression over facts, see expression.ts */
  trigger: string
  /** placeholders {fact} are printed in the person's units */
  message: string
  why: string
  fix: string
  source: string
}
