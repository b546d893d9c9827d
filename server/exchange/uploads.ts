import { createHash } from 'node:crypto'
import type { IncomingMessage } from 'node:http'
import type { Knex } from 'knex'
import type { Body, CourseNode } from '../../core/course/model'
import { readCartridge } from '../../core/formats/cartridge/read'
import type { ReadLimits } from '../../core/formats/limits'
import { readOneRoster } from '../../core/formats/oneroster/read'
import type { OutlineEntry } from '../../core/formats/report'
import { checkCalendar } from '../../core/calendar/check'
import type { TermCalendar } from '../../core/calendar/schema'
import type { TakeRequest, UploadReply, UploadsReply } from '../../shared/api/uploads'
import { inTransaction } from '../db/connection'
import { bodyParts, inParts } from '../courses/bodies.queries'
import { addJob, cancelJobs, holdJob, latestJobs, type Job, type JobView } from '../jobs/jobs.queries'
import { writeLog } from '../log/log.queries'
import type { Person } from '../people/people.queries'
import { loadTermCalendar } from '../calendars/terms.queries'
import * as uploads from './uploads.queries'
import { openZip, type Source } from './files/zip'
import { notFound, Problem } from '../http/problem'
import { isOffice } from '../courses/codes'
import { importCourse, importTerm, ImportRefusal } from './import-course'
import { importRoster } from '../registrar/roster'
import { instantText, now, wallClock } from '../clock'
import { isTimeZone } from '../calendars/zones'

/** Bytes that one uploaded file may have; NORTHTIDE_LIMIT_UPLOAD_BYTES. */
export function uploadLimit(env: Record<string, string | undefined> = process.env): number {
  const value = Number(env.NORTHTIDE_LIMIT_UPLOAD_BYTES || 512 * 1024 * 1024)
  if (!Number.isSafeInteger(value) || value < 1)
    throw new Error(
      `NORTHTIDE_LIMIT_UPLOAD_BYTES is ${JSON.stringify(env.NORTHTIDE_LIMIT_UPLOAD_BYTES)}; it must be a whole number above 0`,
    )
  return value
}
const cleanName = (name: string): string =>
  (name.split(/[/\\]/).at(-1) ?? '')
    .replace(/\p{Cc}/gu, '')
    .trim()
    .slice(0, 200)

/** Lays a file aside, part by part as it arrives, and asks for it to be read. Nothing of it is in any course. */
export async function receiveUpload(
  db: Knex,
  person: Person,
  name: string,
  stream: IncomingMessage,
): Promise<{ id: string }> {
  const fileName = cleanName(name)
  const limit = uploadLimit()
  const tooLarge = () =>
    new Problem(
      413,
      'The file is too large',
      `At most ${Math.round(limit / 1048576)} MiB are taken. Nothing was kept.`,
      [{ field: 'file', message: `has more than ${limit} bytes` }],
    )
  if (!fileName)
    throw new Problem(400, 'The file has no name', undefined, [
      { field: 'name', message: 'Give the name of the file.' },
    ])
  if (Number(stream.headers['content-length'] ?? 0) > limit) throw tooLarge()
  if ((await uploads.bytesAside(db, person.id)) >= 4 * limit)
    throw new Problem(
      409,
      'Too much of yours lies here',
      'Throw away a file on this page that you do not need, then send this one again. Nothing was kept.',
    )
  const id = await uploads.addUpload(db, person.id, fileName)
  const hash = createHash('sha256')
  let size = 0
  try {
    let part = 0
    for await (const bytes of inParts(counted(stream))) await uploads.addPart(db, id, part++, bytes)
    if (size === 0)
      throw new Problem(400, 'The file is empty', 'Nothing was kept.', [
        { field: 'file', message: 'holds no bytes' },
      ])
    await inTransaction(db, async trx => {
      await uploads.completeUpload(trx, id, size, hash.digest('hex'))
      await addJob(trx, { kind: 'read', subject: id, personId: person.id, payload: {} })
      await writeLog(trx, {
        action: 'upload.received',
        personId: person.id,
        detail: { name: fileName, size },
      })
    })
  } catch (error) {
    await uploads.dropUpload(db, id)
    if ((error as { code?: string }).code === 'ECONNRESET')
      throw new Problem(400, 'The file did not arrive whole', 'Nothing was kept. Send it again.')
    throw error
  }
  return { id }

  async function* counted(chunks: AsyncIterable<Buffer>): AsyncGenerator<Buffer> {
    for await (const chunk of chunks) {
      if ((size += chunk.length) > limit) throw tooLarge()
      hash.update(chunk)
      yield chunk
    }
  }
}

