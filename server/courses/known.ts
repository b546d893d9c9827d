import type { Knex } from 'knex'
import { LRUCache } from 'lru-cache'
import { isSnapshot } from '../db/transaction'
import type { CourseAccess } from './access'
import { loadBases } from './carried.queries'
import { loadCarrySide } from './carry-side'
import { deletedIn } from './content.queries'
import { contentStamp } from './stamps.queries'

interface Known {
  readonly stamp: string
  readonly value: object
  readonly size: number
}
/** About so many units, items and what was carried of them are kept by a process: some 30 MB. */
const keptAtMost = 60_000
const known = new LRUCache<string, Known>({ maxSize: keptAtMost, sizeCalculation: ({ size }) => size })
/** Stamps within a snapshot, where none of them can change. */
const stampsIn = new WeakMap<Knex, Map<string, string>>()

async function stampOfContent(db: Knex, courseId: string): Promise<string> {
  if (!isSnapshot(db)) return contentStamp(db, courseId)
  const seen = stampsIn.get(db) ?? new Map<string, string>()
  stampsIn.set(db, seen)
  const stamp = seen.get(courseId) ?? (await contentStamp(db, courseId))
  seen.set(courseId, stamp)
  return stamp
}
/**
 * What was read of a course before, the very same object, as long as the course stands as it did: nothing is believed that the database does
 * not say again. Only what a snapshot reads is kept, as there stamp and content are of one moment.
 */
async function knownOf<T extends object>(
  db: Knex,
  { courseId, what }: { courseId: string; what: string },
  load: () => Promise<T>,
  sizeOf: (value: T) => number,
): Promise<T> {
  const key = `${courseId} ${what}`
  const stamp = await stampOfContent(db, courseId)
  const last = known.get(key)
  if (last?.stamp === stamp) return last.value as T
  const value = await load()
  if (isSnapshot(db)) known.set(key, { stamp, value, size: 1 + sizeOf(value) })
  return value
}

/** What a course holds ({@link loadCarrySide}), which is not read again as long as nobody changes it. */
export const carrySide = (
  db: Knex,
  courseId: string,
  withheld: CourseAccess['withheld'] = new Set(),
  withDeleted = false,
): ReturnType<typeof loadCarrySide> =>
  knownOf(
    db,
    { courseId, what: `${withDeleted ? 'with deleted' : 'shown'} without ${[...withheld].sort().join(' ')}` },
    () => loadCarrySide(db, courseId, withheld, withDeleted),
    ({ nodes }) => nodes.length,
  )
/** What was carried into a shell before, and what somebody deleted there. */
export const carriedBefore = (db: Knex, courseId: string) =>
  knownOf(
    db,
    { courseId, what: 'before' },
    async () => ({ bases: await loadBases(db, courseId), deleted: await deletedIn(db, courseId) }),
    ({ bases }) => bases.length,
  )
