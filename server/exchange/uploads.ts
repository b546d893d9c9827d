import { createHash } from 'node:crypto'
import type { IncomingMessage } from 'node:http'
import type { Knex } from 'knex'
import type { OutlineEntry } from '../../core/formats/report'
import type { ImportWish, UploadReply, UploadsReply } from '../../shared/api/uploads'
import { listTerms, type TermLine } from '../calendars/terms.queries'
import { isoInstant } from '../clock'
import { inParts } from '../courses/bodies.queries'
import { inTransaction, takeTurn } from '../db/transaction'
import { notFound, refuse, type Refusal } from '../errors/refusal'
import { chunksOf } from '../http/request'
import { addJob, cancelJobs, latestJobs, type JobView } from '../jobs/jobs.queries'
import { writeLog } from '../log/log.queries'
import { homeOrg } from '../people/orgs.queries'
import { isOffice, type Person } from '../people/people.queries'
import { todayHere } from '../shells/shells'
import { besideUploads } from './gathering'
import { withClosures } from './import-file'
import { uploadLimit } from './upload-limit'
import * as queries from './uploads.queries'

const nameOf = (path: string): string =>
  (path.split(/[/\\]/).at(-1) ?? '')
    .replace(/\p{Cc}/gu, '')
    .trim()
    .slice(0, 200)

/** The same bytes, counted and hashed on their way. @throws Refusal once there are more than may be. */
function counted(chunks: AsyncIterable<Buffer>, limit: number) {
  const hash = createHash('sha256')
  let size = 0
  async function* pass(): AsyncGenerator<Buffer> {
    for await (const chunk of chunks) {
      size += chunk.length
      if (size > limit) throw refuse('file-too-large', { limit })
      hash.update(chunk)
      yield chunk
    }
  }
  return { chunks: pass(), size: () => size, digest: () => hash.digest('hex') }
}
const isBrokenOff = (error: unknown): boolean =>
  error instanceof Error && 'code' in error && error.code === 'ECONNRESET'

/** Takes room for a file before any of it is read: as much as it says it has, or as much as one may have. @throws Refusal where there is none */
async function reserve(db: Knex, personId: string, name: string, size: number): Promise<string> {
  return inTransaction(db, async trx => {
    await takeTurn(trx, `uploads ${personId}`)
    if ((await queries.bytesAside(trx, personId)) + size > 4 * uploadLimit()) throw refuse('too-much-aside')
    return queries.addUpload(trx, personId, name, size)
  })
}

/** Lays a file aside, part by part as it arrives, and asks for it to be read. Nothing of it is in any course. */
export async function receiveUpload(
  db: Knex,
  person: Person,
  path: string,
  stream: Pick<IncomingMessage, 'iterator' | 'headers'>,
): Promise<{ id: string }> {
  const name = nameOf(path)
  const limit = uploadLimit()
  if (!name) throw refuse('file-unnamed')
  const declared = Number(stream.headers['content-length'] ?? 0)
  if (declared > limit) throw refuse('file-too-large', { limit })
  const id = await reserve(db, person.id, name, declared || limit)
  try {
    const file = counted(chunksOf(stream), limit)
    let part = 0
    for await (const bytes of inParts(file.chunks)) await queries.addPart(db, id, part++, bytes)
    const size = file.size()
    if (size === 0) throw refuse('file-empty')
    const hash = file.digest()
    await inTransaction(db, async trx => {
      await queries.completeUpload(trx, id, size, hash)
      await addJob(trx, { kind: 'read', subject: id, personId: person.id, payload: {} })
      await writeLog(trx, { action: 'upload.received', personId: person.id, detail: { name, size } })
    })
  } catch (error) {
    await queries.dropUpload(db, id)
    throw isBrokenOff(error) ? refuse('file-broken-off') : error
  }
  return { id }
}

function stateOf(upload: queries.Upload, job: JobView | undefined): UploadReply['state'] {
  if (upload.outcome) return 'imported'
  if (job?.state === 'waiting' || job?.state === 'running') {
    if (job.kind === 'import') return 'importing'
    return job.state === 'waiting' ? 'waiting' : 'reading'
  }
  if (job?.kind === 'read' && job.state === 'failed') return 'failed'
  return upload.found === 'refused' ? 'refused' : 'read'
}

export async function listUploads(db: Knex, person: Person): Promise<UploadsReply> {
  const uploads = await queries.uploadsOf(db, person.id)
  const ids = uploads.map(upload => upload.id)
  const jobs = await latestJobs(db, ids)
  return {
    limit: uploadLimit(),
    uploads: uploads.map(upload => ({
      id: upload.id,
      name: upload.name,
      size: upload.size,
      state: stateOf(upload, jobs.get(upload.id)),
      arrivedAt: isoInstant(upload.arrivedAt),
    })),
  }
}

const shownLines = 2000
const shownEvents = 1000
type OutlineLine = { title: string; kind: OutlineEntry['kind']; depth: number }
const flatten = (outline: readonly OutlineEntry[], depth = 0): OutlineLine[] =>
  outline.flatMap(({ title, kind, children }) => [
    { title, kind, depth },
    ...flatten(children ?? [], depth + 1),
  ])

