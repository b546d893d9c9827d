import type { Knex } from 'knex'
import type { Candidate } from '../../core/pairing/suggest'
import { now, stampOf } from '../clock'
import { inBatches } from '../db/rows'
import { coursesOf } from '../courses/access.queries'
import { personName } from '../courses/courses.queries'
import type { Person } from '../people/people.queries'

export type Origin = 'registrar' | 'hand' | 'awaited' | 'template' | 'snapshot'
export interface IndexRow {
  id: string
  code: string
  section: string
  title: string
  label: string | null
  origin: Origin
  termId: string
  people: string
  role: string | null
  pinned: boolean
  hidden: boolean
  missing: boolean
}

/** Who works in some courses. Of many courses all staff are read in one go, by an index that students are not in the way of. */
async function staffRows(
  db: Knex,
  courseIds: readonly string[],
  roles: string[],
): Promise<{ course_id: string; person_id: string; role: string; is_primary: number }[]> {
  const query = db('enrolments')
    .whereIn('role', roles)
    .whereNull('dropped_at')
    .select('course_id', 'person_id', 'role', 'is_primary')
  if (courseIds.length <= 500) return query.whereIn('course_id', courseIds)
  const wanted = new Set(courseIds)
  return (await query).filter(row => wanted.has(row.course_id))
}
/** Those of some courses that hold an item. Asking of each would take longer than reading the index through. */
async function filledOf(db: Knex, courseIds: readonly string[]): Promise<Set<string>> {
  const query = db('items').distinct('course_id')
  return new Set(
    (await (courseIds.length <= 500 ? query.whereIn('course_id', courseIds) : query)).map(
      row => row.course_id as string,
    ),
  )
}
/** `I. Marchetti` of some people. */
async function namesOf(db: Knex, ids: readonly string[]): Promise<Map<string, string>> {
  const names = new Map<string, string>()
  for (const batch of inBatches([...new Set(ids)], 2000))
    for (const row of await db('people').whereIn('id', batch).select('id', 'given_name', 'family_name'))
      names.set(row.id, personName(row))
  return names
}

/** Every course that a person has to do with, a short row each: few questions to the database, however many there are. */
export async function indexOfCourses(db: Knex, person: Person): Promise<IndexRow[]> {
  const rows = await (
    await coursesOf(db, person)
  )()
    .leftJoin('course_marks', (join: Knex.JoinClause) =>
      join.on('course_marks.course_id', 'courses.id').andOnVal('course_marks.person_id', person.id),
    )
    .whereNot({ origin: 'awaited' })
    .select(
      'courses.id',
      'code',
      'section',
      'title',
      'course_marks.label',
      'origin',
      'term_id',
      'pinned',
      'hidden',
      'courses.missing_since',
    )
  const staff = new Map<string, { names: string[]; role: string | null }>()
  const found = await staffRows(
    db,
    rows.map((row: { id: string }) => row.id),
    ['instructor', 'assistant'],
  )
  const names = await namesOf(
    db,
    found.filter(row => row.role === 'instructor').map(row => row.person_id),
  )
  for (const row of found) {
    const entry = staff.get(row.course_id) ?? { names: [], role: null }
    if (row.role === 'instructor') entry.names[row.is_primary ? 'unshift' : 'push'](names.get(row.person_id)!)
    if (row.person_id === person.id && entry.role !== 'instructor') entry.role = row.role
    staff.set(row.course_id, entry)
  }
  return rows.map((row: Record<string, unknown>) => ({
    id: row.id as string,
    code: row.code as string,
    section: row.section as string,
    title: row.title as string,
    label: row.label as string | null,
    origin: row.origin as Origin,
    termId: row.term_id as string,
    people: staff.get(row.id as string)?.names.join(', ') ?? '',
    role: staff.get(row.id as string)?.role ?? null,
    pinned: Boolean(row.pinned),
    hidden: Boolean(row.hidden),
    missing: row.missing_since !== null,
  }))
}

/**
 * Courses that a person may roll from, as pairing looks at them; with `also`, those too (shells that are paired). A shell of a term that has not
 * begun and was never filled is no source, whatever a template has put there: its items count as none.
 */
export async function candidatesOf(
  db: Knex,
  person: Person,
  also: readonly string[],
  today: string,
): Promise<Map<string, Candidate>> {
  const rows = await (
    await coursesOf(db, person, { shared: true })
  )()
    .join('terms', 'terms.id', 'courses.term_id')
    .where((wanted: Knex.QueryBuilder) =>
      wanted.whereIn('origin', ['registrar', 'hand', 'snapshot']).orWhereIn('courses.id', [...also]),
    )
    .select('courses.id', 'courses.code', 'section', 'title', 'classes_from')
  const holding = await filledOf(
    db,
    rows.map((row: { id: string }) => row.id),
  )
  const teachers = new Map<string, string[]>()
  for (const row of await staffRows(
    db,
    rows.map((row: { id: string }) => row.id),
    ['instructor'],
  ))
    teachers.set(row.course_id, [...(teachers.get(row.course_id) ?? []), row.person_id])
  const before = new Map(
    (await db('runs').orderBy('finished_at').select('source_course_id', 'target_course_id')).map(row => [
      row.target_course_id,
      row.source_course_id,
    ]),
  )
  return new Map(
    rows.map((row: Record<string, string | number>): [string, Candidate] => [
      row.id as string,
      {
        id: row.id as string,
        code: row.code as string,
        section: row.section as string,
        title: row.title as string,
        termStarts: row.classes_from as string,
        instructors: teachers.get(row.id as string) ?? [],
        items: Number(
          holding.has(row.id as string) &&
            ((row.classes_from as string) <= today || before.has(row.id as string)),
        ),
        filledFrom: before.get(row.id as string) ?? null,
      },
    ]),
  )
}

