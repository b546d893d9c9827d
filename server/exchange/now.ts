import { Readable } from 'node:stream'
import type { Knex } from 'knex'
import { readLimits } from '../../core/formats/limits'
import { claimJob, endJob } from '../jobs/jobs.queries'
import type { Person } from '../people/people.queries'
import { importJob, readJob } from './file-jobs'
import { bufferSource } from './files/zip'
import type { Outcome } from './outcome'
import { findUpload, partsOf } from './uploads.queries'
import { receiveUpload, viewUpload } from './uploads'

const kinds = { read: readJob, import: importJob }
/** Does what waits for files, here and now: for a program that brings files in without an application running beside it. */
async function workNow(db: Knex): Promise<void> {
  for (let job = await claimJob(db, kinds); job; job = await claimJob(db, kinds)) {
    const upload = await findUpload(db, job.subject)
    const parts: Buffer[] = []
    for await (const part of partsOf(db, job.subject)) parts.push(part)
    const file = { name: upload?.name ?? '', path: '', source: bufferSource(Buffer.concat(parts)) }
    const { inThread } = kinds[job.kind as keyof typeof kinds]
    await inThread?.run(db, job as never, { ...file, limits: readLimits, progress: () => {} })
    await endJob(db, job, 'done')
  }
}
/** Sends a file as a person does on the page Files, and has it read. Answers its id. @throws where it is refused */
export async function sendNow(db: Knex, person: Person, name: string, bytes: Uint8Array): Promise<string> {
  const stream = Object.assign(Readable.from([Buffer.from(bytes)]), { headers: {} })
  const { id } = await receiveUpload(db, person, name, stream)
  await workNow(db)
  const { state, report } = await viewUpload(db, person, id)
  if (state !== 'read') throw new Error(`${name} is ${state}: ${JSON.stringify(report?.findings)}`)
  return id
}
/** Has a file brought in that was asked for, and answers what came of it. */
export async function broughtNow(db: Knex, id: string): Promise<Outcome> {
  await workNow(db)
  const upload = await findUpload(db, id)
  if (!upload?.outcome) throw new Error(`the file ${id} was not brought in`)
  return upload.outcome
}
