import type { Knex } from 'knex'
import type { TermCalendar, WallTime } from '../../core/calendar/schema'
import { instantOf, validYears } from '../../core/calendar/zone'
import { assembleCourse, type AssembledCourse } from '../../core/course/assemble'
import type { CourseContent } from '../../core/course/model'
import { finding, type Finding } from '../../core/formats/findings'
import type { CourseDocument } from '../../core/formats/json/documents'
import type { Roster } from '../../core/formats/oneroster/read'
import type { StudentRecord } from '../../core/student-data/kind'
import { allStudentData, type AnyStudentDataKind } from '../../core/student-data/student-data'
import { upsertTerm } from '../calendars/terms.queries'
import { zoneRules } from '../calendars/zones'
import { stampOf } from '../clock'
import { keepAsCame } from '../courses/carried.queries'
import { holdsContent, insertContent } from '../courses/content.queries'
import { findCourseBySource, loadFacts, lockCourse, replaceMeetings } from '../courses/courses.queries'
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

/** What students of a class got, and which item each line item that they got it for is about, by identifier. */
export interface Results {
  readonly rows: Roster['results']
  readonly itemOf: ReadonlyMap<string, string>
}
/** What a course is put together from. */
export interface CourseFiles {
  /** What lineage keys are made with: the course's key among the registrar's and among files. */
  readonly courseKey: string
  readonly content: CourseContent | null
  readonly document: CourseDocument | null
  readonly results: Results | null
}
/**
 * Fills a course that holds nothing with content, with what its course JSON says, and with the student data of the term. Whoever calls it
 * has the course for themselves ({@link lockCourse}).
 */
export async function fillCourse(trx: Knex, courseId: string, files: CourseFiles): Promise<Finding[]> {
  const { courseKey, content, document } = files
  const { timeZone } = (await loadFacts(trx, courseId)).term
  const zone = zoneRules(timeZone, validYears)
  const assembled = assembleCourse({ courseKey, content, document })
  await insertContent(trx, courseId, assembled.content)
  await makeShownOfCourse(trx, courseId)
  await keepSearchable(trx, courseId, anyText)
  if (document && document.meetings.length > 0) await replaceMeetings(trx, courseId, document.meetings)
  const found = await importStudentData(trx, {
    enrolments: await enrolmentIds(trx, courseId),
    assembled,
    results: files.results,
    document,
    instant: wall => stampOf(new Date(instantOf(zone, wall) * 60_000)),
  })
  return [...assembled.findings, ...found]
}
/**
 * Brings content into a class that the roster has named and that holds none yet. All or nothing; what came is what later files of it are
 * compared with.
 * @throws Refusal where the class is unknown or holds content already.
 */
export async function importCourse(
  db: Knex,
  { classKey, ...files }: Omit<CourseFiles, 'courseKey'> & { classKey: string },
): Promise<Finding[]> {
  return inTransaction(db, async trx => {
    const course = await findCourseBySource(trx, classKey)
    if (!course) throw refuse('unknown-class', { classKey })
    await lockCourse(trx, course.id)
    if (await holdsContent(trx, course.id))
      throw refuse('class-holds-content', { title: course.title, classKey })
    const findings = await fillCourse(trx, course.id, { ...files, courseKey: classKey })
    if (files.document?.madeBy === 'template') await keepAsCame(trx, course.id, 'template')
    await keepAsCame(trx, course.id, 'file')
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
  results: Results | null
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
    return (results?.rows ?? []).map(row => ({
      where: `results.csv, ${row.sourcedId}`,
      record: { student: row.studentSourcedId, item: row.lineItemSourcedId, values: kind.read(row) },
      lineage: assembled.lineages.get(results?.itemOf.get(row.lineItemSourcedId) ?? ''),
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
