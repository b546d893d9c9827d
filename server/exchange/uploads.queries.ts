import type { Knex } from 'knex'
import type { FileRead } from './files/read'
import { holdJob, type Job } from '../jobs/jobs.queries'
import { now, stampOf } from '../clock'
import { jsonOf, newId } from '../db/rows'

export interface Upload {
  id: string
  personId: string
  name: string
  size: number
  hash: string | null
  found: FileRead['outcome'] | null
  outcome: Record<string, unknown> | null
  arrivedAt: string
}
const columns = ['id', 'person_id', 'name', 'size', 'hash', 'found', 'outcome', 'arrived_at']
const uploadOf = (row: Record<string, unknown>): Upload => ({
  id: String(row.id),
  personId: String(row.person_id),
  name: String(row.name),
  size: Number(row.size),
  hash: row.hash as string | null,
  found: row.found as Upload['found'],
  outcome: row.outcome ? jsonOf(row.outcome) : null,
  arrivedAt: String(row.arrived_at),
})

export async function addUpload(db: Knex, personId: string, name: string): Promise<string> {
  const id = newId()
  await db('uploads').insert({ id, person_id: personId, name, arrived_at: stampOf(now()) })
  return id
}
export const addPart = (db: Knex, uploadId: string, part: number, bytes: Buffer): Promise<unknown> =>
  db('upload_parts').insert({ upload_id: uploadId, part, bytes })
export const completeUpload = (db: Knex, id: string, size: number, hash: string): Promise<unknown> =>
  db('uploads').where({ id }).update({ size, hash })

export async function findUpload(db: Knex, id: string): Promise<Upload | null> {
  const row = await db('uploads').where({ id }).first(columns)
  return row ? uploadOf(row) : null
}
/** What was found in a file; it may be long. */
export async function loadReport(db: Knex, id: string): Promise<FileRead | null> {
  const row = await db('uploads').where({ id }).first('report')
  return row?.report ? jsonOf<FileRead>(row.report) : null
}
export async function uploadsOf(db: Knex, personId: string): Promise<Upload[]> {
  return (
    await db('uploads')
      .where({ person_id: personId })
      .whereNotNull('hash')
      .orderBy('id', 'desc')
      .limit(20)
      .select(columns)
  ).map(uploadOf)
}
/** Bytes of a person's files that lie aside now. */
export async function bytesAside(db: Knex, personId: string): Promise<number> {
  return Number(
    (await db('uploads').where({ person_id: personId }).whereNull('outcome').sum({ bytes: 'size' }).first())
      ?.bytes ?? 0,
  )
}
export async function dropUpload(db: Knex, id: string): Promise<void> {
  await db('uploads').where({ id }).delete()
}
/** Throws away what nobody has come back to for a day. */
export async function dropOldUploads(db: Knex): Promise<number> {
  const day = stampOf(new Date(now().getTime() - 86_400_000))
  return db('uploads').where('arrived_at', '<', day).delete()
}
/** The parts of an upload, one after another. */
export async function* partsOf(db: Knex, id: string): AsyncGenerator<Buffer> {
  for (let part = 0; ; part++) {
    const row = await db('upload_parts').where({ upload_id: id, part }).first('bytes')
    if (!row) return
    yield row.bytes as Buffer
  }
}
/** Writes down what was found, as long as the job is still its holder's. */
export async function saveReport(
  db: Knex,
  id: string,
  report: FileRead,
  job: Pick<Job, 'id' | 'token'>,
): Promise<void> {
  await db.transaction(async trx => {
    if (await holdJob(trx, job))
      await trx('uploads')
        .where({ id })
        .update({ found: report.outcome, report: JSON.stringify(report) })
  })
}
/** The zone of the latest term: calendars that speak in UTC are read in it. */
export async function loadTermZone(db: Knex): Promise<string | null> {
  return (await db('terms').orderBy('classes_from', 'desc').first('time_zone'))?.time_zone ?? null
}
/** What became of an upload. Its bytes are not needed any more: a package is kept among the bodies. */
export async function settleUpload(db: Knex, id: string, outcome: Record<string, unknown>): Promise<void> {
  await db('uploads')
    .where({ id })
    .update({ outcome: JSON.stringify(outcome) })
  await db('upload_parts').where({ upload_id: id }).delete()
}

/** Keeps an upload as the package of a course: its parts become a body, set by set. */
export async function keepPackage(db: Knex, upload: Upload, courseId: string): Promise<void> {
  await db('bodies')
    .insert({ hash: upload.hash, size: upload.size, created_at: stampOf(now()) })
    .onConflict('hash')
    .ignore()
  await db.raw(
    'INSERT IGNORE INTO body_parts (hash, part, bytes) SELECT ?, part, bytes FROM upload_parts WHERE upload_id = ?',
    [upload.hash, upload.id],
  )
  await db('courses').where({ id: courseId }).update({ package_hash: upload.hash, package_name: upload.name })
}
export async function keptPackage(
  db: Knex,
  courseId: string,
): Promise<{ hash: string; name: string; size: number } | null> {
  const row = await db('courses')
    .join('bodies', 'bodies.hash', 'courses.package_hash')
    .where('courses.id', courseId)
    .first('hash', 'package_name', 'size')
  return row ? { hash: row.hash, name: row.package_name, size: Number(row.size) } : null
}

export async function listTerms(
  db: Knex,
): Promise<
  { id: string; code: string; name: string; timeZone: string; classesFrom: string; classesTo: string }[]
> {
  return (
    await db('terms')
      .orderBy('classes_from', 'desc')
      .select('id', 'code', 'name', 'time_zone', 'classes_from', 'classes_to')
  ).map(row => ({
    id: row.id,
    code: row.code,
    name: row.name,
    timeZone: row.time_zone,
    classesFrom: row.classes_from,
    classesTo: row.classes_to,
  }))
}
/** The organisation that a person's new course belongs to: that of a course they are staff of, else of their duty. */
export async function homeOrg(db: Knex, personId: string): Promise<string | null> {
  const course = await db('enrolments')
    .join('courses', 'courses.id', 'enrolments.course_id')
    .where({ person_id: personId })
    .whereNull('dropped_at')
    .whereIn('role', ['instructor', 'assistant'])
    .orderBy('courses.id', 'desc')
    .first('org_id')
  return course?.org_id ?? (await db('duties').where({ person_id: personId }).first('org_id'))?.org_id ?? null
}
/** Makes a course by hand, with its person (where one is named) as instructor. */
export async function insertCourse(
  db: Knex,
  course: {
    sourceId: string
    termId: string
    orgId: string
    code: string
    section: string
    title: string
    language: string | null
    personId: string | null
    origin?: 'hand' | 'awaited' | 'template' | 'snapshot'
  },
): Promise<string> {
  const id = newId()
  await db('courses').insert({
    id,
    source_id: course.sourceId,
    term_id: course.termId,
    org_id: course.orgId,
    code: course.code,
    section: course.section,
    title: course.title,
    language: course.language,
    origin: course.origin ?? 'hand',
    created_at: stampOf(now()),
  })
  if (course.personId)
    await db('enrolments').insert({
      id: newId(),
      course_id: id,
      person_id: course.personId,
      role: 'instructor',
      is_primary: true,
      origin: 'hand',
    })
  return id
}
