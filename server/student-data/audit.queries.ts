import type { Knex } from 'knex'
import { studentDataNames } from '../../core/student-data/student-data'
import { selectRows } from '../db/rows'

/**
 * Every table that says something about a person, and about whom it can be. `student-data`: what students did or were given; `roster`: who is
 * enrolled; `kept-aside`: what was cleared; `course`: what somebody did with one course; `sign-in`: of people who sign in, which no student does.
 * A table with a person or an enrolment in it that is not here fails a test (`schema.test`).
 */
export const tablesAboutPeople = {
  ...(Object.fromEntries(studentDataNames.map(name => [name, 'student-data'])) as Record<
    (typeof studentDataNames)[number],
    'student-data'
  >),
  enrolments: 'roster',
  kept_aside: 'kept-aside',
  course_preferences: 'course',
  course_edits: 'course',
  clearings: 'course',
  shares: 'course',
  uploads: 'sign-in',
  duties: 'sign-in',
  batches: 'sign-in',
  fetches: 'sign-in',
  habits: 'sign-in',
  invitations: 'sign-in',
  jobs: 'sign-in',
  known_browsers: 'sign-in',
  log: 'sign-in',
  office_rules: 'sign-in',
  plans: 'sign-in',
  requests: 'sign-in',
  runs: 'sign-in',
  sessions: 'sign-in',
  share_uses: 'sign-in',
  template_versions: 'sign-in',
  templates: 'sign-in',
  undos: 'sign-in',
} as const
type Table = keyof typeof tablesAboutPeople
const tablesOf = (sort: (typeof tablesAboutPeople)[Table]): Table[] =>
  (Object.keys(tablesAboutPeople) as Table[]).filter(table => tablesAboutPeople[table] === sort)

/** Last term's students who are no staff of a course. */
const lastTerm = `SELECT s.person_id FROM enrolments s WHERE s.course_id IN (:sources) AND s.role = 'student'
  AND s.person_id NOT IN (SELECT t.person_id FROM enrolments t WHERE t.course_id = :courseId AND t.role <> 'student')`
const notListed =
  "e.origin = 'hand' OR e.source_id IS NULL OR e.dropped_at IS NOT NULL OR e.missing_since IS NOT NULL"
/**
 * How many rows in each table are about last term's students in a course, but for those whom the registrar lists there (in a
 * course that is rolled in place all of them are last term's). Tables of people who
 * sign in are asked whether one of them does.
 */
export async function rowsOfLastTerm(
  db: Knex,
  courseId: string,
  sources: readonly string[],
  isInPlace: boolean,
): Promise<Map<Table, number>> {
  const count = (table: Table, where: string): string =>
    `SELECT '${table}' AS name, COUNT(*) AS n FROM ${table} x WHERE ${where}`
  // Looked up once: within each of the questions the database would plan it anew.
  const standing = await selectRows<{ id: string }>(
    db,
    `SELECT e.id FROM enrolments e WHERE e.course_id = :courseId AND e.role = 'student'
       AND e.person_id IN (${lastTerm}) AND (${isInPlace ? 'TRUE' : notListed})`,
    { courseId, sources },
  )
  const counts = [
    count('enrolments', 'x.id IN (:standing)'),
    ...tablesOf('student-data').map(table => count(table, 'x.enrolment_id IN (:standing)')),
    ...tablesOf('course').map(table =>
      count(table, `x.course_id = :courseId AND x.person_id IN (${lastTerm})`),
    ),
  ]
  const rows = await selectRows<{ name: Table; n: number }>(db, counts.join(' UNION ALL '), {
    courseId,
    sources,
    standing: ['', ...standing.map(({ id }) => id)],
  })
  return new Map(rows.map(({ name, n }) => [name, Number(n)]))
}
