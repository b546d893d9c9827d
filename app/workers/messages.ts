import type { Meeting, TermCalendar } from '~~/core/calendar/schema'
import type { ZoneRules } from '~~/core/calendar/zone'
import type { OutlineNode } from '~~/core/course/outline'
import type { PlannedItem, Summary } from '~~/core/dates/plan'
import type { Category } from '~~/core/plan/compile'
import type { PlanDocument } from '~~/core/plan/document'
import type { PackedItems } from './packing'

export interface PlanSide {
  calendar: TermCalendar
  meetings: readonly Meeting[]
  nodes: readonly OutlineNode[]
  categories: readonly Category[]
}
/** What does not change while one plans is sent once, the document each time. */
export type ToDatesWorker =
  | { type: 'pair'; sources: PlanSide[]; target: PlanSide; zone: ZoneRules }
  | { type: 'plan'; round: number; document: PlanDocument }
/** Where every date lands; and, following it, what other methods would leave to do. */
export interface Ledger {
  items: PlannedItem[]
  summary: Summary
}
export interface Comparison {
  settles: Record<string, number>
  suggested: string
}
export type DatesAnswer =
  | { type: 'ledger'; round: number; summary: Summary; items: PackedItems }
  | { type: 'comparison'; round: number; comparison: Comparison }
