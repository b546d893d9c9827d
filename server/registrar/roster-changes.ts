import type { rosterChangeKinds } from '../../shared/api/registrar'

export type ChangeKind = (typeof rosterChangeKinds)[number]
/** What a registrar's list changed in one course. `count`: people, or 1. `detail`: names, or before and after, in words. */
export interface RosterChange {
  courseId: string
  kind: ChangeKind
  count: number
  detail: { names?: string[]; before?: string; after?: string }
}
