import type { Term } from '../../core/calendar/term'
import { planFaults, type PlanDocument } from '../../core/plan/document'
import { refuse } from '../errors/refusal'

/** Refuses a document with dates that no plan for this term can mean, however they came into it. */
export function checkDocument(document: PlanDocument, term: Pick<Term, 'classes' | 'exams'>): void {
  const faults = planFaults(document, term)
  if (faults.length === 0) return
  const told = faults.map(({ path, message }) => ({ field: ['document', ...path].join('.'), message }))
  throw refuse('plan-faults', { faults: told })
}
