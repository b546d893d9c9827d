import type { Knex } from 'knex'
import { courseText } from '../../core/course/code-text'
import { meetingText } from '../../core/dates/words'
import { finding, type Finding } from '../../core/formats/findings'
import { meetingsOfPeriods } from '../../core/formats/oneroster/periods'
import { keysOf, type Roster, type RosterRead } from '../../core/formats/oneroster/read'
import type { TableName } from '../../core/formats/oneroster/tables'
import { endClosedSessions } from '../auth/sessions.queries'
import { termIdsByCode } from '../calendars/terms.queries'
import { now, stampOf } from '../clock'
import { replaceMeetings } from '../courses/courses.queries'
import { groupBy } from '../db/rows'
import { inTransaction } from '../db/transaction'
import type { EnrolmentRole } from '../db/tables'
import { writeLog } from '../log/log.queries'
import { fullNames } from '../people/people.queries'
import type { ChangeKind, RosterChange } from './roster-changes'
import { personRow } from './person-row'
import * as queries from './roster.queries'

const roles = new Map<string, EnrolmentRole>([
  ['teacher', 'instructor'],
  ['aide', 'assistant'],
  ['proctor', 'assistant'],
  ['student', 'student'],
])
const shownNames = 12

export interface RosterOutcome {
  findings: Finding[]
  changes: RosterChange[]
}
/** `whole`: the bundle is the registrar's whole list, so that who is not in it any more is marked (never deleted). */
export interface RosterOptions {
  whole?: Pick<RosterRead, 'modes' | 'findings'>
  toBeDeleted?: RosterRead['toBeDeleted']
}

/** What one import works with: the bundle, and what it notices and changes on the way. */
interface Importing {
  trx: Knex
  roster: Roster
  options: RosterOptions
  findings: Finding[]
  changes: RosterChange[]
}

/**
 * Brings a registrar's bundle in: organisations, people, classes with their meetings, and enrolments. What is there already is brought up
 * to date; nothing is deleted because a row is missing, and who has dropped keeps what hangs off the enrolment. Tells what changed.
 * A class whose term has no calendar yet is a finding.
 */
export async function importRoster(
  db: Knex,
  roster: Roster,
  options: RosterOptions = {},
): Promise<RosterOutcome> {
  return inTransaction(db, async trx => {
    const findings: Finding[] = []
    const changes: RosterChange[] = []
    const importing: Importing = {
      trx,
      roster,
      options,
      changes,
      findings,
    }
    const orgs = await queries.upsertOrgs(
      trx,
      roster.orgs.map(row => ({
        source_id: row.sourcedId,
        name: row.name,
        type: row.type,
        parent_source_id: row.parentSourcedId || null,
      })),
    )
    const people = await queries.upsertPeople(trx, await peopleRows(importing))
    const classes = await importClasses(importing, orgs)
    await importEnrolments(importing, {
      courses: await withEarlier(trx, 'courses', classes.ids, enrolled => enrolled.classSourcedId, roster),
      people: await withEarlier(trx, 'people', people, enrolled => enrolled.userSourcedId, roster),
    })
    await markMissingClasses(importing, classes.rows)
    await closeDeletedPeople(importing)
    await endClosedSessions(trx)
    await writeLog(trx, {
      action: 'roster.imported',
      detail: {
        people: people.size,
        classes: classes.ids.size,
        enrolments: roster.enrollments.length,
        changes: changes.length,
      },
    })
    return { findings, changes }
  })
}

/** Ids by source id, with those that an earlier bundle brought and this one only names (OneRoster's delta mode). */
async function withEarlier(
  trx: Knex,
  table: 'courses' | 'people',
  here: Map<string, string>,
  keyOf: (row: Roster['enrollments'][number]) => string,
  roster: Roster,
): Promise<Map<string, string>> {
  const unknown = roster.enrollments.map(keyOf).filter(key => !here.has(key))
  return new Map([...(await queries.idsBySource(trx, table, unknown)), ...here])
}

