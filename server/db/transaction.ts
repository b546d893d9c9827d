import { setTimeout as pause } from 'node:timers/promises'
import type { Knex } from 'knex'
import { refuse } from '../errors/refusal'
import { isAway, isPassing } from './trouble'

const attemptsAtMost = 6
/** The first pause lasts up to this many milliseconds; each further one up to twice the one before. */
const firstPause = 25
const isTransaction = (db: Knex): db is Knex.Transaction => db.isTransaction === true

/**
 * Does some work in one transaction: all of it or nothing. Within a transaction it is part of that one, and only the outermost is
 * begun again where the database gave way to another (a deadlock, or a certification failure in a cluster): after one the
 * whole transaction is gone, whatever depth it was met at. What is begun again must keep nothing of its own between the attempts.
 * @throws Refusal `busy` where it gave way every time; `outcome-unknown` where the connection was lost while it was committed, so that
 * nobody here knows whether it was.
 */
export async function inTransaction<T>(db: Knex, work: (trx: Knex.Transaction) => Promise<T>): Promise<T> {
  return isTransaction(db) ? work(db) : attempted(db, work, {})
}
/** Transactions that see the database as it stood at one moment. */
const snapshots = new WeakSet<Knex>()
/** Whether all that is read here stood so at one and the same moment. */
export const isSnapshot = (db: Knex): boolean => snapshots.has(db)
/** Reads something in a transaction of its own that sees all as it stood at one moment, and writes nothing; within another it is part of that. */
export async function inSnapshot<T>(db: Knex, work: (trx: Knex.Transaction) => Promise<T>): Promise<T> {
  if (isTransaction(db)) return work(db)
  const reads = (trx: Knex.Transaction): Promise<T> => {
    snapshots.add(trx)
    return work(trx)
  }
  return attempted(db, reads, { isolationLevel: 'repeatable read' })
}
async function attempted<T>(
  db: Knex,
  work: (trx: Knex.Transaction) => Promise<T>,
  config: Knex.TransactionConfig,
): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    let committing = false
    try {
      return await db.transaction(async trx => {
        const result = await work(trx)
        committing = true
        return result
      }, config)
    } catch (error) {
      if (committing && isAway(error)) throw refuse('outcome-unknown')
      if (!isPassing(error)) throw error
      if (attempt >= attemptsAtMost) throw refuse('busy')
      await pause(Math.random() * firstPause * 2 ** attempt)
    }
  }
}

/**
 * Waits until nobody else holds a turn of this name, and holds it for the rest of the transaction. The row is *written*: in a cluster
 * a lock on a row that nobody writes ends at its node, while of two that write one row only one is committed.
 */
export async function takeTurn(trx: Knex, name: string): Promise<void> {
  await trx.raw(
    `INSERT INTO turns (name, taken, at) VALUES (:name, 1, UTC_TIMESTAMP(3))
     ON DUPLICATE KEY UPDATE taken = taken + 1, at = UTC_TIMESTAMP(3)`,
    { name },
  )
}
/** Forgets turns that nobody has taken for a day: whoever comes next begins the row anew. */
export const dropOldTurns = (db: Knex): Promise<number> =>
  db('turns').where('at', '<', db.raw<string>('DATE_SUB(UTC_TIMESTAMP(3), INTERVAL 1 DAY)')).delete()
