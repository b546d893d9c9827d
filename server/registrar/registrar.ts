import { createHash } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { Readable, Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { ReadableStream } from 'node:stream/web'
import type { Knex } from 'knex'
import { FormatRefusal } from '../../core/formats/findings'
import { readOneRoster } from '../../core/formats/oneroster/read'
import type { ReadLimits } from '../../core/formats/limits'
import type { RegistrarReply } from '../../shared/api/registrar'
import { readableCourses } from '../courses/access.queries'
import { inTransaction } from '../db/connection'
import { addJob, holdJob, latestJobs, type Job } from '../jobs/jobs.queries'
import type { Person } from '../people/people.queries'
import { arriveRequests } from '../shells/requests.queries'
import * as queries from './roster.queries'
import { openZip, type Source } from '../exchange/files/zip'
import { Problem } from '../http/problem'
import { isOffice } from '../courses/codes'
import { courseLines } from '../courses/lines'
import { importRoster } from './roster'
import { instantText, now, stampOf } from '../clock'
import { uploadLimit } from '../exchange/uploads'

export interface RegistrarAddress {
  url: string
  token: string
  minutes: number
  seconds: number
}
/** Where the registrar publishes, from NORTHTIDE_REGISTRAR_URL, _TOKEN, _MINUTES (between fetches) and _SECONDS (for one); null where none is named. */
export function registrarAddress(
  env: Record<string, string | undefined> = process.env,
): RegistrarAddress | null {
  if (!env.NORTHTIDE_REGISTRAR_URL) return null
  return {
    url: env.NORTHTIDE_REGISTRAR_URL,
    token: env.NORTHTIDE_REGISTRAR_TOKEN ?? '',
    minutes: Number(env.NORTHTIDE_REGISTRAR_MINUTES || 30),
    seconds: Number(env.NORTHTIDE_REGISTRAR_SECONDS || 120),
  }
}

/** Asks for a fetch whose time has come. The real clock counts here, not the demo's; several servers make one fetch. */
export async function scheduleFetch(db: Knex): Promise<void> {
  const address = registrarAddress()
  if (address) await wantFetch(db, null, Math.floor(Date.now() / (address.minutes * 60_000)))
}
async function wantFetch(db: Knex, personId: string | null, slot: number | null): Promise<string | null> {
  return inTransaction(db, async trx => {
    const id = await queries.insertFetch(trx, personId, slot)
    if (id) await addJob(trx, { kind: 'fetch', subject: id, personId, payload: {} })
    return id
  })
}
/** Asks for a fetch now; one that is under way already is answered with. */
export async function askForFetch(db: Knex, person: Person): Promise<{ id: string }> {
  if (!registrarAddress())
    throw new Problem(
      409,
      'No registrar is set up here',
      'Whoever runs Northtide names the registrar’s address (README, “Running it for real”).',
    )
  const latest = (await fetchesNow(db, 1))[0]
  return { id: latest?.state === 'waiting' ? latest.id : (await wantFetch(db, person.id, null))! }
}

/** A fetch that cannot be taken in, in words for whoever looks. */
export class RegistrarTrouble extends Error {
  override readonly name = 'RegistrarTrouble'
}
const listName = 'the registrar’s list'
const unchanged = 'Nothing was changed here; what the registrar said before still stands.'

/**
 * Fetches the registrar's bundle into a file. Answers null where it is the one taken in last.
 * @throws RegistrarTrouble where it cannot be had: not reached, too slow, refused, too large.
 */
export async function downloadBundle(
  db: Knex,
  path: string,
  beat: (bytes: number) => void,
  abandoned: AbortSignal,
): Promise<{ mark: string } | null> {
  const address = registrarAddress()
  if (!address) throw new RegistrarTrouble('No registrar is set up here any more.')
  const before = await queries.lastMark(db)
  const hash = createHash('sha256')
  let size = 0
  try {
    const answer = await fetch(address.url, {
      headers: {
        authorization: `Bearer ${address.token}`,
        accept: 'application/zip',
        ...(before && !before.startsWith('sha256:') && { 'if-none-match': before }),
      },
      signal: AbortSignal.any([AbortSignal.timeout(address.seconds * 1000), abandoned]),
      redirect: 'error',
    })
    if (answer.status === 304) return null
    if (answer.status === 401 || answer.status === 403)
      throw new RegistrarTrouble(
        `The registrar refused the access token (${answer.status}). ${unchanged} Whoever runs Northtide renews the token.`,
      )
    if (!answer.ok || !answer.body)
      throw new RegistrarTrouble(`The registrar answered ${answer.status}. ${unchanged}`)
    const limit = uploadLimit()
    const gauge = new Transform({
      transform(chunk: Buffer, _, done) {
        size += chunk.length
        hash.update(chunk)
        beat(size)
        done(
          size > limit
            ? new RegistrarTrouble(
                `The registrar sent more than ${Math.round(limit / 1048576)} MiB. ${unchanged}`,
              )
            : null,
          chunk,
        )
      },
    })
    await pipeline(
      Readable.fromWeb(answer.body as ReadableStream),
      gauge,
      createWriteStream(path, { mode: 0o600 }),
    )
    const stated = Number(answer.headers.get('content-length') ?? size)
    if (size !== stated)
      throw new RegistrarTrouble(
        `The registrar’s list broke off: ${size} of ${stated} bytes came. ${unchanged}`,
      )
    const mark = answer.headers.get('etag')?.slice(0, 190) ?? `sha256:${hash.digest('hex')}`
    return mark === before ? null : { mark }
  } catch (error) {
    if (error instanceof RegistrarTrouble) throw error
    const name = (error as Error).name
    if (name === 'TimeoutError' || name === 'AbortError')
      throw new RegistrarTrouble(
        `The registrar did not answer within ${address.seconds} seconds. ${unchanged}`,
      )
    if (size > 0)
      throw new RegistrarTrouble(`The registrar’s list broke off after ${size} bytes. ${unchanged}`)
    throw new RegistrarTrouble(`The registrar cannot be reached. ${unchanged}`)
  }
}

/** Takes a fetched bundle in, all or nothing, and notes what it changed. */
export async function takeFetched(
  db: Knex,
  job: Job,
  mark: string,
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
    if (!(await holdJob(trx, job))) throw new Error('the job is no longer ours; nothing was written')
    const { users, classes, enrollments } = read.roster
    await queries.endFetch(trx, job.subject, {
      state: changes.length > 0 ? 'new' : 'same',
      mark,
      counts: { users: users.length, classes: classes.length, enrollments: enrollments.length },
      findings: [...read.findings, ...findings].slice(0, 200),
    })
  })
}
export const fetchProblem = (error: unknown): string =>
  error instanceof RegistrarTrouble
    ? error.message
    : error instanceof FormatRefusal
      ? `The registrar’s list cannot be used: ${error.where === listName ? '' : `${error.where} `}${error.reason}. ${unchanged}`
      : `An error here stopped it. ${unchanged}`