/** People as rows; a sign-in name that is somebody else's is left out, so that nobody gets another's place. */
async function peopleRows({ trx, roster, findings }: Importing) {
  const loginOf = (row: Roster['users'][number]): string | null =>
    row.role === 'student' || row.role === '' ? null : row.username || null
  const owners = await queries.ownersOfLogins(
    trx,
    roster.users.flatMap(row => loginOf(row) ?? []),
  )
  return roster.users.map(row => {
    const login = loginOf(row)
    const owner = login === null ? undefined : owners.get(login)
    const isTheirs = owner === undefined || owner === row.sourcedId
    if (isTheirs) {
      if (login !== null) owners.set(login, row.sourcedId)
    } else if (login !== null)
      findings.push(finding('login-taken', `users.csv, ${row.sourcedId}`, { login, owner }))
    return {
      ...personRow(row),
      login: isTheirs ? login : null,
      active: row.enabledUser !== 'false',
    }
  })
}

/** Classes as rows; those whose term or school is not known here are left out. */
async function classRows(
  { trx, roster, findings }: Importing,
  orgs: Map<string, string>,
): Promise<queries.ListedClass[]> {
  const unknown = roster.classes.map(row => row.schoolSourcedId).filter(key => !orgs.has(key))
  const schools = new Map([...(await queries.idsBySource(trx, 'orgs', unknown)), ...orgs])
  const terms = await termIdsByCode(trx)
  const subjects = new Map(roster.courses.map(row => [row.sourcedId, row]))
  return roster.classes.flatMap(row => {
    const where = `classes.csv, ${row.sourcedId}`
    const term = keysOf(row.termSourcedIds)
      .map(key => terms.get(key))
      .find(id => id !== undefined)
    if (!term) {
      findings.push(finding('term-without-calendar', where, { term: row.termSourcedIds }))
      return []
    }
    const org = schools.get(row.schoolSourcedId)
    if (!org) {
      findings.push(finding('school-unknown', where, { school: row.schoolSourcedId }))
      return []
    }
    const subject = subjects.get(row.courseSourcedId)
    const code = subject?.courseCode || row.classCode || subject?.title || row.title || row.sourcedId
    const section = row.classCode.startsWith(code)
      ? row.classCode.slice(code.length).replace(/^[\s-]+/, '')
      : row.classCode
    const names = { code, section, title: row.title || subject?.title || code }
    return [{ source_id: row.sourcedId, term_id: term, org_id: org, ...names, created_at: stampOf(now()) }]
  })
}
const nameOf = (row: { code: string; section: string; title: string }): string => courseText(row)

/** Brings classes in with their meetings, and tells which appeared, were renamed or are back. */
async function importClasses(
  importing: Importing,
  orgs: Map<string, string>,
): Promise<{ rows: queries.ListedClass[]; ids: Map<string, string> }> {
  const { trx, roster, changes } = importing
  const keys = roster.classes.map(row => row.sourcedId)
  const before = await queries.classesBySource(trx, keys)
  const rows = await classRows(importing, orgs)
  const ids = await queries.upsertCourses(trx, rows)
  const back: string[] = []
  for (const row of rows) {
    const old = before.get(row.source_id)
    const courseId = ids.get(row.source_id)
    if (!courseId) continue
    const [was, is] = [old && nameOf(old), nameOf(row)]
    if (was === undefined) changes.push({ courseId, kind: 'appeared', count: 1, detail: { after: is } })
    else if (was !== is)
      changes.push({ courseId, kind: 'renamed', count: 1, detail: { before: was, after: is } })
    if (!old?.missing) continue
    changes.push({ courseId, kind: 'back', count: 1, detail: {} })
    back.push(courseId)
  }
  await queries.markClasses(trx, back, false)
  for (const row of roster.classes) {
    const courseId = ids.get(row.sourcedId)
    if (courseId) await importMeetings(importing, row, courseId, before.get(row.sourcedId))
  }
  return { rows, ids }
}

type Weekly = readonly { weekday: number; start: string; end: string }[]
const shapeOf = (meetings: Weekly): string =>
  JSON.stringify(meetings.map(({ weekday, start, end }) => [weekday, start, end]))
