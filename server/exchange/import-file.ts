import type { Knex } from 'knex'
import { counted } from '../../core/dates/words'
import { checkCalendar } from '../../core/calendar/check'
import type { TermCalendar } from '../../core/calendar/schema'
import type { ReadLimits } from '../../core/formats/limits'
import { readCourseDocument, readTermCalendar } from '../../core/formats/json/documents'
import { readOneRoster } from '../../core/formats/oneroster/read'
import type { ImportRequest } from '../../shared/api/uploads'
import { findTerm, loadTermCalendar } from '../calendars/terms.queries'
import { isTimeZone } from '../calendars/zones'
import { findCourseBySource } from '../courses/courses.queries'
import { inTransaction } from '../db/transaction'
import { refuse, Refusal, refusalText } from '../errors/refusal'
import { holdJob, type Job } from '../jobs/jobs.queries'
import { writeLog } from '../log/log.queries'
import { importRoster } from '../registrar/roster'
import { openZip, type Source } from './files/zip'
import { bringCourse } from './bring-course'
import { bringLineItems, bringSaid, importerOf, spreadLineItems } from './bring-said'
import { importCourse, importTerm } from './import-course'
import type { Importing, Progress } from './importing'
import type { Outcome } from './outcome'
import { findUpload, settleUpload } from './uploads.queries'

type Request<As extends ImportRequest['as']> = Extract<ImportRequest, { as: As }>

/** The calendar of a term with further closures. @throws Refusal where they do not fit it. */
export async function withClosures(
  db: Knex,
  request: Request<'closures'>,
): Promise<{ calendar: TermCalendar; added: number }> {
  const calendar = await loadTermCalendar(db, request.term)
  const keyOf = (closure: { from: string; to: string; name: string }): string =>
    `${closure.from} ${closure.to} ${closure.name}`
  const there = new Set(calendar.closures.map(keyOf))
  const fresh = request.events
    .map(event => ({ from: event.firstDay, to: event.lastDay, name: event.title, kind: '' }))
    .filter(closure => !there.has(keyOf(closure)))
  const closures = [...calendar.closures, ...fresh].sort((a, b) => (a.from < b.from ? -1 : 1))
  const { calendar: checked, faults } = checkCalendar({ ...calendar, closures }, isTimeZone)
  if (checked) return { calendar: checked, added: fresh.length }
  const errors = faults.map(fault => ({ field: fault.path.join('.'), message: fault.message }))
  throw refuse('days-do-not-fit', { errors })
}

async function importAsRoster(importing: Importing, { tables }: Request<'roster'>): Promise<Outcome> {
  const { trx, upload, source, limits, progress } = importing
  const archive = await openZip(upload.name, source, limits)
  const { roster, toBeDeleted } = await readOneRoster(archive, limits, progress, tables)
  const { findings } = await importRoster(trx, roster, { toBeDeleted })
  const { users, classes, enrollments } = roster
  const listed = `Brought in: ${users.length} people, ${classes.length} classes, ${enrollments.length} enrolments. Nothing was deleted.`
  if (roster.lineItems.length === 0) return { text: listed, findings }
  const spread = await spreadLineItems(importing, await importerOf(importing), roster)
  return { text: `${listed} ${spread.text}`, findings: [...findings, ...spread.findings] }
}
async function importAsClosures({ trx }: Importing, request: Request<'closures'>): Promise<Outcome> {
  const { calendar, added } = await withClosures(trx, request)
  await importTerm(trx, calendar)
  const there = request.events.length - added
  const already = there > 0 ? `; ${there} stood there already` : ''
  const were = added === 1 ? 'closure was' : 'closures were'
  return { text: `${added} ${were} added to ${calendar.name}${already}`, findings: [] }
}
async function importAsCalendar({ trx, upload, source }: Importing): Promise<Outcome> {
  const calendar = readTermCalendar(upload.name, source.read(0, source.size), isTimeZone)
  const before = await findTerm(trx, calendar.id)
  await importTerm(trx, calendar)
  const text = before
    ? `The calendar of ${calendar.name} is as the file says now`
    : `${calendar.name} was added`
  return { text, findings: [] }
}
async function importAsCourseJson({ trx, upload, source }: Importing): Promise<Outcome> {
  const document = readCourseDocument(upload.name, source.read(0, source.size))
  const findings = await importCourse(trx, {
    classKey: document.class,
    content: null,
    document,
    results: null,
  })
  const course = await findCourseBySource(trx, document.class)
  const { length } = document.items
  const itemsText =
    length > 0
      ? `. The class holds no items yet: what the file says of ${counted(length, 'item')} comes with its package`
      : ''
  return {
    ...(course && { courseId: course.id }),
    text: `Brought in: ${counted(document.categories.length, 'grade category', 'grade categories')}, ${counted(document.meetings.length, 'weekly meeting')}${itemsText}`,
    findings,
  }
}
function importAs(importing: Importing, request: ImportRequest): Promise<Outcome> {
  switch (request.as) {
    case 'course':
      return bringCourse(importing, request)
    case 'said':
      return bringSaid(importing, request)
    case 'line-items':
      return bringLineItems(importing)
    case 'roster':
      return importAsRoster(importing, request)
    case 'closures':
      return importAsClosures(importing, request)
    case 'calendar':
      return importAsCalendar(importing)
    case 'course-json':
      return importAsCourseJson(importing)
  }
}

/** Brings a file in, all or nothing: what was read is read again from the bytes that lie aside. */
export async function importUpload(
  db: Knex,
  job: Job<ImportRequest>,
  source: Source,
  limits: ReadLimits,
  progress: Progress,
): Promise<void> {
  const upload = await findUpload(db, job.subject)
  if (!upload) return
  await inTransaction(db, async trx => {
    const outcome = await importAs({ trx, job, upload, source, limits, progress }, job.payload)
    // Only now is the job held: until here it could be cancelled, and its holder could say how far it was.
    if (!(await holdJob(trx, job))) throw refuse('job-lost')
    await settleUpload(trx, upload.id, outcome)
    await writeLog(trx, {
      action: 'upload.imported',
      ...(job.personId && { personId: job.personId }),
      ...(outcome.courseId && { courseId: outcome.courseId }),
      detail: { name: upload.name },
    })
  })
}
/** What a person can do about a file that could not be brought in. */
export const importProblem = (error: unknown): string =>
  error instanceof Refusal
    ? refusalText(error)
    : 'It could not be brought in. Nothing was changed; try again, and tell the help desk if it happens again.'
