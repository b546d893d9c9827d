import type { Knex } from 'knex'
import type { ReadLimits } from '../../core/formats/limits'
import type { Job } from '../jobs/jobs.queries'
import type { Source } from './files/zip'
import type { Upload } from './uploads.queries'

export type Progress = (done: number, total: number) => void
/** What one import works with. `source`: the bytes that lie aside. */
export interface Importing {
  readonly trx: Knex.Transaction
  readonly job: Job
  readonly upload: Upload
  readonly source: Source
  readonly limits: ReadLimits
  readonly progress: Progress
}
