import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Knex } from 'knex'
import { log } from '../http/logger'
import { endJob, type Job } from './jobs.queries'

/** Does a job with a file of its own, which is gone afterwards; a fault of ours ends the job, whatever happens. */
export async function withFile(db: Knex, job: Job, work: (path: string) => Promise<void>): Promise<void> {
  const folder = await mkdtemp(join(tmpdir(), 'northtide-'))
  try {
    await work(join(folder, 'file'))
  } catch (error) {
    log.error({ err: error, job: job.id, kind: job.kind }, 'a job failed')
    await endJob(db, job, 'failed', 'An error here stopped it. Nothing was changed; try again.').catch(
      (lost: unknown) => log.error({ err: lost, job: job.id }, 'a job could not be ended; its lease will'),
    )
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}
