import { dayOf, minuteOf, wallOf, type Day } from '../calendar/day'
import type { Meeting } from '../calendar/schema'
import { meetingDays, type Term } from '../calendar/term'
import type { ZoneRules } from '../calendar/zone'
import {
  bit,
  flagsOf,
  newDraft,
  type Crossing,
  type Draft,
  type Flag,
  type Prepare,
  type Reason,
} from './draft'
import { methods } from './methods'
import type { Rule, RuleSet, SlotName } from './rule'
import { dateSteps, order, stepsAfterOrder, timeSteps } from './steps'

/** An item as the engine needs it: wall-clock date-times or null, the unit whose rule counts, and its kind. */
export interface DatedItem {
  readonly id: string
  readonly kind: string
  readonly unit: string | null
  readonly opens: string | null
  readonly due: string | null
  readonly closes: string | null
}

export type SlotValues = Record<SlotName, string | null>

/** How a slot came across, for counting on screen; the first that holds. `none`: it had a date and has none now. `empty`: it never had one. */
export type Outcome = 'held' | 'settle' | 'moved' | 'straight' | 'none' | 'empty'

/** One slot after crossing. Slots that came from the same date by the same rule share one of these: do not change it. */
export interface CrossedSlot {
  readonly at: string | null
  readonly flags: readonly Flag[]
  readonly reasons: readonly Reason[]
  readonly outcome: Outcome
}

export interface PlannedItem extends Readonly<SlotValues> {
  readonly id: string
  /** Flags of all slots united, alphabetical. */
  readonly flags: readonly Flag[]
  readonly slots: Readonly<Record<SlotName, CrossedSlot>>
}
/** All reasons of an item, slot by slot. */
export const reasonsOf = ({ slots }: PlannedItem): Reason[] => [
  ...slots.opens.reasons,
  ...slots.due.reasons,
  ...slots.closes.reasons,
]

/** Slots by how they came across; `dates` is all that have one. */
export interface Summary {
  dates: number
  straight: number
  moved: number
  held: number
  settle: number
  none: number
}

const maskOf = (...flags: Flag[]): number => flags.reduce((mask, flag) => mask | bit[flag], 0)
const settling = maskOf(
  'past-end',
  'before-start',
  'on-closure',
  'no-exam-period',
  'no-milestone',
  'no-meetings',
  'source-inverted',
  'dst-gap',
)
const moving = maskOf('closure-moved', 'swap-day', 'reordered')
function outcomeOf(had: boolean, has: boolean, flags: number): Outcome {
  if (!has) return had ? 'none' : 'empty'
  if (flags & bit['set-by-hand']) return 'held'
  return flags & settling ? 'settle' : flags & moving ? 'moved' : 'straight'
}

export interface PlanInput {
  source: Term
  target: Term
  sourceMeetings: readonly Meeting[]
  targetMeetings: readonly Meeting[]
  /** Wall-clock irregularities of the target's zone. */
  zone: ZoneRules
  rules: RuleSet
  items: readonly DatedItem[]
}

const own = <T>(record: Readonly<Record<string, T>>, key: string): T | undefined =>
  Object.hasOwn(record, key) ? record[key] : undefined
/** The rule that decides for an item: the nearest wins whole. */
export const ruleFor = (rules: RuleSet, item: Pick<DatedItem, 'id' | 'unit' | 'kind'>): Rule =>
  own(rules.itemRules, item.id) ??
  (item.unit === null ? undefined : own(rules.unitRules, item.unit)) ??
  own(rules.kindRules, item.kind) ??
  rules.rule

/**
 * Where every date of every item lands, in the order given, with flags and reasons.
 * Pure: the same input gives the same result. Input is taken to be checked (`readCase`, `planDocument`).
 */
export function planDates(input: PlanInput): { items: PlannedItem[]; summary: Summary } {
  const crossing = crossingOf(input)
  const prepared = new Map<Rule, (item: DatedItem) => PlannedItem>()
  const items = input.items.map((item): PlannedItem => {
    const rule = ruleFor(input.rules, item)
    if (rule.method === 'set') return byHand(item, rule)
    let cross = prepared.get(rule)
    if (!cross) prepared.set(rule, (cross = crosserOf(rule, crossing)))
    return cross(item)
  })
  return { items, summary: summarise(items) }
}

/** Everything about two terms and sections that does not change from item to item. */
export const crossingOf = (input: Omit<PlanInput, 'rules' | 'items'>): Crossing => ({
  source: input.source,
  target: input.target,
  sourceMeetings: input.sourceMeetings,
  targetMeetings: input.targetMeetings,
  sourceMeetingDays: meetingDays(input.source, input.sourceMeetings),
  targetMeetingDays: meetingDays(input.target, input.targetMeetings),
  zone: input.zone,
})

/** Counts slots by how they came across. */
export function summarise(items: readonly PlannedItem[]): Summary {
  const summary = { dates: 0, straight: 0, moved: 0, held: 0, settle: 0, none: 0, empty: 0 }
  for (const { slots } of items) {
    summary[slots.opens.outcome]++
    summary[slots.due.outcome]++
    summary[slots.closes.outcome]++
  }
  const { empty: _, ...counted } = summary
  return { ...counted, dates: counted.straight + counted.moved + counted.held + counted.settle }
}

const emptySlot: CrossedSlot = Object.freeze({
  at: null,
  flags: flagsOf(0),
  reasons: Object.freeze([]),
  outcome: 'empty',
})

