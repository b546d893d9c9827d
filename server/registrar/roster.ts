import type { Knex } from 'knex'
import { meetingText } from '../../core/dates/words'
import type { Finding } from '../../core/formats/findings'
import { meetingsOfPeriods } from '../../core/formats/oneroster/periods'
import { keysOf, type Roster, type RosterRead } from '../../core/formats/oneroster/read'
import { inTransaction } from '../db/connection'
import * as imports from '../exchange/import.queries'
import { writeLog } from '../log/log.queries'
import * as queries from './roster.queries'
import { now, stampOf } from '../clock'

const roles: Record<string, string> = {
  teacher: 'instructor',
  aide: 'assistant',
  proctor: 'assistant',
  student: 'student',
}
const shownNames = 12

export interface RosterOutcome {
  findings: Finding[]
  changes: queries.RosterChange[]
}
/** `whole`: the bundle is the registrar's whole list, so that who is not in it any more is marked (never deleted). */
export interface RosterOptions {
  whole?: Pick<RosterRead, 'modes' | 'findings'>
  toBeDeleted?: RosterRead['toBeDeleted']
}

/**
 * Takes a registrar's bundle in: organisations, people, classes with their meetings, and enrolments. What is there already is brought up
 * to date; nothing is deleted because a row is missing, and who has dropped keeps what hangs off the enrolment. Tells what changed.
 * A class whose term has no calendar yet is a finding.
 */
export async function importRoster(
  db: Knex,
  roster: Roster,
  options: RosterOptions = {},
): Promise<RosterOutcome> {
  const findings: Finding[] = []
  const changes: queries.RosterChange[] = []
  const add = (severity: Finding['severity'], where: string, message: string): void => {
    findings.push({ severity, where, message })
  }
  await inTransaction(db, async trx => {
    findings.length = 0
    changes.length = 0
    const orgs = await imports.upsertOrgs(
      trx,
      roster.orgs.map(row => ({
        source_id: row.sourcedId,
        name: row.name,
        type: row.type,
        parent_source_id: row.parentSourcedId || null,
      })),
    )
    const people = await imports.upsertPeople(trx, await withLogins(trx, roster, add))
    // A bundle may name what an earlier one brought (OneRoster's delta mode).
    const known = async (table: string, here: Map<string, string>, keys: string[]) =>
      new Map([
        ...(await imports.idsBySource(
          trx,
          table,
          keys.filter(key => !here.has(key)),
        )),
        ...here,
      ])
    const schools = await known(
      'orgs',
      orgs,
      roster.classes.map(row => row.schoolSourcedId),
    )
    const terms = await imports.termIdsByCode(trx)
    const subjects = new Map(roster.courses.map(row => [row.sourcedId, row]))
    const before = await queries.classesBySource(
      trx,
      roster.classes.map(row => row.sourcedId),
    )
    const classes = roster.classes.flatMap(row => {
      const subject = subjects.get(row.courseSourcedId)
      const code = subject?.courseCode || row.classCode || subject?.title || row.title
      const term = keysOf(row.termSourcedIds)
        .map(key => terms.get(key))
        .find(id => id !== undefined)
      if (!term) {
        add(
          'error',
          `classes.csv, ${row.sourcedId}`,
          `its term ${row.termSourcedIds} has no calendar yet; the class was left out`,
        )
        return []
      }
      const org = schools.get(row.schoolSourcedId)
      if (!org) {
        add(
          'error',
          `classes.csv, ${row.sourcedId}`,
          `its school ${row.schoolSourcedId} is not known here; the class was left out`,
        )
        return []
      }
      const section = row.classCode.startsWith(code)
        ? row.classCode.slice(code.length).replace(/^[\s-]+/, '')
        : row.classCode
      return [
        {
          source_id: row.sourcedId,
          term_id: term,
          org_id: org,
          code,
          section,
          title: row.title,
          created_at: stampOf(now()),
        },
      ]
    })
    const courses = await imports.upsertCourses(trx, classes)
    const nameOf = (row: { code: string; section: string; title: string }): string =>
      `${row.code}${row.section ? `-${row.section}` : ''} ${row.title}`
    for (const row of classes) {
      const old = before.get(row.source_id)
      const courseId = courses.get(row.source_id)!
      if (!old) changes.push({ courseId, kind: 'appeared', count: 1, detail: { after: nameOf(row) } })
      else if (nameOf(old) !== nameOf(row))
        changes.push({
          courseId,
          kind: 'renamed',
          count: 1,
          detail: { before: nameOf(old), after: nameOf(row) },
        })
      if (old?.missing) changes.push({ courseId, kind: 'back', count: 1, detail: {} })
    }
    await queries.markClasses(
      trx,
      classes.flatMap(row => (before.get(row.source_id)?.missing ? [courses.get(row.source_id)!] : [])),
      false,
    )
    for (const row of roster.classes)
      await takeMeetings(trx, row, courses.get(row.sourcedId), before.get(row.sourcedId), changes, add)
    await takeEnrolments(
      trx,
      roster,
      options,
      {
        courses: await known(
          'courses',
          courses,
          roster.enrollments.map(row => row.classSourcedId),
        ),
        people: await known(
          'people',
          people,
          roster.enrollments.map(row => row.userSourcedId),
        ),
      },
      changes,
      add,
    )
    await markMissingClasses(trx, roster, classes, options, changes)
    await writeLog(trx, {
      action: 'roster.imported',
      detail: {
        people: people.size,
        classes: courses.size,
        enrolments: roster.enrollments.length,
        changes: changes.length,
      },
    })
  })
  return { findings, changes }
}