/** Sets what a person has put on a course for themselves alone. */
export async function markCourse(
  db: Knex,
  personId: string,
  courseId: string,
  mark: { pinned?: boolean; hidden?: boolean; label?: string | null },
): Promise<void> {
  await db('course_marks')
    .insert({ person_id: personId, course_id: courseId, ...mark })
    .onConflict(['person_id', 'course_id'])
    .merge(Object.keys(mark))
}
export async function marksOf(
  db: Knex,
  personId: string,
  courseIds: readonly string[],
): Promise<Map<string, { pinned: boolean; hidden: boolean; label: string | null }>> {
  return new Map(
    (await db('course_marks').where({ person_id: personId }).whereIn('course_id', courseIds)).map(row => [
      row.course_id,
      { pinned: Boolean(row.pinned), hidden: Boolean(row.hidden), label: row.label },
    ]),
  )
}

/** Courses of a term, whoever they belong to, with what a person is to each: for saying why a shell is not there. */
export async function coursesOfTerm(
  db: Knex,
  termId: string,
  personId: string,
): Promise<
  {
    id: string
    code: string
    section: string
    title: string
    missing: boolean
    role: string | null
    primary: boolean
    hidden: boolean
  }[]
> {
  const rows = await db('courses')
    .where({ term_id: termId, 'courses.origin': 'registrar' })
    .leftJoin('enrolments', join =>
      join
        .on('enrolments.course_id', 'courses.id')
        .andOnVal('enrolments.person_id', personId)
        .andOnIn('enrolments.role', ['instructor', 'assistant'])
        .andOnNull('enrolments.dropped_at'),
    )
    .leftJoin('course_marks', join =>
      join.on('course_marks.course_id', 'courses.id').andOnVal('course_marks.person_id', personId),
    )
    .select('courses.id', 'code', 'section', 'title', 'courses.missing_since', 'role', 'is_primary', 'hidden')
  return rows.map(row => ({
    id: row.id,
    code: row.code,
    section: row.section,
    title: row.title,
    missing: row.missing_since !== null,
    role: row.role,
    primary: Boolean(row.is_primary),
    hidden: Boolean(row.hidden),
  }))
}

/** What the content of courses takes: bytes of bodies, each counted once, and how many of them no other course shares; rows by their mean length. */
export async function storageOf(
  db: Knex,
  courseIds: readonly string[],
): Promise<{ bodies: number; own: number; rows: number; rowBytes: number }> {
  const [bodies] = (await db.raw(
    `SELECT COALESCE(SUM(size), 0) AS bodies, COALESCE(SUM(IF(elsewhere, 0, size)), 0) AS own FROM (SELECT b.hash, b.size, EXISTS (SELECT 1 FROM items o WHERE o.body_hash = b.hash AND o.course_id NOT IN (:ids)) AS elsewhere
    FROM bodies b WHERE b.hash IN (SELECT body_hash FROM items WHERE course_id IN (:ids))) each_once`,
    { ids: [...courseIds] },
  )) as [{ bodies: string; own: string }[]]
  let rows = 0
  let rowBytes = 0
  for (const table of ['units', 'items', 'slots', 'grade_categories']) {
    const count = Number(
      (await db(table).whereIn('course_id', courseIds).count({ count: '*' }).first())!.count,
    )
    const [length] = (await db.raw(
      'SELECT avg_row_length AS mean FROM information_schema.tables WHERE table_schema = DATABASE() AND table_name = ?',
      [table],
    )) as [{ mean: string | null }[]]
    rows += count
    rowBytes += count * Number(length[0]?.mean ?? 0)
  }
  return { bodies: Number(bodies[0]!.bodies), own: Number(bodies[0]!.own), rows, rowBytes }
}

// Who is writing into a shell. Leases run on the database's clock.
export async function beginWriting(
  db: Knex,
  courseId: string,
  personId: string,
  planId: string,
): Promise<boolean> {
  await db('writing').where('lease_until', '<', db.raw('UTC_TIMESTAMP(3)')).delete()
  const [result] = (await db.raw(
    'INSERT IGNORE INTO writing (course_id, person_id, plan_id, since, lease_until) VALUES (?, ?, ?, ?, DATE_ADD(UTC_TIMESTAMP(3), INTERVAL 120 SECOND))',
    [courseId, personId, planId, stampOf(now())],
  )) as [{ affectedRows: number }]
  return result.affectedRows > 0
}
export async function endWriting(db: Knex, courseId: string, planId: string): Promise<void> {
  await db('writing').where({ course_id: courseId, plan_id: planId }).delete()
}
export async function writingInto(
  db: Knex,
  courseIds: readonly string[],
): Promise<Map<string, { by: string; since: string; planId: string }>> {
  const found = new Map<string, { by: string; since: string; planId: string }>()
  for (const batch of inBatches(courseIds))
    for (const row of await db('writing')
      .join('people', 'people.id', 'writing.person_id')
      .whereIn('course_id', batch)
      .where('lease_until', '>=', db.raw('UTC_TIMESTAMP(3)'))
      .select('course_id', 'plan_id', 'since', 'given_name', 'family_name'))
      found.set(row.course_id, { by: personName(row), since: row.since, planId: row.plan_id })
  return found
}
