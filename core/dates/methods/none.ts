import { wallOf } from '../../calendar/day'
import type { Draft, Prepare } from '../draft'
import type { RuleOf } from '../rule'

/** Takes the date of a slot away, and says so. */
export function undate(draft: Draft, code: string): void {
  draft.dated = false
  draft.reasons.push({ slot: draft.slot, code, before: wallOf(draft.from, draft.fromMinute), after: null })
}

/** No dates at all. */
export const none: Prepare<RuleOf<'none'>> = () => draft => undate(draft, 'none')
