import type { Knex } from 'knex'
import { codeText } from '../../core/course/code-text'
import { checkCalendar } from '../../core/calendar/check'
import type { TermCalendar } from '../../core/calendar/schema'
import type { Body, CourseNode } from '../../core/course/model'
import { readCartridge } from '../../core/formats/cartridge/read'
import type { ReadLimits } from '../../core/formats/limits'
import { readCourseDocument, readTermCalendar } from '../../core/formats/json/documents'
import { readOneRoster } from '../../core/formats/oneroster/read'
import type { ImportRequest } from '../../shared/api/uploads'
import { findTerm, loadTermCalendar } from '../calendars/terms.queries'
import { isTimeZone } from '../calendars/zones'
import { findCourseBySource, insertCourse } from '../courses/courses.queries'
import { inTransaction } from '../db/transaction'
import { refuse, Refusal, refusalText } from '../errors/refusal'
import { holdJob, type Job } from '../jobs/jobs.queries'
import { writeLog } from '../log/log.queries'
import { homeOrg } from '../people/orgs.queries'
import { importRoster } from '../registrar/roster'
import { openZip, type Source } from './files/zip'
import { besideUploads, gathered } from './gathering'
import { importCourse, importTerm } from './import-course'
import type { Outcome } from './outcome'
import { findUpload, keepPackage, settleUpload, type Upload } from './uploads.queries'

type Progress = (done: number, total: number) => void
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

/** What one import works with. `source`: the bytes that lie aside. */
interface Importing {
  trx: Knex.Transaction
  job: Job
  upload: Upload
  source: Source
  limits: ReadLimits
  progress: Progress
}
async function importAsCourse(importing: Importing, request: Request<'course'>): Promise<Outcome> {
  const { trx, job, upload, source, limits, progress } = importing
  const sourceId = `upload:${upload.id}`
  const read = await readCartridge(await openZip(upload.name, source, limits), {
    courseKey: sourceId,
    limits,
    progress: (done, total) => progress(done, total * 2),
  })
  const content = { ...read.content, nodes: counting(read.content.nodes, progress) }
  const term = await findTerm(trx, request.term)
  if (!term) throw refuse('unknown-term', { term: request.term })
  const orgId = job.personId && (await homeOrg(trx, job.personId))
  if (!orgId) throw refuse('no-department')
  const { code, section, title } = request
  const courseId = await insertCourse(trx, {
    sourceId,
    termId: term.id,
    orgId,
    code,
    section,
    title,
    language: read.content.language?.slice(0, 40) ?? null,
    personId: job.personId,
  })
  const beside = await besideUploads(trx, job.personId, request.beside)
  const { document, findings } = await gathered(trx, read.content, beside, { ...request, classKey: sourceId })
  const found = await importCourse(trx, { classKey: sourceId, content, roster: null, document })
  await keepPackage(trx, upload, courseId)
  const outcome = {
    courseId,
    text: `Kept as ${codeText({ code, section })} ${title}, ${term.name}`,
    findings: [...findings, ...found],
  }
  for (const other of beside) await settleUpload(trx, other.id, { ...outcome, findings: [] })
  return outcome
}
async function importAsRoster(
  { trx, upload, source, limits, progress }: Importing,
  { tables }: Request<'roster'>,
): Promise<Outcome> {
  const archive = await openZip(upload.name, source, limits)
  const { roster, toBeDeleted } = await readOneRoster(archive, limits, progress, tables)
  const { findings } = await importRoster(trx, roster, { toBeDeleted })
  const { users, classes, enrollments } = roster
  return {
    text: `Brought in: ${users.length} people, ${classes.length} classes, ${enrollments.length} enrolments. Nothing was deleted.`,
    findings,
  }
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
    roster: null,
    document,
  })
  const course = await findCourseBySource(trx, document.class)
  return {
    ...(course && { courseId: course.id }),
    text: `Brought in: ${document.categories.length} grade categories, ${document.meetings.length} weekly meetings`,
    findings,
  }
}
function importAs(importing: Importing, request: ImportRequest): Promise<Outcome> {
  switch (request.as) {
    case 'course':
      return importAsCourse(importing, request)
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
/** The same nodes, which tell how many of their bodies have been written: the second half of the work. */
function counting(nodes: readonly CourseNode[], progress: Progress): CourseNode[] {
  let total = 0
  let done = 0
  const counted = (body: Body): Body => {
    total++
    return {
      ...body,
      async *chunks() {
        yield* body.chunks()
        progress(total + ++done, total * 2)
      },
    }
  }
  const walk = <T extends CourseNode>(node: T): T => ({
    ...node,
    ...('body' in node && node.body && { body: counted(node.body) }),
    children: node.children.map(walk),
  })
  return nodes.map(walk)
}

/** What a person can do about a file that could not be brought in. */
export const importProblem = (error: unknown): string =>
  error instanceof Refusal
    ? refusalText(error)
    : 'It could not be brought in. Nothing was changed; try again, and tell the help desk if it happens again.'
