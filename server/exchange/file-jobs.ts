import { createWriteStream } from 'node:fs'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { Knex } from 'knex'
import { z } from 'zod'
import { importRequest } from '../../shared/api/uploads'
import { latestZone } from '../calendars/terms.queries'
import { wallSeconds } from '../calendars/zones'
import { withFile } from '../jobs/file-job'
import { endJob, type Job } from '../jobs/jobs.queries'
import { jobKind, type OnAbandon } from '../jobs/kind'
import { runThread } from '../jobs/thread'
import { readFile } from './files/read'
import { importProblem, importUpload } from './import-file'
import { findUpload, partsOf, saveReport } from './uploads.queries'

/** Reads an upload, or brings it in, in a thread of its own. */
const workOffUpload = (db: Knex, job: Job, onAbandon: OnAbandon): Promise<void> =>
  withFile(db, job, async path => {
    const upload = await findUpload(db, job.subject)
    if (!upload) {
      await endJob(db, job, 'failed', 'The file is not here any more.')
      return
    }
    await pipeline(Readable.from(partsOf(db, job.subject)), createWriteStream(path, { mode: 0o600 }))
    const end = await runThread(db, { job, file: { name: upload.name, path } }, onAbandon)
    if (end?.type === 'failed') await endJob(db, job, 'failed', end.problem)
    else if (end) await endJob(db, job, 'done')
  })
const files = { lane: 'files', isHeavy: false, leaseSeconds: 30, triesAtMost: 3 } as const

/** Looks through an uploaded file, and keeps what was found. */
export const readJob = jobKind({
  ...files,
  payload: z.object({}),
  work: workOffUpload,
  inThread: {
    async run(db, job, { name, source, limits, progress }) {
      const zone = await latestZone(db)
      const local = zone === null ? null : wallSeconds(zone)
      await saveReport(db, job.subject, await readFile(name, source, { limits, progress, local }), job)
    },
    problem: () =>
      'The file could not be read because of an error here. Nothing was kept; try again, and tell the help desk if it happens again.',
  },
})
/** Brings an uploaded file in, as it was asked. */
export const importJob = jobKind({
  ...files,
  payload: importRequest,
  work: workOffUpload,
  inThread: {
    run: (db, job, { source, limits, progress }) => importUpload(db, job, source, limits, progress),
    problem: importProblem,
  },
})
