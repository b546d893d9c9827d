import { computed, type Ref } from 'vue'
import { minuteOf, wallOf } from '~~/core/calendar/day'
import { meetingDays } from '~~/core/calendar/term'
import type { ItemDates } from '~~/core/course/dates'
import { crowdedIn, proposeEase, usualCrowding, type CrowdItem, type Crowding } from '~~/core/dates/crowding'
import type { EaseMove } from '~~/core/dates/crowding'
import { withWindow } from '~~/core/dates/hand/moves'
import { useStagePlan } from '../plan/store'
import type { LedgerItem } from './ledger'

export const crowdItem = ({ lineage, node, planned, held }: LedgerItem): CrowdItem => ({
  id: lineage,
  kind: node.kind ?? '',
  exam: node.exam,
  due: planned.due,
  held,
})
/** The dates of an item whose due day Ease changes: the time of day stays, and the window goes along where it must. */
export function easedDates(item: LedgerItem, { to }: Pick<EaseMove, 'to'>): ItemDates {
  const { due } = item.planned
  return withWindow(item.planned, 'due', due && wallOf(to, minuteOf(due)))
}

/** How crowded the plan at hand is, by limits that it remembers. */
export function useCrowding(items: Ref<readonly LedgerItem[]>) {
  const { store, document, plan } = useStagePlan()
  const crowding = computed((): Crowding => document.value.dates.crowding ?? usualCrowding)
  const put = (changed: Partial<Crowding>): void => {
    const next = { ...crowding.value, ...changed }
    store.changeIn('dates', { crowding: { ...next, weights: { ...next.weights } } })
  }
  const term = computed(() => store.terms?.target ?? null)
  const all = computed(() => items.value.map(crowdItem))
  const crowded = computed(() =>
    term.value ? crowdedIn(all.value, crowding.value, term.value) : { days: [], weeks: [] },
  )
  const meetings = computed(() =>
    term.value ? meetingDays(term.value, plan.value.target.course.meetings) : [],
  )
  /** What Ease would do; computed only where somebody looks. */
  const proposal = computed(() =>
    term.value ? proposeEase(all.value, crowding.value, term.value, meetings.value) : null,
  )
  return { crowding, put, term, all, crowded, meetings, proposal }
}
