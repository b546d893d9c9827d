import { dayOf, minuteOf, wallOf, type Day } from '../calendar/day'
import type { Meeting, WallTime } from '../calendar/schema'
import type { Term } from '../calendar/term'
import type { ZoneRules } from '../calendar/zone'
import type { DateField, ItemDates } from '../course/dates'
import { crossingOf, newDraft, type Crossing, type Draft } from './draft'
import { bit, flagsOf, outcomeOf, type Flag, type Outcome } from './flags'
import type { Reason } from './reasons'
import {
  methodOf,
  ruleFor,
  type AnyPlacingMethod,
  type AnyStatingMethod,
  type Rule,
  type RuleSet,
} from './rule'
import { dateSteps, order, stepsAfterOrder, timeSteps } from './steps'
import type { Placing } from './steps/step'

/** An item as the engine needs it: its dates, the unit whose rule counts, and its kind. */
export interface DatedItem extends Readonly<ItemDates> {
  readonly id: string
  readonly kind: string
  readonly unit: string | null
}
/** One date after crossing. Dates that came from the same one by the same rule share one of these: do not change it. */
export interface CrossedDate {
  readonly at: WallTime | null
  readonly flags: readonly Flag[]
  readonly reasons: readonly Reason[]
  readonly outcome: Outcome
}
export interface PlannedItem extends Readonly<ItemDates> {
  readonly id: string
  /** Flags of all its dates united, alphabetical. */
  readonly flags: readonly Flag[]
  readonly crossed: Readonly<Record<DateField, CrossedDate>>
}
/** All reasons of an item, date by date. */
export const reasonsOf = ({ crossed }: PlannedItem): Reason[] => [
  ...crossed.opens.reasons,
  ...crossed.due.reasons,
  ...crossed.closes.reasons,
]
/** Dates by how they came across; `dates` is all that there are. */
export interface Summary {
  dates: number
  straight: number
  moved: number
  held: number
  settle: number
  none: number
}

export interface PlanInput {
  source: Term
  target: Term
  sourceMeetings: readonly Meeting[]
  targetMeetings: readonly Meeting[]
  targetWindow?: Crossing['targetWindow']
  /** Wall-clock irregularities of the target's zone. */
  zone: ZoneRules
  rules: RuleSet
  items: readonly DatedItem[]
}

/**
 * Where every date of every item lands, in the order given, with flags and reasons.
 * Pure: the same input gives the same result. Input is taken to be checked (`readCase`, `planDocument`).
 */
export function planDates(input: PlanInput): { items: PlannedItem[]; summary: Summary } {
  const crossing = crossingOf(input)
  const prepared = new Map<Rule, (item: DatedItem) => PlannedItem>()
  const items = input.items.map((item): PlannedItem => {
    const rule = ruleFor(input.rules, item)
    let cross = prepared.get(rule)
    if (!cross) {
      cross = crosserOf(rule, crossing)
      prepared.set(rule, cross)
    }
    return cross(item)
  })
  return { items, summary: summarise(items) }
}

/** Counts dates by how they came across. */
export function summarise(items: readonly PlannedItem[]): Summary {
  const counts = { straight: 0, moved: 0, held: 0, settle: 0, none: 0, empty: 0 }
  for (const { crossed } of items) {
    counts[crossed.opens.outcome]++
    counts[crossed.due.outcome]++
    counts[crossed.closes.outcome]++
  }
  const { empty: _, ...counted } = counts
  return { ...counted, dates: counted.straight + counted.moved + counted.held + counted.settle }
}

/** The method of a rule, made ready for the two terms. */
function crosserOf(rule: Rule, crossing: Crossing): (item: DatedItem) => PlannedItem {
  const method = methodOf(rule)
  return 'state' in method ? statingCrosser(method, rule) : placingCrosser(method, rule, crossing)
}

/** A unit opens, and is neither due nor closed: what a rule says of those comes to nothing. */
export function openingAlone(item: PlannedItem): PlannedItem {
  if (item.due === null && item.closes === null) return item
  const { opens } = item.crossed
  const crossed = { opens, due: noDate, closes: noDate }
  return { id: item.id, opens: opens.at, due: null, closes: null, flags: opens.flags, crossed }
}

const noDate: CrossedDate = Object.freeze({
  at: null,
  flags: flagsOf(0),
  reasons: Object.freeze([]),
  outcome: 'empty',
})
const plannedItem = (id: string, crossed: PlannedItem['crossed'], mask: number): PlannedItem => ({
  id,
  opens: crossed.opens.at,
  due: crossed.due.at,
  closes: crossed.closes.at,
  flags: flagsOf(mask),
  crossed,
})

/** Dates that a rule states: no step touches them. */
function statingCrosser(method: AnyStatingMethod, rule: Rule): (item: DatedItem) => PlannedItem {
  const mask = method.flag ? bit[method.flag] : 0
  return item => {
    const stated = (field: DateField): CrossedDate => {
      const { at, reason } = method.state(rule, field, item)
      if (!reason) return noDate
      const outcome = outcomeOf(item[field] !== null, at !== null, mask)
      return { at, flags: flagsOf(mask), reasons: [reason], outcome }
    }
    const crossed = { opens: stated('opens'), due: stated('due'), closes: stated('closes') }
    return plannedItem(item.id, crossed, mask)
  }
}

/** A date crossed on its own, before its neighbours were looked at: wall-clock minutes before and after, and the date as it is kept. */
interface Single {
  readonly was: number
  readonly is: number
  readonly mask: number
  readonly date: CrossedDate
}

