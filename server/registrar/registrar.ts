import type { Knex } from 'knex'
import { FormatRefusal } from '../../core/formats/refusal'
import type { ReadLimits } from '../../core/formats/limits'
import { readOneRoster } from '../../core/formats/oneroster/read'
import type { RegistrarReply } from '../../shared/api/registrar'
import { isoInstant, now, stampOf } from '../clock'
import { readableCourses } from '../courses/access'
import { courseLines, lineIn } from '../courses/lines'
import { inTransaction, takeTurn } from '../db/transaction'
import { refuse, Refusal, refusalText } from '../errors/refusal'
import { openZip, type Source } from '../exchange/files/zip'
import { addJob, holdJob, latestJobs, type Job } from '../jobs/jobs.queries'
import { isOffice, type Person } from '../people/people.queries'
import { arriveRequests } from '../shells/requests.queries'
import { registrarAddress } from './address'
import * as queries from './fetches.queries'
import { importRoster } from './roster'

/** Asks for a fetch whose time has come. The real clock counts here, not the demo's; several servers make one fetch. */
export async function scheduleFetch(db: Knex): Promise<void> {
  const address = registrarAddress()
  if (address) await wantFetch(db, null, Math.floor(Date.now() / (address.minutes * 60_000)))
}
async function wantFetch(db: Knex, personId: string | null, period: number | null): Promise<string | null> {
  return inTransaction(db, async trx => {
    const id = await queries.insertFetch(trx, personId, period)
    if (id) await addJob(trx, { kind: 'fetch', subject: id, personId, payload: {} })
    return id
  })
}
/** Asks for a fetch now; one that is under way already is answered with. */
export async function askForFetch(db: Knex, person: Person): Promise<{ id: string }> {
  if (!registrarAddress()) throw refuse('no-registrar')
  return inTransaction(db, async trx => {
    await takeTurn(trx, 'fetch')
    const [latest] = await fetchesNow(trx, 1)
    if (latest?.state === 'waiting') return { id: latest.id }
    const id = await wantFetch(trx, person.id, null)
    if (!id) throw new Error('a fetch that stands for no stretch of time was not written')
    return { id }
  })
}

const listName = 'the registrar’s list'
const listFindings = 200

/** Brings a fetched bundle in, all or nothing, and notes what it changed. */
export async function importFetched(
  db: Knex,
  job: Job,
  etag: string,
  source: Source,
  limits: ReadLimits,
  progress: (done: number, total: number) => void,
): Promise<void> {
  const read = await readOneRoster(await openZip(listName, source, limits), limits, progress)
  await inTransaction(db, async trx => {
    const { findings, changes } = await importRoster(trx, read.roster, {
      whole: { modes: read.modes, findings: read.findings },
      toBeDeleted: read.toBeDeleted,
    })
    // The newest stands first where they are read, so the first of one list is written last.
    await queries.insertChanges(trx, job.subject, [...changes].reverse())
    await arriveRequests(trx)
    if (!(await holdJob(trx, job))) throw refuse('job-lost')
    const { users, classes, enrollments } = read.roster
    await queries.endFetch(trx, job.subject, {
      state: changes.length > 0 ? 'new' : 'same',
      etag,
      counts: { users: users.length, classes: classes.length, enrollments: enrollments.length },
      findings: [...read.findings, ...findings].slice(0, listFindings),
    })
  })
}
const unchanged = 'Nothing was changed here; what the registrar said before still stands.'
/** Why a fetch came to nothing, in words for whoever looks. */
export function fetchProblem(error: unknown): string {
  if (error instanceof Refusal) return `${refusalText(error)}. ${unchanged}`.replaceAll('..', '.')
  if (!(error instanceof FormatRefusal)) return `An error here stopped it. ${unchanged}`
  const where = error.where === listName ? '' : `${error.where} `
  return `The registrar’s list cannot be used: ${where}${error.reason}. ${unchanged}`
}

/** Fetches as they stand; one whose job was given up has failed. */
async function fetchesNow(db: Knex, most: number): Promise<queries.Fetch[]> {
  const fetches = await queries.latestFetches(db, most)
  const waiting = fetches.filter(fetch => fetch.state === 'waiting').map(fetch => fetch.id)
  const jobs = await latestJobs(db, waiting)
  return fetches.map(fetch => {
    const job = jobs.get(fetch.id)
    return job?.state === 'failed' ? { ...fetch, state: 'failed', problem: job.problem } : fetch
  })
}
/** Whether the registrar's list could not be had the last time. */
export async function registrarFails(db: Knex): Promise<boolean> {
  const [last] = (await fetchesNow(db, 20)).filter(fetch => fetch.state !== 'waiting')
  return last?.state === 'failed'
}

const shownDays = 30
/** What the registrar said lately, and what it changed in courses that a person may read. */
export async function readRegistrar(db: Knex, person: Person): Promise<RegistrarReply> {
  const fetches = await fetchesNow(db, 20)
  const since = stampOf(new Date(now().getTime() - shownDays * 86_400_000))
  const changes = await queries.changesIn(db, await readableCourses(db, person), since)
  const courses = changes.map(change => change.courseId)
  const lineOf = lineIn(await courseLines(db, person, courses))
  const office = isOffice(person)
  const address = registrarAddress()
  return {
    configured: address !== null,
    minutes: address?.minutes ?? null,
    fetches: fetches.map(fetch => ({
      ...fetch,
      startedAt: isoInstant(fetch.startedAt),
      finishedAt: fetch.finishedAt && isoInstant(fetch.finishedAt),
      findings: office ? fetch.findings : [],
    })),
    changes: changes.map(({ fetchId, courseId, ...change }) => ({
      ...change,
      fetch: fetchId,
      at: isoInstant(change.at),
      course: lineOf(courseId),
    })),
  }
}
