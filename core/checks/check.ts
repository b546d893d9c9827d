import type { Day } from '../calendar/day'
import type { Meeting } from '../calendar/schema'
import type { Term } from '../calendar/term'
import type { CourseMode } from '../carry/mode'
import type { Need } from '../carry/needs'
import type { OutlineNode } from '../course/outline'
import type { Crowding } from '../dates/crowding'
import type { Finding, Found, Grave } from './finding'

/** What may be known of a course beside its outline: a check whose subject is not known is left out, as neither fine nor wrong. */
export interface Knowledge {
  /** The calendar of the course, and the days on which students may enter; null ends are open. */
  readonly calendar: {
    readonly term: Term
    readonly meetings: readonly Meeting[]
    readonly window: { readonly from: Day | null; readonly to: Day | null }
    /** Kinds of which nearly all items are due on meeting days. */
    readonly kindsOnMeetings: ReadonlySet<string>
    readonly isMeetingDay: (day: Day) => boolean
  }
  /** How much may be due at once. */
  readonly crowding: Crowding & Pick<Term, 'weekStart'>
  /** Items that somebody held by hand. */
  readonly held: ReadonlySet<string>
  /** Graded items that stand in no category, where the course has any. */
  readonly uncategorised: readonly Pick<OutlineNode, 'lineage'>[]
  /** What its things need, what of that does not stand there, and what each is called. */
  readonly needs: {
    readonly all: readonly Need[]
    readonly comes: ReadonlySet<string>
    readonly isThere: (lineage: string) => boolean
    readonly titleOf: (lineage: string) => string | null
  }
  /** Texts by the hash of their body, addresses by lineage, and the years that its terms touch. */
  readonly content: {
    readonly texts: ReadonlyMap<string, string>
    readonly addresses: ReadonlyMap<string, string>
    readonly years: ReadonlySet<number>
  }
  /** How many students it had, and on which items any of them worked. */
  readonly worked: { readonly students: number; readonly on: ReadonlySet<string> }
  /** By body: the names of earlier terms in which students were given it. */
  readonly usedIn: ReadonlyMap<string, readonly string[]>
  /** How it was taught, and how it will be. */
  readonly modes: { readonly from: CourseMode; readonly into: CourseMode }
}
export interface Course {
  /** Units and items in course order, with their dates as they stand. */
  readonly nodes: readonly OutlineNode[]
}
/** A course as it is looked at, with what is known of it. */
export type CheckedCourse = Course & Partial<Knowledge>

/** One way of looking at a course. */
export interface Check {
  /** Over all that it finds: `Here twice`. */
  readonly title: string
  /** In a word or two, for a row. */
  readonly short: string
  readonly grave: Grave
  /** What mends it, as one would tell it. */
  readonly mends: string
  /** What it must know; without that it is left out. */
  readonly knows: readonly (keyof Knowledge)[]
  readonly find: (course: CheckedCourse) => Found[]
}
interface Definition<K extends keyof Knowledge> extends Omit<Check, 'knows' | 'find'> {
  readonly knows: readonly K[]
  readonly find: (course: Course & Pick<Knowledge, K>) => Found[]
}
/** A check is asked only where all that it must know is known. */
export const check = <K extends keyof Knowledge = never>(definition: Definition<K>): Check =>
  definition as unknown as Check

const isKnown = ({ knows }: Check, course: CheckedCourse): boolean =>
  knows.every(name => course[name] !== undefined)
/** What some checks find in a course, one check after another. */
export const checkCourse = (checks: Readonly<Record<string, Check>>, course: CheckedCourse): Finding[] =>
  Object.entries(checks).flatMap(([key, each]) =>
    isKnown(each, course)
      ? each
          .find(course)
          .map(({ lineage, field = null, sentence, grave = each.grave, short = each.short }) => ({
            check: key,
            short,
            grave,
            where: { lineage, field },
            sentence,
            mends: each.mends,
          }))
      : [],
  )
/** Items of a course that are still there. */
export const standingItems = ({ nodes }: Course): OutlineNode[] =>
  nodes.filter(node => node.type === 'item' && node.state !== 'deleted')