async function importMeetings(
  { trx, changes, findings }: Importing,
  row: Roster['classes'][number],
  courseId: string,
  old: queries.KeptClass | undefined,
): Promise<void> {
  const meetings = meetingsOfPeriods(row.periods)
  if (meetings === null) return
  if ('problem' in meetings) {
    const where = `classes.csv, ${row.sourcedId}, periods`
    findings.push(finding('periods-unreadable', where, { problem: meetings.problem }))
    return
  }
  if (old && shapeOf(old.meetings) === shapeOf(meetings)) return
  const room = row.location || null
  await replaceMeetings(
    trx,
    courseId,
    meetings.map(meeting => ({ ...meeting, room })),
  )
  if (!old?.meetings.length) return
  const detail = { before: meetingText(old.meetings), after: meetingText(meetings) }
  changes.push({ courseId, kind: 'meetings', count: 1, detail })
}

/** People whom the registrar deletes do not sign in any more; nothing that they made or did is lost. */
async function closeDeletedPeople({ trx, options }: Importing): Promise<void> {
  const closed = await queries.closePeople(trx, options.toBeDeleted?.users ?? [])
  const names = await fullNames(trx, closed)
  for (const id of closed)
    await writeLog(trx, { action: 'sign-in.closed', detail: { name: names.get(id) ?? '' } })
}

interface Ids {
  courses: Map<string, string>
  people: Map<string, string>
}
type EnrolmentKey = Pick<queries.ListedEnrolment, 'course_id' | 'person_id' | 'role'>
const keyOf = ({ course_id, person_id, role }: EnrolmentKey): string => `${course_id} ${person_id} ${role}`

/** The bundle's enrolments of classes and people that are known here. */
function listedEnrolments(
  { roster, findings }: Importing,
  { courses, people }: Ids,
): queries.ListedEnrolment[] {
  let strangers = 0
  const listed = roster.enrollments.flatMap(row => {
    const [course_id, person_id] = [courses.get(row.classSourcedId), people.get(row.userSourcedId)]
    const role = roles.get(row.role)
    if (!course_id || !person_id) strangers++
    if (!course_id || !person_id || !role) return []
    return [{ course_id, person_id, role, is_primary: row.primary === 'true', source_id: row.sourcedId }]
  })
  if (strangers > 0) findings.push(finding('enrolments-of-strangers', 'enrollments.csv', { rows: strangers }))
  return listed
}
/** Whether a row of the list says anything new. */
const isNews = (row: queries.ListedEnrolment, old: queries.KeptEnrolment | undefined): boolean =>
  !old ||
  old.dropped_at !== null ||
  old.missing_since !== null ||
  old.is_primary !== row.is_primary ||
  old.source_id !== row.source_id ||
  old.origin !== 'registrar'
/** Whether who is not on the list is to be marked: rows that could not be read may be those of people who are thought missing. */
function isWhole(
  { options: { whole } }: Importing,
  mode: 'enrollments' | 'classes',
  needed: readonly TableName[],
): boolean {
  const unread = whole?.findings.some(found => needed.some(table => isOfTable(found, table)))
  return whole?.modes[mode] === 'bulk' && !unread
}
/** Whether a finding says that a table lacks something it should hold, by itself or in the wake of another. */
function isOfTable({ severity, details }: Finding, table: TableName): boolean {
  if (severity !== 'error' || !details) return false
  if ('table' in details && details.table === table) return true
  const lost = [...('direct' in details ? details.direct : []), ...('wake' in details ? details.wake : [])]
  return lost.some(each => each.table === table)
}