type Add = (severity: Finding['severity'], where: string, message: string) => void
/** People as rows; a sign-in name that is somebody else's is left out, so that nobody takes another's place. */
async function withLogins(trx: Knex, roster: Roster, add: Add): Promise<Record<string, unknown>[]> {
  const loginOf = (row: Roster['users'][number]): string | null =>
    row.role === 'student' ? null : row.username || null
  const owners = await queries.ownersOfLogins(
    trx,
    roster.users.flatMap(row => loginOf(row) ?? []),
  )
  return roster.users.map(row => {
    const login = loginOf(row)
    const owner = login === null ? undefined : owners.get(login)
    if (login !== null && owner !== undefined && owner !== row.sourcedId)
      add(
        'error',
        `users.csv, ${row.sourcedId}`,
        `the sign-in name ${login} is that of ${owner}; this person was taken without one`,
      )
    else if (login !== null) owners.set(login, row.sourcedId)
    return {
      source_id: row.sourcedId,
      login: owner === undefined || owner === row.sourcedId ? login : null,
      given_name: row.givenName,
      family_name: row.familyName,
      email: row.email || null,
      active: row.enabledUser !== 'false',
    }
  })
}

async function takeMeetings(
  trx: Knex,
  row: Roster['classes'][number],
  courseId: string | undefined,
  old: queries.ClassRow | undefined,
  changes: queries.RosterChange[],
  add: Add,
): Promise<void> {
  const meetings = meetingsOfPeriods(row.periods)
  if (!courseId || meetings === null) return
  if ('problem' in meetings)
    return add(
      'warning',
      `classes.csv, ${row.sourcedId}, periods`,
      `${meetings.problem}; its meetings stay as they were`,
    )
  const shape = (list: readonly { weekday: number; start: string; end: string }[]): string =>
    JSON.stringify(list.map(({ weekday, start, end }) => [weekday, start, end]))
  if (old && shape(old.meetings) === shape(meetings)) return
  await imports.replaceMeetings(
    trx,
    courseId,
    meetings.map(meeting => ({ ...meeting, ...(row.location && { room: row.location }) })),
  )
  if (old?.meetings.length)
    changes.push({
      courseId,
      kind: 'meetings',
      count: 1,
      detail: { before: meetingText(old.meetings), after: meetingText(meetings) },
    })
}

