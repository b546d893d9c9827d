import type { Knex } from 'knex'
import { instantOf } from '../../core/calendar/zone'
import type { TermCalendar } from '../../core/calendar/schema'
import { assembleCourse } from '../../core/course/assemble'
import type { CourseContent } from '../../core/course/model'
import type { Finding } from '../../core/formats/findings'
import type { CourseDocument } from '../../core/formats/json/documents'
import { noRoster, type Roster } from '../../core/formats/oneroster/read'
import { inTransaction } from '../db/connection'
import * as queries from './import.queries'
import { writeLog } from '../log/log.queries'
import { now, stampOf } from '../clock'
import { zoneRules } from '../calendars/zones'

/** A request that cannot be met as it is; `field` names what it is about. */
export class ImportRefusal extends Error {
  override readonly name = 'ImportRefusal'
}

/** Takes a term's calendar in, or brings it up to date. */
export async function importTerm(db: Knex, calendar: TermCalendar): Promise<void> {
  await inTransaction(db, async trx => {
    await queries.upsertTerm(trx, calendar)
    await writeLog(trx, { action: 'term.imported', detail: { term: calendar.id } })
  })
}

/**
 * Puts content into a class that the roster has named and that holds none yet, together with what its line items and its
 * course JSON say, and the student data of the term. All or nothing.
 * @throws ImportRefusal where the class is unknown or holds content already.
 */
export async function importCourse(
  db: Knex,
  parts: {
    classKey: string
    content: CourseContent | null
    roster: Roster | null
    document: CourseDocument | null
  },
): Promise<Finding[]> {
  const { classKey, document } = parts
  const roster = parts.roster ?? noRoster
  const lineItems = roster.lineItems.filter(row => row.classSourcedId === classKey)
  const assembled = assembleCourse({
    courseKey: classKey,
    content: parts.content,
    categories: roster.categories,
    lineItems,
    document,
  })
  const findings = [...assembled.findings]
  await inTransaction(db, async trx => {
    const course = await queries.findCourseBySource(trx, classKey)
    if (!course)
      throw new ImportRefusal(
        `The class ${classKey} is not in the roster; read the registrar's bundle first.`,
      )
    if (await queries.holdsContent(trx, course.id))
      throw new ImportRefusal(`${course.title} (${classKey}) holds content already; nothing was changed.`)
    await queries.insertContent(trx, course.id, assembled.content)
    if (document) await queries.replaceMeetings(trx, course.id, document.meetings)

    const enrolments = await queries.enrolmentIds(trx, course.id)
    const year = now().getUTCFullYear()
    const zone = zoneRules(course.timeZone, year - 20, year + 10)
    const instant = (wall: string) => stampOf(new Date(instantOf(zone, wall) * 60_000))
    /** The columns every row about a student has; null, with a finding, where the student or item is not there. */
    const about = (where: string, student: string, lineage: string | undefined, item: string) => {
      const enrolment = enrolments.get(student)
      if (enrolment && lineage) return { enrolment_id: enrolment, item_lineage: lineage }
      findings.push({
        severity: 'warning',
        where,
        message: `${enrolment ? `the item ${item}` : `the student ${student}`} is not in this class; the row was left out`,
      })
      return null
    }
    const itemKey = (identifier: string) => assembled.lineages.get(identifier)
    const rows = <T, R>(entries: readonly T[], make: (entry: T) => R | null): R[] =>
      entries.map(make).filter((row): row is R & NonNullable<R> => row !== null)
    const classLineItems = new Set(lineItems.map(row => row.sourcedId))
    await queries.insertStudentData(trx, {
      grades: rows(
        roster.results.filter(row => classLineItems.has(row.lineItemSourcedId)),
        row => {
          const key = about(
            `results.csv, ${row.sourcedId}`,
            row.studentSourcedId,
            assembled.itemOfLineItem.get(row.lineItemSourcedId),
            row.lineItemSourcedId,
          )
          return (
            key && {
              ...key,
              score: row.score || null,
              status: row.scoreStatus || 'fully graded',
              graded_on: row.scoreDate || null,
              comment: row.comment || null,
            }
          )
        },
      ),
      attempts: rows(document?.attempts ?? [], entry => {
        const key = about('course JSON, attempts', entry.student, itemKey(entry.item), entry.item)
        return (
          key && {
            ...key,
            number: entry.number,
            started_at: instant(entry.startedAt),
            finished_at: entry.finishedAt ? instant(entry.finishedAt) : null,
            score: entry.score ?? null,
          }
        )
      }),
      extensions: rows(document?.extensions ?? [], entry => {
        const key = about('course JSON, extensions', entry.student, itemKey(entry.item), entry.item)
        return key && { ...key, due: entry.due, reason: entry.reason }
      }),
      submissions: rows(document?.submissions ?? [], entry => {
        const key = about('course JSON, submissions', entry.student, itemKey(entry.item), entry.item)
        return key && { row: { ...key, submitted_at: instant(entry.at) }, text: entry.text }
      }),
      posts: rows(document?.posts ?? [], entry => {
        const key = about('course JSON, posts', entry.author, itemKey(entry.item), entry.item)
        return key && { row: { ...key, posted_at: instant(entry.at) }, text: entry.text }
      }),
    })
    await writeLog(trx, {
      action: 'course.imported',
      courseId: course.id,
      detail: { class: classKey, findings: findings.length },
    })
  })
  return findings
}
