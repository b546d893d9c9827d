import { computed, ref, type Ref } from 'vue'
import { dayOf, type Day } from '~~/core/calendar/day'
import { meetingDays } from '~~/core/calendar/term'
import { dateFields, datesOf, noDates, type DateField, type ItemDates } from '~~/core/course/dates'
import { farFault } from '~~/core/dates/far'
import {
  filledDown,
  movedBy,
  openFrom,
  spreadOver,
  tellingDate,
  withDate,
  withDatesOf,
  withFollowers,
  type FillStep,
  type Following,
  type HandDates,
  type HandItem,
} from '~~/core/dates/hand/moves'
import type { RuleSet } from '~~/core/dates/rule'
import { useLedgerSource, type LedgerSource } from './source'
import { isUnit, type LedgerItem } from './ledger'

export const followingWords: Record<Following, string> = {
  nobody: 'alone',
  later: 'with all later ones',
  unit: 'with its whole unit',
  kind: 'with all of its kind',
  all: 'with everything',
}
/** The dates of an item as they stand: what was just set by hand counts before the ledger is computed anew. */
export function standingDates({ lineage, planned }: LedgerItem, rules: RuleSet['itemRules']): ItemDates {
  const rule = rules[lineage]
  return datesOf(rule?.method === 'set' ? rule : planned)
}
const handItem = (item: LedgerItem, rules: RuleSet['itemRules']): HandItem => ({
  id: item.lineage,
  kind: item.node.kind ?? '',
  // A unit goes along with what is in it.
  unit: isUnit(item) ? item.lineage : item.node.unit,
  ...standingDates(item, rules),
})

/**
 * Changes of dates by hand: of the items that are chosen, or of the one that is looked at. Each is one step that can be gone
 * back. `items`: all of the ledger; `meant`: those that a change is for, in the order in which they are shown.
 */
export function useHand(
  items: Ref<readonly LedgerItem[]>,
  meant: Ref<readonly LedgerItem[]>,
  base: LedgerSource = useLedgerSource(),
) {
  /** Who goes along where something is moved. */
  const following = ref<Following>('nobody')
  /** Why the last change was not made, as a sentence. */
  const refused = ref('')
  const rules = computed(() => base.itemRules)
  const all = computed(() => items.value.map(item => handItem(item, rules.value)))
  const own = computed(() => meant.value.map(item => handItem(item, rules.value)))

  const units = computed(() => new Set(items.value.filter(isUnit).map(item => item.lineage)))
  /** Those of the chosen that can have such a date. */
  const having = (field: DateField): HandItem[] =>
    field === 'opens' ? own.value : own.value.filter(({ id }) => !units.value.has(id))
  /** A unit only opens. */
  const fitting = (given: HandDates): HandDates =>
    new Map(
      [...given].map(([id, dates]) => [id, units.value.has(id) ? { ...noDates, opens: dates.opens } : dates]),
    )
  function put(given: HandDates): void {
    const dates = fitting(given)
    const term = base.terms?.target
    const far = [...dates.values()].flatMap(each =>
      dateFields.flatMap(field => {
        const at = each[field]
        return at && term ? farFault([field], at, term) : []
      }),
    )
    refused.value = far[0] ? `Nothing was moved. ${far[0].message}` : ''
    if (far.length === 0 && dates.size > 0) base.holdAll(dates)
  }
  function move(days: number, field: DateField | null): void {
    const chosen = new Set(own.value.map(item => item.id))
    put(movedBy(withFollowers(all.value, chosen, following.value), days, field ? [field] : dateFields))
  }
  /** Moves some items by days, as a mark that is dragged does; what follows goes along. */
  const moveItems = (lineages: readonly string[], days: number): void =>
    put(movedBy(withFollowers(all.value, new Set(lineages), following.value), days))
  /** Holds one item at given dates; those that follow it move by as many days as it does. */
  function holdAt(lineage: string, dates: ItemDates): void {
    const item = all.value.find(each => each.id === lineage)
    const [was, is] = [item && tellingDate(item), tellingDate(dates)]
    const days = was && is ? dayOf(is) - dayOf(was) : 0
    const followers = days === 0 ? [] : withFollowers(all.value, new Set([lineage]), following.value)
    put(new Map([...movedBy(followers, days), [lineage, dates]]))
  }
  const hold = (): void => put(new Map(own.value.map(item => [item.id, datesOf(item)])))
  function letGo(): void {
    const held = meant.value.filter(item => item.held)
    if (held.length > 0) base.holdAll(new Map(held.map(item => [item.lineage, null])))
  }
  const set = (field: DateField, at: ItemDates[DateField]): void => put(withDate(having(field), field, at))
  const giveDatesOf = (item: LedgerItem): void =>
    put(withDatesOf(own.value, standingDates(item, rules.value)))
  const target = computed(() => base.terms?.target ?? null)
  const meetings = computed((): Day[] => (target.value ? meetingDays(target.value, base.meetings) : []))
  const fillDown = (field: DateField, step: FillStep): void =>
    put(filledDown(having(field), field, step, meetings.value))
  /** The day on which the course opens: that of its window, else the first day of classes. */
  const opensOn = computed((): Day | null => {
    const { openFrom: from } = base
    return from ? dayOf(from) : (target.value?.classes.from ?? null)
  })
  const openThroughout = (): void => {
    if (opensOn.value !== null) put(openFrom(own.value, opensOn.value))
  }
  function spread(over: 'days' | 'meetings'): void {
    if (!target.value) return
    const days = over === 'days' ? target.value.classDays : meetings.value
    put(spreadOver(own.value, days, target.value))
  }
  return {
    following,
    refused,
    meetings,
    opensOn,
    put,
    move,
    moveItems,
    holdAt,
    hold,
    letGo,
    set,
    giveDatesOf,
    fillDown,
    openThroughout,
    spread,
  }
}
