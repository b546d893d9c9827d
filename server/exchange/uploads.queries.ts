import type { Knex } from 'knex'
import { now, stampOf } from '../clock'
import { json, jsonOf, newId, written } from '../db/rows'
import { inTransaction } from '../db/transaction'
import type { UploadRow } from '../db/tables'
import { holdJob, type HeldJob } from '../jobs/jobs.queries'
import type { FileRead } from './files/read'
import type { Outcome } from './outcome'

export interface Upload {
  id: string
  personId: string
  name: string
  size: number
  hash: string | null
  found: UploadRow['found']
  outcome: Outcome | null
  arrivedAt: string
}
const columns = ['id', 'person_id', 'name', 'size', 'hash', 'found', 'outcome', 'arrived_at'] as const
const uploadFrom = (row: Pick<UploadRow, (typeof columns)[number]>): Upload => ({
  id: row.id,
  personId: row.person_id,
  name: row.name,
  size: row.size,
  hash: row.hash,
  found: row.found,
  // Only outcomes are ever written (settleUpload).
  outcome: row.outcome && (jsonOf(row.outcome) as Outcome),
  arrivedAt: row.arrived_at,
})

/** Notes a file that is about to arrive; until it has, `size` is the room that is kept for it. */
export async function addUpload(db: Knex, personId: string, name: string, size: number): Promise<string> {
  const id = newId()
  await db('uploads').insert({ id, person_id: personId, name, size, arrived_at: stampOf(now()) })
  return id
}
export async function addPart(db: Knex, uploadId: string, part: number, bytes: Buffer): Promise<void> {
  await db('upload_parts').insert({ upload_id: uploadId, part, bytes })
}
export async function completeUpload(db: Knex, id: string, size: number, hash: string): Promise<void> {
  await db('uploads').where({ id }).update({ size, hash })
}

export async function findUpload(db: Knex, id: string): Promise<Upload | null> {
  const row = await db('uploads')
    .where({ id })
    .first(...columns)
  return row ? uploadFrom(row) : null
}
/** What was found in a file; it may be long. */
export async function loadReport(db: Knex, id: string): Promise<FileRead | null> {
  const row = await db('uploads').where({ id }).first('report')
  // Only reports are ever written (saveReport).
  return row?.report ? (jsonOf(row.report) as FileRead) : null
}
/** A person's latest files that have arrived whole. */
export async function uploadsOf(db: Knex, personId: string): Promise<Upload[]> {
  const rows = await db('uploads')
    .where({ person_id: personId })
    .whereNotNull('hash')
    .orderBy('id', 'desc')
    .limit(20)
    .select(...columns)
  return rows.map(uploadFrom)
}
/** Bytes of a person's files that lie aside now. */
export async function bytesAside(db: Knex, personId: string): Promise<number> {
  const row = await db('uploads')
    .where({ person_id: personId })
    .whereNull('outcome')
    // Room that was kept for a file whose sender has long gone is free again.
    .where(here =>
      here.whereNotNull('hash').orWhere('arrived_at', '>', stampOf(new Date(now().getTime() - 3_600_000))),
    )
    .sum<{ bytes: string | null }[]>({ bytes: 'size' })
    .first()
  return Number(row?.bytes ?? 0)
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
    yield row.bytes
  }
}
/** Writes down what was found, as long as the job is still its holder's. */
export async function saveReport(db: Knex, id: string, report: FileRead, job: HeldJob): Promise<void> {
  await inTransaction(db, async trx => {
    if (await holdJob(trx, job))
      await trx('uploads')
        .where({ id })
        .update({ found: report.outcome, report: json(report) })
  })
}
/** What became of an upload. Its bytes are not needed any more: a package is kept among the bodies. */
export async function settleUpload(db: Knex, id: string, outcome: Outcome): Promise<void> {
  await db('uploads')
    .where({ id })
    .update({ outcome: json(outcome) })
  await db('upload_parts').where({ upload_id: id }).delete()
}

/** Keeps an upload as the package of a course: its parts become a body, set by set. */
export async function keepPackage(db: Knex, upload: Upload, courseId: string): Promise<void> {
  const { id, hash, size, name } = upload
  if (hash === null) throw new Error(`the upload ${id} has not arrived whole`)
  await db('bodies')
    .insert({ hash, size, created_at: stampOf(now()) })
    .onConflict('hash')
    .ignore()
  await written(
    db,
    `INSERT IGNORE INTO body_parts (hash, part, bytes)
     SELECT :hash, part, bytes FROM upload_parts WHERE upload_id = :id`,
    { hash, id },
  )
  await db('courses').where({ id: courseId }).update({ package_hash: hash, package_name: name })
}
export interface KeptPackage {
  hash: string
  name: string
  size: number
}
/** The package a course was read from, where it was kept. */
export async function keptPackage(db: Knex, courseId: string): Promise<KeptPackage | null> {
  const row = await db('courses')
    .join('bodies', 'bodies.hash', 'courses.package_hash')
    .where('courses.id', courseId)
    .first('hash', 'package_name', 'size')
  return row ? { hash: row.hash, name: row.package_name ?? '', size: row.size } : null
}
