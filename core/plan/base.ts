import type { Meeting, TermCalendar } from '../calendar/schema'
import { compileTerm, type Term } from '../calendar/term'
import type { CarriedBase } from '../carry/base'
import type { Furnishing } from '../course/furniture'
import type { OutlineNode } from '../course/outline'
import type { Grace } from '../grading/grace'
import type { CategoryLine, GradeRules } from '../grading/rules'
import type { Windows } from '../pairing/windows'
import type { Trace, UnseenFile } from '../student-data/traces/trace'
import { present } from '../present'
import type { PlanDocument } from './document'

interface Named {
  readonly lineage: string
  readonly identifier: string | null
  readonly title: string
}
/** What a course holds, as a plan computes with it. */
export interface CarrySide {
  nodes: readonly OutlineNode[]
  categories: readonly CategoryLine[]
  grading: GradeRules | null
  /** How often students may hand in later without asking; null where nobody has said. */
  grace: Grace | null
  rubrics: readonly Named[]
  groups: readonly Named[]
  furniture: readonly Furnishing[]
}
/** A course as a plan computes with it. */
export interface PlanSide extends CarrySide {
  term: Term
  meetings: readonly Meeting[]
  /** When students may enrol and enter, as it stands in the course. */
  windows: Windows
}
/** What a plan is computed from, but for the zone data of its target. */
export interface PlanBase {
  document: PlanDocument
  source: PlanSide
  /** Further sources, in their order; what an earlier one holds already does not come from a later one. */
  more: readonly PlanSide[]
  /** Courses that are no sources, from which single items are taken; by their ids. */
  found: readonly (PlanSide & { readonly id: string })[]
  target: PlanSide
  /** What was carried into the shell before, and what somebody deleted there: that stays away, with all below it in the source. */
  before: { readonly bases: readonly CarriedBase[]; readonly deleted: readonly string[] }
  /** Traces of students that were found in what the plan brings from. */
  traces: readonly Trace[]
  /** Files in what the plan brings from that could not be looked into. */
  unseen: readonly UnseenFile[]
  /** Students whom somebody added by hand to the course that is written, by enrolment: whether they stay is a person's to say. */
  byHand: readonly string[]
  /** A course that is rolled in place keeps all it holds: nothing stays behind. */
  inPlace: boolean
}
/** What a plan is put together from: its courses in their order, and what is known of the one that is written. */
export interface BaseParts extends Pick<PlanBase, 'document' | 'found' | 'target' | 'before' | 'byHand'> {
  readonly sources: readonly PlanSide[]
  /** What was found of students in the texts; null where nobody has looked, or it is no matter. */
  readonly searched: Pick<PlanBase, 'traces' | 'unseen'> | null
  readonly mode: 'roll' | 'in-place'
}
/** What a plan is computed from: server, page and run put it together here. */
export function planBase({ sources: [source, ...more], searched, mode, ...parts }: BaseParts): PlanBase {
  return {
    ...parts,
    source: present(source),
    more,
    traces: searched?.traces ?? [],
    unseen: searched?.unseen ?? [],
    inPlace: mode === 'in-place',
  }
}
/** A course as it is told to a page, as a plan computes with it. */
export const planSide = <S extends CarrySide>({
  calendar,
  course: { meetings, windows },
  ...holds
}: S & {
  readonly calendar: TermCalendar
  readonly course: Pick<PlanSide, 'meetings' | 'windows'>
}): PlanSide => ({ ...(holds as unknown as CarrySide), term: compileTerm(calendar), meetings, windows })

export const sourcesOf = ({ source, more }: PlanBase): readonly PlanSide[] => [source, ...more]
