import type { TermCalendar } from '~~/core/calendar/schema'
import type { Years, ZoneRules } from '~~/core/calendar/zone'
import type { Note } from '~~/core/dates/notes'
import type { PlannedItem, Summary } from '~~/core/dates/plan'
import type { Fits } from '~~/core/dates/fit'
import type { RuleScope } from '~~/core/dates/levels'
import type { MethodName } from '~~/core/dates/rule'
import type { PlanBase, PlanSide } from '~~/core/plan/compile'
import type { PlanDocument } from '~~/core/plan/document'
import type { PackedItems } from './packing'

/** A course as it crosses to the worker: its term is compiled there. */
export interface CourseSide extends Omit<PlanSide, 'term'> {
  calendar: TermCalendar
}
/** What does not change while one plans is sent once, the document each time; zone data again where a rule reaches further. */
export type ToDatesWorker =
  | {
      type: 'pair'
      source: CourseSide
      more: CourseSide[]
      found: (CourseSide & { id: string })[]
      target: CourseSide
      before: PlanBase['before']
      inPlace: boolean
      zone: ZoneRules
    }
  | { type: 'zone'; zone: ZoneRules }
  | { type: 'plan'; round: number; document: PlanDocument; scope: RuleScope; over: MethodName | null }

/** Where every date lands; and, following it, what other methods would leave to do. */
export interface Ledger {
  items: PlannedItem[]
  summary: Summary
  /** What is to be looked at, by item. */
  notes: ReadonlyMap<string, readonly Note[]>
}
/** What each method would leave to settle of the dates for which a rule for `scope` decides, and how many items it would put elsewhere. */
export interface Comparison {
  scope: RuleScope
  told: Partial<Record<MethodName, { readonly settles: number; readonly moves: number }>>
  suggested: MethodName
  because: Fits['because']
}
/** Where another method would put everything, with what it would leave to settle. */
export interface LaidOver {
  method: MethodName
  summary: Summary
  planned: ReadonlyMap<string, PlannedItem>
}
export type DatesAnswer =
  | { type: 'ledger'; round: number; summary: Summary; items: PackedItems; notes: Ledger['notes'] }
  | { type: 'comparison'; round: number; comparison: Comparison }
  | { type: 'laid-over'; round: number; method: MethodName; summary: Summary; items: PackedItems }
/** A rule reaches years of which the worker knows no zone data: nothing is computed until it has them. */
export interface ZoneWanted {
  type: 'zone-wanted'
  round: number
  timeZone: string
  years: Years
}
export type FromDatesWorker = DatesAnswer | ZoneWanted