function byHand(item: DatedItem, rule: Extract<Rule, { method: 'set' }>): PlannedItem {
  const flags = flagsOf(bit['set-by-hand'])
  const slot = (name: SlotName): CrossedSlot =>
    item[name] === null && rule[name] === null
      ? emptySlot
      : {
          at: rule[name],
          flags,
          reasons: [{ slot: name, code: 'set-by-hand', before: item[name], after: rule[name] }],
          outcome: outcomeOf(item[name] !== null, rule[name] !== null, bit['set-by-hand']),
        }
  return {
    id: item.id,
    opens: rule.opens,
    due: rule.due,
    closes: rule.closes,
    flags,
    slots: { opens: slot('opens'), due: slot('due'), closes: slot('closes') },
  }
}

/** A slot crossed on its own, before its neighbours were looked at: wall-clock minutes before and after, and the finished slot. */
interface Single {
  readonly was: number
  readonly is: number
  readonly mask: number
  readonly slot: CrossedSlot
}

/**
 * Crosses items under one rule. Until Order, what becomes of a slot depends on its date and time alone, and a course has far
 * fewer different dates than items: each is worked out once and shared, and its day once for all times of day. Items whose order must be repaired are worked out whole,
 * once for each set of dates.
 */
function crosserOf(
  rule: Exclude<Rule, { method: 'set' }>,
  crossing: Crossing,
): (item: DatedItem) => PlannedItem {
  // The list pairs each name with a method for its own rule; that pairing is lost on a union of rules.
  const place = (methods[rule.method] as Prepare<Rule>)(rule, crossing)
  const singles: Record<SlotName, Map<string, Single>> = {
    opens: new Map(),
    due: new Map(),
    closes: new Map(),
  }
  const repairs = new Map<string, PlannedItem>()

  const placed: Record<SlotName, Map<Day, Draft>> = { opens: new Map(), due: new Map(), closes: new Map() }

  const draftOf = (slot: SlotName, text: string | null): Draft | null => {
    if (text === null) return null
    const day = dayOf(text)
    const minute = minuteOf(text)
    let base = placed[slot].get(day)
    if (!base) {
      base = newDraft(slot, day, minute)
      place(base)
      if (base.dated) for (const step of dateSteps) step(base, rule, crossing)
      if (!base.dated) return base
      placed[slot].set(day, base)
    }
    const draft = { ...base, fromMinute: minute, minute, reasons: base.reasons.slice() }
    for (const step of timeSteps) step(draft, rule, crossing)
    return draft
  }
  const singleOf = (slot: SlotName, text: string): Single => {
    const known = singles[slot].get(text)
    if (known) return known
    const draft = draftOf(slot, text)!
    const is = draft.day * 1440 + draft.minute
    const finished = finishSlot(draft, rule, crossing)
    const single = { was: draft.from * 1440 + draft.fromMinute, is, mask: draft.flags, slot: finished }
    singles[slot].set(text, single)
    return single
  }
  return item => {
    const opens = item.opens === null ? null : singleOf('opens', item.opens)
    const due = item.due === null ? null : singleOf('due', item.due)
    const closes = item.closes === null ? null : singleOf('closes', item.closes)
    const inOrder = due?.slot.at ? fits(opens, due) && fits(due, closes) : fits(opens, closes)
    if (!inOrder) {
      const key = `${item.opens} ${item.due} ${item.closes}`
      let repaired = repairs.get(key)
      if (!repaired)
        repairs.set(
          key,
          (repaired = finishItem(
            item.id,
            draftOf('opens', item.opens),
            draftOf('due', item.due),
            draftOf('closes', item.closes),
            rule,
            crossing,
          )),
        )
      return { ...repaired, id: item.id }
    }
    const slots = {
      opens: opens?.slot ?? emptySlot,
      due: due?.slot ?? emptySlot,
      closes: closes?.slot ?? emptySlot,
    }
    const mask = (opens?.mask ?? 0) | (due?.mask ?? 0) | (closes?.mask ?? 0)
    return {
      id: item.id,
      opens: slots.opens.at,
      due: slots.due.at,
      closes: slots.closes.at,
      flags: flagsOf(mask),
      slots,
    }
  }
}

/** Whether two neighbouring slots need nothing from Order: they were in order and still are, or one has no date now. */
const fits = (earlier: Single | null, later: Single | null): boolean =>
  !earlier?.slot.at || !later?.slot.at || (earlier.was <= later.was && earlier.is <= later.is)

/** What follows Order, and the slot as it is kept. */
function finishSlot(draft: Draft, rule: Rule, crossing: Crossing): CrossedSlot {
  if (draft.dated) for (const step of stepsAfterOrder) step(draft, rule, crossing)
  return {
    at: draft.dated ? wallOf(draft.day, draft.minute) : null,
    flags: flagsOf(draft.flags),
    reasons: draft.reasons,
    outcome: outcomeOf(true, draft.dated, draft.flags),
  }
}

/** Order, what follows it, and the item put together. */
export function finishItem(
  id: string,
  opens: Draft | null,
  due: Draft | null,
  closes: Draft | null,
  rule: Rule,
  crossing: Crossing,
): PlannedItem {
  const dated = (draft: Draft | null): Draft | null => (draft?.dated ? draft : null)
  order(dated(opens), dated(due), dated(closes))
  const finish = (draft: Draft | null): CrossedSlot => (draft ? finishSlot(draft, rule, crossing) : emptySlot)
  const slots = { opens: finish(opens), due: finish(due), closes: finish(closes) }
  const mask = (draft: Draft | null): number => draft?.flags ?? 0
  return {
    id,
    opens: slots.opens.at,
    due: slots.due.at,
    closes: slots.closes.at,
    flags: flagsOf(mask(opens) | mask(due) | mask(closes)),
    slots,
  }
}
