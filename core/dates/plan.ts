import { dayOf, minuteOf, wallOf } from '../calendar/day'
import type { Meeting } from '../calendar/schema'
import { meetingDays, type Term } from '../calendar/term'
import type { ZoneRules } from '../calendar/zone'
import { bit, flagsOf, newDraft, type Crossing, type Draft, type Flag, type Place, type Prepare, type Reason } from './draft'
import { methods } from './methods'
import { slotNames, type Rule, type RuleSet, type SlotName } from './rule'
import { order, stepsAfterOrder, stepsBeforeOrder } from './steps'

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
export interface PlannedItem extends SlotValues {
  id: string
  /** Flags of all slots united, alphabetical. */
  flags: readonly Flag[]
  /** Flags of each slot. */
  slotFlags: Record<SlotName, readonly Flag[]>
  reasons: Reason[]
}

/** How a slot came across, for counting on screen; the first that holds. `none`: it had a date and has none now. `empty`: it never had one. */
export type Outcome = 'held' | 'settle' | 'moved' | 'straight' | 'none' | 'empty'
export interface Summary { dates: number, straight: number, moved: number, held: number, settle: number, none: number }

const settling: readonly Flag[] = ['past-end', 'before-start', 'on-closure', 'no-exam-period', 'no-milestone', 'no-meetings', 'source-inverted', 'dst-gap']
const moving: readonly Flag[] = ['closure-moved', 'swap-day', 'reordered']

/** Outcome of one slot from its source date, its new date and its flags. */
export function outcomeOf(was: string | null, is: string | null, flags: readonly Flag[]): Outcome {
  if (flags.includes('set-by-hand')) return is === null ? (was === null ? 'empty' : 'none') : 'held'
  if (is === null) return was === null ? 'empty' : 'none'
  if (flags.some(flag => settling.includes(flag))) return 'settle'
  return flags.some(flag => moving.includes(flag)) ? 'moved' : 'straight'
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

const own = <T>(record: Readonly<Record<string, T>>, key: string): T | undefined => Object.hasOwn(record, key) ? record[key] : undefined
/** The rule that decides for an item: the nearest wins whole. */
export const ruleFor = (rules: RuleSet, item: Pick<DatedItem, 'id' | 'unit' | 'kind'>): Rule =>
  own(rules.itemRules, item.id) ?? (item.unit === null ? undefined : own(rules.unitRules, item.unit)) ?? own(rules.kindRules, item.kind) ?? rules.rule

/**
 * Where every date of every item lands, in the order given, with flags and reasons.
 * Pure: the same input gives the same result. Input is taken to be checked (`termCalendar`, `calendarFaults`, `ruleSetSchema`).
 */
export function planDates(input: PlanInput): { items: PlannedItem[], summary: Summary } {
  const crossing: Crossing = {
    source: input.source,
    target: input.target,
    sourceMeetings: input.sourceMeetings,
    targetMeetings: input.targetMeetings,
    sourceMeetingDays: meetingDays(input.source, input.sourceMeetings),
    targetMeetingDays: meetingDays(input.target, input.targetMeetings),
    zone: input.zone,
  }
  const prepared = new Map<Rule, Place>()
  const placeBy = (rule: Exclude<Rule, { method: 'set' }>): Place => {
    let place = prepared.get(rule)
    // The list pairs each name with a method for its own rule; that pairing is lost on a union of rules.
    if (!place) prepared.set(rule, place = (methods[rule.method] as Prepare<Rule>)(rule, crossing))
    return place
  }
  const items = input.items.map((item) => {
    const rule = ruleFor(input.rules, item)
    return rule.method === 'set' ? byHand(item, rule) : crossItem(item, rule, placeBy(rule), crossing)
  })
  return { items, summary: summarise(items.map((is, at) => ({ was: input.items[at]!, is }))) }
}

/** Counts slots by how they came across. */
export function summarise(pairs: readonly { was: Readonly<SlotValues>, is: PlannedItem }[]): Summary {
  const summary: Summary = { dates: 0, straight: 0, moved: 0, held: 0, settle: 0, none: 0 }
  for (const { was, is } of pairs) {
    for (const slot of slotNames) {
      const outcome = outcomeOf(was[slot], is[slot], is.slotFlags[slot])
      if (outcome === 'empty') continue
      summary[outcome]++
      if (outcome !== 'none') summary.dates++
    }
  }
  return summary
}

function byHand(item: DatedItem, rule: Extract<Rule, { method: 'set' }>): PlannedItem {
  const flags = flagsOf(bit['set-by-hand'])
  return {
    id: item.id,
    opens: rule.opens,
    due: rule.due,
    closes: rule.closes,
    flags,
    slotFlags: { opens: flags, due: flags, closes: flags },
    reasons: slotNames.filter(slot => item[slot] !== null || rule[slot] !== null)
      .map(slot => ({ slot, code: 'set-by-hand', before: item[slot], after: rule[slot] })),
  }
}

function crossItem(item: DatedItem, rule: Rule, place: Place, crossing: Crossing): PlannedItem {
  const start = (slot: SlotName): Draft | null => {
    const text = item[slot]
    if (text === null) return null
    const draft = newDraft(slot, dayOf(text), minuteOf(text))
    place(draft)
    if (draft.dated) for (const step of stepsBeforeOrder) step(draft, rule, crossing)
    return draft
  }
  const opens = start('opens')
  const due = start('due')
  const closes = start('closes')
  const dated = (draft: Draft | null): Draft | null => draft?.dated ? draft : null
  order(dated(opens), dated(due), dated(closes))
  const finish = (draft: Draft | null): string | null => {
    if (!draft?.dated) return null
    for (const step of stepsAfterOrder) step(draft, rule, crossing)
    return wallOf(draft.day, draft.minute)
  }
  const values = { opens: finish(opens), due: finish(due), closes: finish(closes) }
  const mask = (draft: Draft | null): number => draft?.flags ?? 0
  return {
    id: item.id,
    ...values,
    flags: flagsOf(mask(opens) | mask(due) | mask(closes)),
    slotFlags: { opens: flagsOf(mask(opens)), due: flagsOf(mask(due)), closes: flagsOf(mask(closes)) },
    reasons: [...opens?.reasons ?? [], ...due?.reasons ?? [], ...closes?.reasons ?? []],
  }
}
