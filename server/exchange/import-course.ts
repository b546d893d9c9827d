import type { Knex } from 'knex'
import type { TermCalendar, WallTime } from '../../core/calendar/schema'
import { instantOf, validYears } from '../../core/calendar/zone'
import { assembleCourse, type AssembledCourse } from '../../core/course/assemble'
import type { CourseContent } from '../../core/course/model'
import { finding, type Finding } from '../../core/formats/findings'
import type { CourseDocument } from '../../core/formats/json/documents'
import { noRoster, type Roster } from '../../core/formats/oneroster/read'
import type { StudentRecord } from '../../core/student-data/kind'
import { allStudentData, type AnyStudentDataKind } from '../../core/student-data/student-data'
import { upsertTerm } from '../calendars/terms.queries'
import { zoneRules } from '../calendars/zones'
import { stampOf } from '../clock'
import { keepTemplate } from '../courses/carried.queries'
import { holdsContent, insertContent } from '../courses/content.queries'
import { findCourseBySource, lockCourse, replaceMeetings } from '../courses/courses.queries'
import { makeShownOfCourse } from '../courses/shown/shown'
import { enrolmentIds } from '../courses/staff.queries'
import { insertStudentData, type StudentEntry } from '../courses/student-data.queries'
import { inTransaction } from '../db/transaction'
import { refuse } from '../errors/refusal'
import { writeLog } from '../log/log.queries'
import { anyText } from '../search/file-text'
import { keepSearchable } from '../search/index.queries'

/** Brings a term's calendar in, new or up to date. */
export async function importTerm(db: Knex, calendar: TermCalendar): Promise<void> {
  await inTransaction(db, async trx => {
    await upsertTerm(trx, calendar)
    await writeLog(trx, { action: 'term.imported', detail: { term: calendar.name } })
  })
}

/** What a course is put together from. */
export interface CourseFiles {
  classKey: string
  content: CourseContent | null
  roster: Roster | null
  document: CourseDocument | null
}
/**
 * Puts content into a class that the roster has named and that holds none yet, together with what its line items and its
 * course JSON say, and the student data of the term. All or nothing.
 * @throws Refusal where the class is unknown or holds content already.
 */
export async function importCourse(db: Knex, files: CourseFiles): Promise<Finding[]> {
  const { classKey, document } = files
  const roster = files.roster ?? noRoster
  const lineItems = roster.lineItems.filter(row => row.classSourcedId === classKey)
  const classLineItems = new Set(lineItems.map(row => row.sourcedId))
  const results = roster.results.filter(row => classLineItems.has(row.lineItemSourcedId))
  return inTransaction(db, async trx => {
    const course = await findCourseBySource(trx, classKey)
    if (!course) throw refuse('unknown-class', { classKey })
    await lockCourse(trx, course.id)
    if (await holdsContent(trx, course.id))
      throw refuse('class-holds-content', { title: course.title, classKey })
    const zone = zoneRules(course.timeZone, validYears)
    const { content } = files
    const { categories } = roster
    const assembled = assembleCourse({ courseKey: classKey, content, categories, lineItems, document, zone })
    await insertContent(trx, course.id, assembled.content)
    if (assembled.content.madeBy === 'template') await keepTemplate(trx, course.id)
    await makeShownOfCourse(trx, course.id)
    await keepSearchable(trx, course.id, anyText)
    if (document) await replaceMeetings(trx, course.id, document.meetings)
    const found = await importStudentData(trx, {
      enrolments: await enrolmentIds(trx, course.id),
      assembled,
      results,
      document,
      instant: wall => stampOf(new Date(instantOf(zone, wall) * 60_000)),
    })
    const findings = [...assembled.findings, ...found]
    await writeLog(trx, {
      action: 'course.imported',
      courseId: course.id,
      detail: { findings: findings.length },
    })
    return findings
  })
}

interface StudentFiles {
  enrolments: ReadonlyMap<string, string>
  assembled: AssembledCourse
  results: Roster['results']
  document: CourseDocument | null
  instant: (wall: WallTime) => string
}
/** A record where it stands in its file, and the item it is about. */
interface Located {
  where: string
  record: StudentRecord
  lineage: string | null | undefined
}
/** Everything of one kind that the files hold. */
function recordsOf(kind: AnyStudentDataKind, files: StudentFiles): Located[] {
  const { assembled, results, document, instant } = files
  if (kind.from === 'results.csv')
    return results.map(row => ({
      where: `results.csv, ${row.sourcedId}`,
      record: { student: row.studentSourcedId, item: row.lineItemSourcedId, values: kind.read(row) },
      lineage: assembled.itemOfLineItem.get(row.lineItemSourcedId),
    }))
  const entries: readonly unknown[] = document?.[kind.name as 'posts'] ?? []
  return entries.map(entry => {
    const record = kind.read(entry, { instant })
    // About the course as a whole: no item is named.
    const lineage = record.item === null ? null : assembled.lineages.get(record.item)
    return { where: `course JSON, ${kind.name}`, record, lineage }
  })
}
/** Writes what the files say of students; whoever or whatever is not in the class is a finding. */
async function importStudentData(trx: Knex, files: StudentFiles): Promise<Finding[]> {
  const findings: Finding[] = []
  for (const kind of allStudentData) {
    const entries: StudentEntry[] = []
    for (const { where, record, lineage } of recordsOf(kind, files)) {
      const { student, item, values, text } = record
      const enrolment = files.enrolments.get(student)
      if (enrolment && lineage !== undefined)
        entries.push({ enrolment_id: enrolment, item_lineage: lineage, values, text })
      else findings.push(finding('not-in-class', where, enrolment && item !== null ? { item } : { student }))
    }
    await insertStudentData(trx, kind, entries)
  }
  return findings
}
