import type { StudentDataName } from './student-data'

/** How many rows of each kind were cleared at once, and how many enrolments ended. */
export type ClearedCounts = Partial<Record<StudentDataName | 'enrolments', number>>