async function importEnrolments(importing: Importing, ids: Ids): Promise<void> {
  const { trx, roster, options, changes } = importing
  const listed = listedEnrolments(importing, ids)
  const there = await queries.enrolmentsOf(trx, [...new Set(ids.courses.values())])
  const old = new Map(there.map(row => [keyOf(row), row]))
  const fresh = listed.filter(row => isNews(row, old.get(keyOf(row))))
  await queries.upsertEnrolments(trx, fresh)

  const gone = new Set(options.toBeDeleted?.enrollments ?? [])
  const isGone = (row: queries.KeptEnrolment): boolean => row.source_id !== null && gone.has(row.source_id)
  // A list of changes alone (OneRoster's delta mode) deletes an enrolment without naming its class.
  const dropped = (await queries.enrolmentsBySource(trx, [...gone])).filter(row => row.dropped_at === null)
  await queries.markEnrolments(
    trx,
    dropped.map(row => row.id),
    'dropped_at',
  )
  const here = new Set(listed.map(keyOf))
  const inList = new Set(roster.classes.map(row => ids.courses.get(row.sourcedId)))
  const stood = there.filter(
    row => row.origin === 'registrar' && row.dropped_at === null && row.missing_since === null,
  )
  const unlisted = isWhole(importing, 'enrollments', ['enrollments', 'users', 'classes'])
    ? stood.filter(row => inList.has(row.course_id) && !here.has(keyOf(row)) && !isGone(row))
    : []
  await queries.markEnrolments(
    trx,
    unlisted.map(row => row.id),
    'missing_since',
  )

  const groups = peopleByChange()
  for (const row of fresh) {
    const before = old.get(keyOf(row))
    if (!before) groups.add(row, 'joined')
    else if (isBack(row, old)) groups.add(row, 'returned')
  }
  for (const row of dropped) groups.add(row, 'dropped')
  for (const row of unlisted) groups.add(row, 'unlisted')
  changes.push(...(await groups.told(trx)))
  await logStaffChanges(trx, { lost: [...dropped, ...unlisted], back: fresh.filter(row => isBack(row, old)) })
}
const isBack = (row: EnrolmentKey, old: ReadonlyMap<string, queries.KeptEnrolment>): boolean => {
  const before = old.get(keyOf(row))
  return before !== undefined && (before.dropped_at !== null || before.missing_since !== null)
}
/** Who works in a course loses with their row what it let them do, and has it again with the row: that is said in the log. */
async function logStaffChanges(
  trx: Knex,
  changed: Record<'lost' | 'back', readonly EnrolmentKey[]>,
): Promise<void> {
  for (const [which, action] of [
    ['lost', 'staff.unlisted'],
    ['back', 'staff.back'],
  ] as const) {
    const staff = groupBy(
      changed[which].filter(row => row.role !== 'student'),
      row => row.course_id,
    )
    for (const [courseId, rows] of staff) {
      const people = rows.map(row => row.person_id)
      const names = await fullNames(trx, people)
      await writeLog(trx, { action, courseId, detail: { names: people.map(id => names.get(id) ?? '') } })
    }
  }
}

/** Notes people who joined, dropped, returned or are not listed any more, course by course. */
function peopleByChange() {
  const groups = new Map<string, { courseId: string; kind: ChangeKind; people: string[] }>()
  return {
    add({ course_id, person_id }: Pick<EnrolmentKey, 'course_id' | 'person_id'>, kind: ChangeKind): void {
      const key = `${course_id} ${kind}`
      const group = groups.get(key) ?? { courseId: course_id, kind, people: [] }
      group.people.push(person_id)
      groups.set(key, group)
    },
    async told(trx: Knex): Promise<RosterChange[]> {
      const all = [...groups.values()].map(group => ({ ...group, shown: group.people.slice(0, shownNames) }))
      const names = await fullNames(
        trx,
        all.flatMap(group => group.shown),
      )
      return all.map(({ courseId, kind, people, shown }) => ({
        courseId,
        kind,
        count: people.length,
        detail: { names: shown.map(id => names.get(id) ?? '') },
      }))
    },
  }
}

/** Classes that the registrar cancels or does not list any more are marked; they and all that is in them stay. */
async function markMissingClasses(importing: Importing, rows: readonly queries.ListedClass[]): Promise<void> {
  const { trx, roster, options, changes } = importing
  const mark = async (ids: string[], kind: ChangeKind): Promise<void> => {
    for (const courseId of ids) changes.push({ courseId, kind, count: 1, detail: {} })
    await queries.markClasses(trx, ids, true)
  }
  const cancelled = await queries.classesBySource(trx, [...(options.toBeDeleted?.classes ?? [])])
  const fresh = [...cancelled.values()].filter(row => !row.missing)
  await mark(
    fresh.map(row => row.id),
    'cancelled',
  )
  if (!isWhole(importing, 'classes', ['classes'])) return
  const listed = new Set(roster.classes.map(row => row.sourcedId))
  const kept = await queries.classesOfTerms(trx, [...new Set(rows.map(row => row.term_id))])
  await mark(
    kept.filter(row => !listed.has(row.source_id)).map(row => row.id),
    'gone',
  )
}
