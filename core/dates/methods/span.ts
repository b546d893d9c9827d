import { isoOf } from '../../calendar/day'
import type { Prepare } from '../draft'
import type { RuleOf } from '../rule'

/** Open through all of the term: opens on its first day of classes, due and closed on its last. */
export const span: Prepare<RuleOf<'span'>> =
  (_rule, { target }) =>
  draft => {
    draft.day = draft.slot === 'opens' ? target.classes.from : target.classes.to
    draft.reasons.push({ slot: draft.slot, code: 'span', before: isoOf(draft.from), after: isoOf(draft.day) })
  }