type Report = NonNullable<Awaited<ReturnType<typeof queries.loadReport>>>
function reportTold(report: Report): NonNullable<UploadReply['report']> {
  const { format, findings, counts, events, outline, detail } = report
  const lines = flatten(outline)
  return {
    format,
    title: detail.title ?? null,
    version: detail.version ?? null,
    findings,
    outline: lines.slice(0, shownLines),
    outlineLeft: Math.max(0, lines.length - shownLines),
    counts,
    events: events.slice(0, shownEvents),
    eventsLeft: Math.max(0, events.length - shownEvents),
    table: detail.table ?? null,
    offered: [...(detail.offered ?? [])],
  }
}
/** The term that is offered first: for dates the one to come, for a course the one just past. Terms come the latest first. */
function offeredTerm(terms: readonly TermLine[], today: string, dates: boolean): string | null {
  const past = terms.find(term => term.classesTo < today)
  const coming = [...terms].reverse().find(term => term.classesTo >= today)
  return (dates ? (coming ?? past) : (past ?? coming))?.code ?? null
}

/** What was found in a file, how far the reading is, and what the person may do next. */
export async function viewUpload(db: Knex, person: Person, id: string): Promise<UploadReply> {
  const upload = await queries.findUpload(db, id)
  if (!upload?.hash) throw notFound('This file')
  const job = (await latestJobs(db, [id])).get(id)
  const report = await queries.loadReport(db, id)
  const terms = await listTerms(db)
  const isRead = report?.outcome === 'read'
  const dates = report?.format === 'icalendar' || Boolean(report?.detail.table)
  return {
    id,
    name: upload.name,
    size: upload.size,
    state: stateOf(upload, job),
    arrivedAt: isoInstant(upload.arrivedAt),
    progress: { done: job?.done ?? 0, total: job?.total ?? 0 },
    problem: job?.state === 'failed' ? job.problem : null,
    report: report && reportTold(report),
    outcome: upload.outcome,
    may: {
      keepAsCourse: isRead && report.format === 'common-cartridge',
      importRoster: isRead && report.format === 'oneroster' && isOffice(person),
      addClosures: isRead && dates && isOffice(person),
      importCalendar: isRead && report.format === 'term-calendar' && isOffice(person),
      importCourse: isRead && report.format === 'course-json' && isOffice(person),
      giveToCourse: isRead && ['course-json', 'sheet'].includes(report.detail.contribution?.as ?? ''),
      spreadLineItems: isRead && report.detail.contribution?.as === 'line-items',
    },
    terms,
    term: offeredTerm(terms, await todayHere(db), dates),
  }
}

/** Stops what is being done with a file and throws the file away. What has been brought in already stays where it is. */
export async function discardUpload(db: Knex, person: Person, id: string): Promise<void> {
  await inTransaction(db, async trx => {
    await takeTurn(trx, `upload ${id}`)
    const upload = await queries.findUpload(trx, id)
    if (!upload) throw notFound('This file')
    await cancelJobs(trx, id)
    await queries.dropUpload(trx, id)
    await writeLog(trx, { action: 'upload.discarded', personId: person.id, detail: { name: upload.name } })
  })
}

const termAsked = (request: ImportWish): string => ('term' in request ? (request.term ?? '') : '')
/** Why a file may not be brought in so; null: it may. */
function faultOf(view: UploadReply, request: ImportWish): Refusal | null {
  if (view.state === 'imported') return refuse('file-brought-in')
  if (view.state !== 'read') return refuse('file-not-ready')
  const { may: mayDo } = view
  const may: Record<ImportWish['as'], boolean> = {
    course: mayDo.keepAsCourse,
    roster: mayDo.importRoster,
    closures: mayDo.addClosures,
    calendar: mayDo.importCalendar,
    'course-json': mayDo.importCourse,
    said: mayDo.giveToCourse,
    'line-items': mayDo.spreadLineItems,
  }
  if (!may[request.as]) return refuse('file-for-office')
  const term = request.as === 'course' && (request.into || request.span) ? '' : termAsked(request)
  if (term !== '' && !view.terms.some(({ code }) => code === term)) return refuse('unknown-term', { term })
  return null
}
/** Asks for a file that has been read to be brought in. */
export async function askForImport(db: Knex, person: Person, id: string, request: ImportWish): Promise<void> {
  await inTransaction(db, async trx => {
    await takeTurn(trx, `upload ${id}`)
    const fault = faultOf(await viewUpload(trx, person, id), request)
    if (fault) throw fault
    if (request.as === 'course' && !(await homeOrg(trx, person.id))) throw refuse('no-department')
    if (request.as === 'closures') await withClosures(trx, request)
    if ('beside' in request) await besideUploads(trx, person.id, request.beside ?? [])
    await addJob(trx, { kind: 'import', subject: id, personId: person.id, payload: request })
  })
}

/** The package a course was read from, byte for byte. */
export async function coursePackage(db: Knex, courseId: string): Promise<queries.KeptPackage> {
  const found = await queries.keptPackage(db, courseId)
  if (!found) throw notFound('A package of this course')
  return found
}