/** Fetches as they stand; one whose job was given up has failed. */
async function fetchesNow(db: Knex, most: number): Promise<queries.FetchRow[]> {
  const rows = await queries.latestFetches(db, most)
  const jobs = await latestJobs(
    db,
    rows.filter(row => row.state === 'waiting').map(row => row.id),
  )
  return rows.map(row => {
    const job = jobs.get(row.id)
    return row.state === 'waiting' && job?.state === 'failed'
      ? { ...row, state: 'failed', problem: job.problem }
      : row
  })
}
/** Whether the latest fetch failed, and since when there has been no good one. */
export async function registrarTrouble(
  db: Knex,
): Promise<{ problem: string; lastGood: string | null } | null> {
  const fetches = (await fetchesNow(db, 20)).filter(row => row.state !== 'waiting')
  return fetches[0]?.state === 'failed'
    ? {
        problem: fetches[0].problem ?? '',
        lastGood: fetches.find(row => row.state !== 'failed')?.finishedAt ?? null,
      }
    : null
}

const shownDays = 30
/** What the registrar said lately, and what it changed in courses that a person may read. */
export async function readRegistrar(db: Knex, person: Person): Promise<RegistrarReply> {
  const fetches = await fetchesNow(db, 20)
  const changes = await queries.changesIn(
    db,
    await readableCourses(db, person),
    stampOf(new Date(now().getTime() - shownDays * 86_400_000)),
  )
  const lines = await courseLines(
    db,
    person,
    changes.map(change => change.courseId),
  )
  const office = isOffice(person)
  return {
    configured: registrarAddress() !== null,
    minutes: registrarAddress()?.minutes ?? null,
    fetches: fetches.map(({ mark: _, ...row }) => ({
      ...row,
      startedAt: instantText(row.startedAt),
      finishedAt: row.finishedAt && instantText(row.finishedAt),
      findings: office ? (row.findings as RegistrarReply['fetches'][number]['findings']) : [],
    })),
    changes: changes.map(change => ({
      id: change.id,
      fetch: change.fetchId,
      at: instantText(change.at),
      course: lines.get(change.courseId)!,
      kind: change.kind,
      count: change.count,
      detail: change.detail,
    })),
  }
}