const stateOf = (upload: uploads.Upload, job: JobView | undefined): UploadReply['state'] => {
  if (upload.outcome) return 'taken'
  if (job?.state === 'waiting' || job?.state === 'running')
    return job.kind === 'take' ? 'taking' : job.state === 'waiting' ? 'waiting' : 'reading'
  if (job?.kind === 'read' && job.state === 'failed') return 'failed'
  return upload.found === 'refused' ? 'refused' : 'read'
}

export async function listUploads(db: Knex, person: Person): Promise<UploadsReply> {
  const found = await uploads.uploadsOf(db, person.id)
  const jobs = await latestJobs(
    db,
    found.map(upload => upload.id),
  )
  return {
    limit: uploadLimit(),
    uploads: found.map(upload => ({
      id: upload.id,
      name: upload.name,
      size: upload.size,
      state: stateOf(upload, jobs.get(upload.id)),
      arrivedAt: instantText(upload.arrivedAt),
    })),
  }
}

const shownLines = 2000
const shownEvents = 1000
type OutlineLine = { title: string; kind: OutlineEntry['kind']; depth: number }
function flatten(outline: readonly OutlineEntry[], depth = 0, into: OutlineLine[] = []): OutlineLine[] {
  for (const entry of outline) {
    into.push({ title: entry.title, kind: entry.kind, depth })
    if (entry.children) flatten(entry.children, depth + 1, into)
  }
  return into
}

/** What was found in a file, how far the reading is, and what the person may do next. */
export async function viewUpload(db: Knex, person: Person, id: string): Promise<UploadReply> {
  const upload = await uploads.findUpload(db, id)
  if (!upload?.hash) throw notFound('This file')
  const job = (await latestJobs(db, [id])).get(id)
  const report = await uploads.loadReport(db, id)
  const terms = await uploads.listTerms(db)
  const today = wallClock(now(), terms[0]?.timeZone ?? 'UTC').slice(0, 10)
  const past = terms.find(term => term.classesTo < today)
  const coming = [...terms].reverse().find(term => term.classesTo >= today)
  const lines = flatten(report?.outline ?? [])
  const read = report?.outcome === 'read'
  const dates = report?.format === 'icalendar' || Boolean(report?.detail.table)
  return {
    id,
    name: upload.name,
    size: upload.size,
    state: stateOf(upload, job),
    arrivedAt: instantText(upload.arrivedAt),
    progress: { done: job?.done ?? 0, total: job?.total ?? 0 },
    problem: job?.state === 'failed' ? job.problem : null,
    report: report && {
      format: report.format,
      title: report.detail.title ?? null,
      version: report.detail.version ?? null,
      findings: report.findings,
      outline: lines.slice(0, shownLines),
      outlineLeft: Math.max(0, lines.length - shownLines),
      counts: report.counts,
      events: report.events.slice(0, shownEvents),
      eventsLeft: Math.max(0, report.events.length - shownEvents),
      table: report.detail.table ?? null,
    },
    outcome: upload.outcome as UploadReply['outcome'],
    may: {
      keepAsCourse: read && report.format === 'common-cartridge',
      takeRoster: read && report.format === 'oneroster' && isOffice(person),
      addClosures: read && dates && isOffice(person),
    },
    terms,
    term: (dates ? (coming ?? past) : (past ?? coming))?.code ?? null,
  }
}

/** Stops what is being done with a file and throws the file away. What has been taken in already stays where it is. */
export async function discardUpload(db: Knex, person: Person, id: string): Promise<void> {
  await inTransaction(db, async trx => {
    await cancelJobs(trx, id)
    await uploads.dropUpload(trx, id)
    await writeLog(trx, { action: 'upload.discarded', personId: person.id, detail: { upload: id } })
  })
}

/** Asks for a file that has been read to be taken in. */
export async function askToTake(db: Knex, person: Person, id: string, request: TakeRequest): Promise<void> {
  const view = await viewUpload(db, person, id)
  if (view.state !== 'read')
    throw new Problem(
      409,
      view.state === 'taken'
        ? 'This file has been taken in already'
        : 'This file cannot be taken in as it stands',
      'Nothing was changed.',
    )
  const may = { course: view.may.keepAsCourse, roster: view.may.takeRoster, closures: view.may.addClosures }[
    request.as
  ]
  if (!may)
    throw new Problem(
      403,
      'This is for the academic office',
      'Nothing was changed. Ask the academic office to bring the file in.',
    )
  if ('term' in request && !view.terms.some(term => term.code === request.term))
    throw new Problem(400, 'There is no such term', undefined, [
      { field: 'term', message: `${request.term} is not a term here.` },
    ])
  if (request.as === 'course' && !(await uploads.homeOrg(db, person.id)))
    throw new Problem(
      409,
      'There is no department for this course',
      'You teach no course here yet, so it is not known where a new one belongs. Ask the academic office. Nothing was changed.',
    )
  if (request.as === 'closures') await withClosures(db, request)
  await addJob(db, { kind: 'take', subject: id, personId: person.id, payload: request })
}

