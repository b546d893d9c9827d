import { computed, type ComputedRef } from 'vue'
import { dayOf, type Day } from '~~/core/calendar/day'
import type { Meeting } from '~~/core/calendar/schema'
import type { Term } from '~~/core/calendar/term'
import type { FieldContext } from '~/ui/date-field/typed-date'
import { useSession } from './session'
import { instituteClock } from './words'

/** Today, by the one clock of the institute. */
export function useToday(): ComputedRef<Day> {
  const session = useSession()
  return computed(() => dayOf(instituteClock(session.session?.clock.instant ?? new Date().toISOString())))
}

/** What a date field without a time rests on; `term` where it belongs to one. */
export function useDayContext(term: () => Term | null = () => null): ComputedRef<FieldContext> {
  const today = useToday()
  return computed(() => ({ term: term(), meetings: [], usualMinute: null, today: today.value }))
}

const usualMinutes = { opens: 8 * 60, due: 23 * 60 + 59, closes: 23 * 60 + 59 }
/** What the fields of an item's dates rest on. */
export function useItemContexts(
  term: () => Term | null,
  meetings: () => readonly Meeting[],
): ComputedRef<Record<keyof typeof usualMinutes, FieldContext>> {
  const today = useToday()
  return computed(() => {
    const context = (field: keyof typeof usualMinutes): FieldContext => ({
      term: term(),
      meetings: meetings(),
      usualMinute: usualMinutes[field],
      today: today.value,
    })
    return { opens: context('opens'), due: context('due'), closes: context('closes') }
  })
}
