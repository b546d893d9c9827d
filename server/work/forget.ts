import type { Knex } from 'knex'
import { dropOldGuesses } from '../auth/guesses.queries'
import { dropOldBrowsers } from '../auth/known-browsers.queries'
import { dropOldSessions } from '../auth/sessions.queries'
import { dropOldTurns } from '../db/transaction'
import { dropOldUploads } from '../exchange/uploads.queries'
import { logSeldom } from '../http/logger'
import { dropOldJobs } from '../jobs/jobs.queries'
import { dropOldStates } from '../runs/states.queries'
import { daysKept, destroyOverdue } from '../student-data/clearing'

const hour = 3_600_000
async function forgetOld(db: Knex): Promise<void> {
  await dropOldUploads(db)
  await dropOldJobs(db)
  await dropOldTurns(db)
  await dropOldSessions(db)
  await dropOldGuesses(db)
  await dropOldBrowsers(db)
  await destroyOverdue(db)
  await dropOldStates(db, await daysKept(db))
}
/** Forgets, at once and each hour, what has had its time. Returns how to stop. */
export function startForgetting(db: Knex): () => void {
  const forget = (): void => {
    forgetOld(db).catch((error: unknown) => logSeldom('what is old could not be forgotten', error))
  }
  const clock = setInterval(forget, hour)
  forget()
  return () => clearInterval(clock)
}