/** The calendar of a term with further closures. @throws Problem where they do not fit it. */
async function withClosures(
  db: Knex,
  request: Extract<TakeRequest, { as: 'closures' }>,
): Promise<{ calendar: TermCalendar; added: number }> {
  const calendar = await loadTermCalendar(db, request.term)
  const there = new Set(calendar.closures.map(closure => `${closure.from} ${closure.to} ${closure.name}`))
  const fresh = request.events
    .map(event => ({ from: event.firstDay, to: event.lastDay, name: event.title, kind: '' }))
    .filter(closure => !there.has(`${closure.from} ${closure.to} ${closure.name}`))
  const { calendar: checked, faults } = checkCalendar(
    { ...calendar, closures: [...calendar.closures, ...fresh].sort((a, b) => (a.from < b.from ? -1 : 1)) },
    isTimeZone,
  )
  if (!checked)
    throw new Problem(
      400,
      'These days do not fit the term',
      'Nothing was changed.',
      faults.map(fault => ({ field: fault.path.join('.'), message: fault.message })),
    )
  return { calendar: checked, added: fresh.length }
}

/** Takes a file in, all or nothing: what was read is read again from the bytes that lie aside. `source`: those bytes. */
export async function takeUpload(
  db: Knex,
  job: Job,
  source: Source,
  limits: ReadLimits,
  progress: (done: number, total: number) => void,
): Promise<void> {
  const request = job.payload as TakeRequest
  const upload = await uploads.findUpload(db, job.subject)
  if (!upload) return
  await inTransaction(db, async trx => {
    let outcome: NonNullable<UploadReply['outcome']>
    if (request.as === 'course') {
      const sourceId = `upload:${upload.id}`
      const read = await readCartridge(await openZip(upload.name, source, limits), {
        courseKey: sourceId,
        limits,
        progress: (done, total) => progress(done, total * 2),
      })
      const content = { ...read.content, nodes: counting(read.content.nodes, progress) }
      const term = (await uploads.listTerms(trx)).find(entry => entry.code === request.term)!
      const courseId = await uploads.insertCourse(trx, {
        sourceId,
        termId: term.id,
        orgId: (await uploads.homeOrg(trx, job.personId!))!,
        code: request.code,
        section: request.section,
        title: request.title,
        language: read.content.language?.slice(0, 40) ?? null,
        personId: job.personId!,
      })
      await importCourse(trx, { classKey: sourceId, content, roster: null, document: null })
      await uploads.keepPackage(trx, upload, courseId)
      outcome = {
        courseId,
        text: `Kept as ${request.code}${request.section ? `-${request.section}` : ''} ${request.title}, ${term.name}`,
        findings: [],
      }
    } else if (request.as === 'roster') {
      const { roster } = await readOneRoster(await openZip(upload.name, source, limits), limits, progress)
      const { findings } = await importRoster(trx, roster)
      outcome = {
        text: `Brought in: ${roster.users.length} people, ${roster.classes.length} classes, ${roster.enrollments.length} enrolments. Nothing was deleted.`,
        findings,
      }
    } else {
      const { calendar, added } = await withClosures(trx, request)
      await importTerm(trx, calendar)
      outcome = {
        text: `${added} ${added === 1 ? 'closure was' : 'closures were'} added to ${calendar.name}${added < request.events.length ? `; ${request.events.length - added} stood there already` : ''}`,
        findings: [],
      }
    }
    // Only now is the job held: until here it could be cancelled, and its holder could say how far it was.
    if (!(await holdJob(trx, job))) throw new Error('the job is no longer ours; nothing was written')
    await uploads.settleUpload(trx, upload.id, outcome)
    await writeLog(trx, {
      action: 'upload.taken',
      personId: job.personId!,
      ...(outcome.courseId && { courseId: outcome.courseId }),
      detail: { name: upload.name, as: request.as },
    })
  })
}
/** The same nodes, which tell how many of their bodies have been taken: the second half of the work. */
function counting(
  nodes: readonly CourseNode[],
  progress: (done: number, total: number) => void,
): CourseNode[] {
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

/** What a person can do about a file that could not be taken in. */
export const takeProblem = (error: unknown): string =>
  error instanceof ImportRefusal || error instanceof Problem
    ? error.message
    : 'It could not be taken in. Nothing was changed; try again, and tell the help desk if it happens again.'

/** The package a course was read from, byte for byte. */
export async function coursePackage(
  db: Knex,
  courseId: string,
): Promise<{ name: string; size: number; bytes: AsyncIterable<Buffer> }> {
  const found = await uploads.keptPackage(db, courseId)
  if (!found) throw notFound('A package of this course')
  return { name: found.name, size: found.size, bytes: bodyParts(db, found.hash) }
}
