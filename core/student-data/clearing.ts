import { z } from 'zod'
import { studentDataNames, type StudentDataName } from './student-data'

/** How many rows of each kind were cleared at once, and how many enrolments ended. */
export type ClearedCounts = Partial<Record<StudentDataName | 'enrolments', number>>

export const clearChoices = { clear: 'cleared', keep: 'stays' } as const
export type ClearChoice = keyof typeof clearChoices
const choices = z.enum(Object.keys(clearChoices) as [ClearChoice, ...ClearChoice[]])

/** What is decided of student data that stands in the course that is written. What is not named: as recommended. */
export const clearingDecisions = z.object({
  kinds: z
    .partialRecord(z.enum(studentDataNames as [StudentDataName, ...StudentDataName[]]), choices)
    .default({}),
  /** Items of which the rows of a kind stay although it is cleared. */
  except: z
    .partialRecord(z.enum(studentDataNames as [StudentDataName, ...StudentDataName[]]), z.array(z.uuid()))
    .default({}),
  /** Whether what teaching staff wrote goes with what students wrote. */
  staff: choices.default('keep'),
  /** People who were added by hand, by enrolment: whether they are taken off, with all that is known of them. */
  people: z.record(z.uuid(), choices).default({}),
  /** Last term's people of the registrar in a course that is rolled in place: taken off now, or by the office's sweep. */
  roster: choices.default('keep'),
})
export type ClearingDecisions = z.output<typeof clearingDecisions>
export const nothingCleared: ClearingDecisions = {
  kinds: {},
  except: {},
  staff: 'keep',
  people: {},
  roster: 'keep',
}

/**
 * What happens to a kind unless somebody says otherwise: rows of last term's students go. (Those of students whom the registrar lists in a
 * shell are this term's and are not among what may be cleared.)
 */
export const clearChoiceOf = ({ kinds }: ClearingDecisions, kind: StudentDataName): ClearChoice =>
  kinds[kind] ?? 'clear'

/** How long what was cleared is kept aside, in days, unless the office sets another time. */
export const keptDays = { least: 7, most: 400, usual: 90 } as const

/** Rows of one kind about one item, of one enrolment in the course that is written. */
export interface HeldRow {
  readonly kind: StudentDataName
  readonly item: string | null
  readonly enrolment: string
  readonly isStudent: boolean
  readonly rows: number
}
/** A student who stands in that course and may be taken off it. */
export interface StandingStudent {
  readonly enrolment: string
  readonly name: string
  readonly origin: 'registrar' | 'hand'
}
/** How many rows of a kind go and stay: those of students, and those of teaching staff. */
export interface KindCounts {
  readonly go: number
  readonly stay: number
  readonly staffGo: number
  readonly staffStay: number
}
export interface PlannedClearing {
  /** Enrolments that end, with all that hangs off them. */
  readonly off: readonly string[]
  readonly kinds: ReadonlyMap<StudentDataName, KindCounts>
  readonly rows: number
  /** Whether a row goes. */
  readonly goes: (row: HeldRow) => boolean
}
/** What some decisions clear, of what is held. */
export function plannedClearing(
  held: readonly HeldRow[],
  standing: readonly StandingStudent[],
  decisions: ClearingDecisions,
): PlannedClearing {
  const isOff = ({ origin, enrolment }: StandingStudent): boolean =>
    (decisions.people[enrolment] ?? (origin === 'registrar' ? decisions.roster : 'keep')) === 'clear'
  const off = standing.filter(isOff).map(({ enrolment }) => enrolment)
  const offSet = new Set(off)
  const goes = ({ kind, item, enrolment, isStudent }: HeldRow): boolean => {
    if (offSet.has(enrolment)) return true
    if (clearChoiceOf(decisions, kind) === 'keep') return false
    if (item !== null && decisions.except[kind]?.includes(item)) return false
    return isStudent || decisions.staff === 'clear'
  }
  const kinds = new Map<StudentDataName, KindCounts>()
  let rows = 0
  for (const row of held) {
    const was = kinds.get(row.kind) ?? { go: 0, stay: 0, staffGo: 0, staffStay: 0 }
    const gone = goes(row)
    const name = row.isStudent ? (gone ? 'go' : 'stay') : gone ? 'staffGo' : 'staffStay'
    kinds.set(row.kind, { ...was, [name]: was[name] + row.rows })
    if (gone) rows += row.rows
  }
  return { off, kinds, rows, goes }
}