/**
 * Dates that a rule places. Until Order, what becomes of a date depends on it alone, and a course has far fewer different
 * dates than items: each is worked out once and shared, and its day once for all times of day. Items whose order must be
 * repaired are worked out whole, once for each set of dates. (Without the sharing 10 000 items take ten times as long: `npm run bench`.)
 */
function placingCrosser(
  method: AnyPlacingMethod,
  rule: Rule,
  crossing: Crossing,
): (item: DatedItem) => PlannedItem {
  const place = method.prepare(rule, crossing)
  const placedAt = (field: DateField, day: Day, minute: number): Draft => {
    const draft = newDraft(field, day, minute)
    place(draft)
    if (draft.dated) for (const step of dateSteps) step(draft, rule, crossing, method)
    return draft
  }
  const placed = { opens: new Map(), due: new Map(), closes: new Map() } as ByField<Day, Draft>
  const draftOf = (field: DateField, text: WallTime): Draft => {
    const [day, minute] = [dayOf(text), minuteOf(text)]
    const base = placed[field].get(day) ?? placedAt(field, day, minute)
    if (!base.dated) return base
    placed[field].set(day, base)
    const draft = { ...base, fromMinute: minute, minute, reasons: base.reasons.slice() }
    for (const step of timeSteps) step(draft, rule, crossing, method)
    return draft
  }
  const finish = (draft: Draft): CrossedDate => finishDate(draft, rule, crossing, method)
  const makeSingle = (field: DateField, text: WallTime): Single => {
    const draft = draftOf(field, text)
    const is = draft.day * 1440 + draft.minute
    const date = finish(draft)
    return { was: draft.from * 1440 + draft.fromMinute, is, mask: draft.flags, date }
  }
  const singles = { opens: new Map(), due: new Map(), closes: new Map() } as ByField<WallTime, Single>
  const singleOf = (field: DateField, text: WallTime | null): Single | null => {
    if (text === null) return null
    const known = singles[field].get(text)
    if (known) return known
    const single = makeSingle(field, text)
    singles[field].set(text, single)
    return single
  }
  const repaired = new Map<string, PlannedItem>()
  /** An item whose order must be repaired; the same dates are repaired alike. */
  const repair = (item: DatedItem): PlannedItem => {
    const key = `${item.opens} ${item.due} ${item.closes}`
    const known = repaired.get(key)
    if (known) return { ...known, id: item.id }
    const drafts = {
      opens: item.opens && draftOf('opens', item.opens),
      due: item.due && draftOf('due', item.due),
      closes: item.closes && draftOf('closes', item.closes),
    }
    const planned = finishItem(item.id, drafts, finish)
    repaired.set(key, planned)
    return planned
  }
  return item => {
    const opens = singleOf('opens', item.opens)
    const due = singleOf('due', item.due)
    const closes = singleOf('closes', item.closes)
    const inOrder = due?.date.at ? fits(opens, due) && fits(due, closes) : fits(opens, closes)
    if (!inOrder) return repair(item)
    const crossed = {
      opens: opens?.date ?? noDate,
      due: due?.date ?? noDate,
      closes: closes?.date ?? noDate,
    }
    return plannedItem(item.id, crossed, (opens?.mask ?? 0) | (due?.mask ?? 0) | (closes?.mask ?? 0))
  }
}
type ByField<K, V> = Record<DateField, Map<K, V>>

/** Whether two neighbouring dates need nothing from Order: they were in order and still are, or one is not there now. */
const fits = (earlier: Single | null, later: Single | null): boolean =>
  !earlier?.date.at || !later?.date.at || (earlier.was <= later.was && earlier.is <= later.is)

/** What follows Order, and the date as it is kept. */
export function finishDate(draft: Draft, rule: Rule, crossing: Crossing, method: Placing): CrossedDate {
  if (draft.dated) for (const step of stepsAfterOrder) step(draft, rule, crossing, method)
  return {
    at: draft.dated ? wallOf(draft.day, draft.minute) : null,
    flags: flagsOf(draft.flags),
    reasons: draft.reasons,
    outcome: outcomeOf(
      true,
      draft.dated,
      isAsBefore(draft, crossing) ? draft.flags & ~bit['on-closure'] : draft.flags,
    ),
  }
}
/** Whether it opens in a recess as it did before: in the week without classes after the same week, or in a closure of the same name and kind. It keeps its flag, and nobody is asked. */
function isAsBefore({ field, flags, from, day }: Draft, { source, target }: Crossing): boolean {
  if (field !== 'opens' || !(flags & bit['on-closure'])) return false
  if (flags & bit['break-week']) return true
  const [was, is] = [source.closureOn(from), target.closureOn(day)]
  return (
    was !== undefined && is !== undefined && was.name !== '' && was.name === is.name && was.kind === is.kind
  )
}
/** Order, what follows it, and the item put together. */
export function finishItem(
  id: string,
  drafts: Readonly<Record<DateField, Draft | null>>,
  finish: (draft: Draft) => CrossedDate,
): PlannedItem {
  const { opens, due, closes } = drafts
  const dated = (draft: Draft | null): Draft | null => (draft?.dated ? draft : null)
  order(dated(opens), dated(due), dated(closes))
  const finished = (draft: Draft | null): CrossedDate => (draft ? finish(draft) : noDate)
  const crossed = { opens: finished(opens), due: finished(due), closes: finished(closes) }
  return plannedItem(id, crossed, (opens?.flags ?? 0) | (due?.flags ?? 0) | (closes?.flags ?? 0))
}