async function takeEnrolments(
  trx: Knex,
  roster: Roster,
  options: RosterOptions,
  ids: { courses: Map<string, string>; people: Map<string, string> },
  changes: queries.RosterChange[],
  add: Add,
): Promise<void> {
  const { courses, people } = ids
  const strangers = roster.enrollments.filter(
    row => !people.has(row.userSourcedId) || !courses.has(row.classSourcedId),
  ).length
  if (strangers > 0)
    add(
      'error',
      'enrollments.csv',
      `${strangers} rows name a class or a person that is not known here; they were left out`,
    )
  const listed = roster.enrollments
    .filter(row => roles[row.role] && courses.has(row.classSourcedId) && people.has(row.userSourcedId))
    .map(row => ({
      course_id: courses.get(row.classSourcedId)!,
      person_id: people.get(row.userSourcedId)!,
      role: roles[row.role]!,
      is_primary: row.primary === 'true',
      source_id: row.sourcedId,
    }))
  const keyOf = (courseId: string, personId: string, role: string): string =>
    `${courseId} ${personId} ${role}`
  const there = await queries.enrolmentsOf(trx, [...new Set([...courses.values()])])
  const old = new Map(there.map(row => [keyOf(row.courseId, row.personId, row.role), row]))
  const fresh = listed.filter(row => {
    const now = old.get(keyOf(row.course_id, row.person_id, row.role))
    return (
      !now ||
      now.dropped ||
      now.missing ||
      now.isPrimary !== row.is_primary ||
      now.sourceId !== row.source_id ||
      now.origin !== 'registrar'
    )
  })
  await queries.upsertEnrolments(trx, fresh)
  const gone = new Set(options.toBeDeleted?.enrollments ?? [])
  const dropped = there.filter(row => row.sourceId !== null && gone.has(row.sourceId) && !row.dropped)
  await queries.markEnrolments(
    trx,
    dropped.map(row => row.id),
    'dropped_at',
  )
  // Rows that could not be read may be those of people who are thought missing: then nobody is.
  const whole =
    options.whole?.modes.enrollments === 'bulk' &&
    !options.whole.findings.some(
      finding => finding.severity === 'error' && /^(enrollments|users|classes)\.csv/.test(finding.where),
    )
  const here = new Set(listed.map(row => keyOf(row.course_id, row.person_id, row.role)))
  const inList = new Set(roster.classes.map(row => courses.get(row.sourcedId)))
  const unlisted = whole
    ? there.filter(
        row =>
          row.origin === 'registrar' &&
          !row.dropped &&
          !row.missing &&
          inList.has(row.courseId) &&
          !here.has(keyOf(row.courseId, row.personId, row.role)) &&
          !(row.sourceId !== null && gone.has(row.sourceId)),
      )
    : []
  await queries.markEnrolments(
    trx,
    unlisted.map(row => row.id),
    'missing_since',
  )

  const groups = new Map<string, { courseId: string; kind: queries.ChangeKind; people: string[] }>()
  const note = (courseId: string, kind: queries.ChangeKind, personId: string): void => {
    const group = groups.get(`${courseId} ${kind}`) ?? { courseId, kind, people: [] }
    group.people.push(personId)
    groups.set(`${courseId} ${kind}`, group)
  }
  for (const row of fresh) {
    const before = old.get(keyOf(row.course_id, row.person_id, row.role))
    if (!before) note(row.course_id, 'joined', row.person_id)
    else if (before.dropped || before.missing) note(row.course_id, 'returned', row.person_id)
  }
  for (const row of dropped) note(row.courseId, 'dropped', row.personId)
  for (const row of unlisted) note(row.courseId, 'unlisted', row.personId)
  const names = await queries.namesOf(
    trx,
    [...groups.values()].flatMap(group => group.people.slice(0, shownNames)),
  )
  for (const { courseId, kind, people: who } of groups.values())
    changes.push({
      courseId,
      kind,
      count: who.length,
      detail: { names: who.slice(0, shownNames).map(id => names.get(id)!) },
    })
}

/** Classes that the registrar cancels or does not list any more are marked; they and all that is in them stay. */
async function markMissingClasses(
  trx: Knex,
  roster: Roster,
  classes: readonly { source_id: string; term_id: string }[],
  options: RosterOptions,
  changes: queries.RosterChange[],
): Promise<void> {
  const cancelled = await queries.classesBySource(trx, [...(options.toBeDeleted?.classes ?? [])])
  const fresh = [...cancelled.values()].filter(row => !row.missing)
  for (const row of fresh) changes.push({ courseId: row.id, kind: 'cancelled', count: 1, detail: {} })
  await queries.markClasses(
    trx,
    fresh.map(row => row.id),
    true,
  )
  if (
    options.whole?.modes.classes !== 'bulk' ||
    options.whole.findings.some(
      finding => finding.severity === 'error' && finding.where.startsWith('classes.csv'),
    )
  )
    return
  const listed = new Set(roster.classes.map(row => row.sourcedId))
  const gone = (await queries.classesOfTerms(trx, [...new Set(classes.map(row => row.term_id))])).filter(
    row => !listed.has(row.sourceId),
  )
  for (const row of gone) changes.push({ courseId: row.id, kind: 'gone', count: 1, detail: {} })
  await queries.markClasses(
    trx,
    gone.map(row => row.id),
    true,
  )
}
