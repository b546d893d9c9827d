import type { Knex } from 'knex'
import { LRUCache } from 'lru-cache'
import { comparedBases } from '../../core/carry/base'
import { isSnapshot } from '../db/transaction'
import type { CourseAccess } from './access'
import { loadBases } from './carried.queries'
import { loadCarrySide } from './carry-side'
import { deletedIn } from './content.queries'
import { contentTally } from './tally.queries'

interface Known {
  readonly tally: string
  readonly value: object
  readonly size: number
}
/** About so many units, items and what was carried of them are kept by a process: some 30 MB. */
const keptAtMost = 60_000
const known = new LRUCache<string, Known>({ maxSize: keptAtMost, sizeCalculation: ({ size }) => size })
/** Tallies within a snapshot, where none of them can change. */
const talliesIn = new WeakMap<Knex, Map<string, string>>()

/** A course's tally as it stands now: whoever asks for several things of one course asks for it once. */
export async function tallyOf(db: Knex, courseId: string): Promise<string> {
  if (!isSnapshot(db)) return contentTally(db, courseId)
  const seen = talliesIn.get(db) ?? new Map<string, string>()
  talliesIn.set(db, seen)
  const tally = seen.get(courseId) ?? (await contentTally(db, courseId))
  seen.set(courseId, tally)
  return tally
}
/**
 * What was read of a course before, the very same object, as long as the course stands as it did: nothing is believed that the database does
 * not say again. Only what a snapshot reads is kept, as there tally and content are of one moment.
 */
async function knownOf<T extends object>(
  db: Knex,
  { courseId, what, tally }: { courseId: string; what: string; tally: string | undefined },
  load: () => Promise<T>,
  sizeOf: (value: T) => number,
): Promise<T> {
  const key = `${courseId} ${what}`
  const now = tally ?? (await tallyOf(db, courseId))
  const last = known.get(key)
  if (last?.tally === now) return last.value as T
  const value = await load()
  if (isSnapshot(db)) known.set(key, { tally: now, value, size: 1 + sizeOf(value) })
  return value
}

/** What a course holds ({@link loadCarrySide}), which is not read again as long as nobody changes it. */
export const carrySide = (
  db: Knex,
  courseId: string,
  withheld: CourseAccess['withheld'] = new Set(),
  withDeleted = false,
  tally?: string,
): ReturnType<typeof loadCarrySide> =>
  knownOf(
    db,
    {
      courseId,
      what: `${withDeleted ? 'with deleted' : 'shown'} without ${[...withheld].sort().join(' ')}`,
      tally,
    },
    () => loadCarrySide(db, courseId, withheld, withDeleted),
    ({ nodes }) => nodes.length,
  )
/** What was carried into a shell before, by files or by runs, and what somebody deleted there. */
export const carriedBefore = (db: Knex, courseId: string, ofFile: boolean, tally?: string) =>
  knownOf(
    db,
    { courseId, what: ofFile ? 'files before' : 'before', tally },
    async () => ({
      bases: comparedBases(await loadBases(db, courseId), ofFile),
      deleted: await deletedIn(db, courseId),
    }),
    ({ bases }) => bases.length,
  )
