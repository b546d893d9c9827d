import type { Knex } from 'knex'
import type { z } from 'zod'
import type { ReadLimits } from '../../core/formats/limits'
import type { Source } from '../exchange/files/zip'
import type { Job } from './jobs.queries'

/** Tells how the work may be given up from outside. */
export type OnAbandon = (give: () => void) => void
/** What the thread of a job is given of its file: what it is called, where its bytes lie, and (of a registrar's list) which version it is. */
export interface JobFile {
  readonly name: string
  readonly path: string
  readonly etag?: string
}
/** How a file is worked on in a thread of its own, and what a person is told where that fails. */
export interface FileWork<P> {
  run(
    db: Knex,
    job: Job<P>,
    file: JobFile & {
      readonly source: Source
      readonly limits: ReadLimits
      readonly progress: (done: number, total: number) => void
    },
  ): Promise<void>
  readonly problem: (error: unknown) => string
}
/** Everything that there is to know of one kind of job. */
export interface JobKind<P extends z.ZodType = z.ZodType> {
  /** Jobs of one lane wait for one another; lanes do not. */
  readonly lane: string
  /** Takes a core for a while: it is done in the thread of the runs, beside which requests are answered. */
  readonly isHeavy: boolean
  /** So many seconds after its holder was heard of last, another process goes on with it. */
  readonly leaseSeconds: number
  /** So often it is begun before it is given up. */
  readonly triesAtMost: number
  /** What it is asked with. */
  readonly payload: P
  /** Does it, and ends it. A method, so that kinds of different payloads stand in one list. */
  work(db: Knex, job: Job<z.output<P>>, onAbandon: OnAbandon): Promise<void>
  readonly inThread?: FileWork<z.output<P>>
}
export const jobKind = <P extends z.ZodType>(kind: JobKind<P>): JobKind<P> => kind
/** Kinds by their names, as they stand in the database. */
export type JobKinds = Readonly<Record<string, JobKind>>
