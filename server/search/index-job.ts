import type { Knex } from 'knex'
import { z } from 'zod'
import { inTransaction } from '../db/transaction'
import { logSeldom } from '../http/logger'
import { endJob, postponeJob, type Job } from '../jobs/jobs.queries'
import { jobKind } from '../jobs/kind'
import { keepSearchable } from './index.queries'
import { ownText } from './plain-text'

/** Makes a course ready to be searched. What it would find is there at the latest when the next person looks for it by words. */
async function workOffIndex(db: Knex, job: Job): Promise<void> {
  try {
    await inTransaction(db, trx => keepSearchable(trx, job.subject, ownText))
    await endJob(db, job, 'done')
  } catch (error) {
    logSeldom('a course could not be made ready to be searched', error)
    await postponeJob(db, job, 30, 'It could not be done; it is tried again.')
  }
}
export const indexJob = jobKind({
  lane: 'index',
  isHeavy: true,
  leaseSeconds: 30,
  triesAtMost: 3,
  payload: z.object({}),
  work: workOffIndex,
})
