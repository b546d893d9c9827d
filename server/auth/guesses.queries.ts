import type { Knex } from 'knex'
import { newId } from '../db/rows'
import type { GuessRow } from '../db/tables'

export type GuessKind = GuessRow['kind']
/** What was guessed at, hashed, and from where. */
export interface Guess {
  kind: GuessKind
  name: string
  address: string
}
const hourAgo = 'DATE_SUB(UTC_TIMESTAMP(3), INTERVAL 1 HOUR)'

/** How many guesses of the last hour there were, and how many seconds ago the latest was. */
export interface Tally {
  count: number
  secondsAgo: number
}
/** Guesses of the last hour that failed, or are being looked at: by what is named. */
export async function tally(db: Knex, by: Partial<Guess> & Pick<Guess, 'kind'>): Promise<Tally> {
  const row = await db('guesses')
    .where(by)
    .where('at', '>', db.raw<string>(hourAgo))
    .first<{ count: number; since: string | null }>(
      db.raw('COUNT(*) AS count'),
      db.raw('TIMESTAMPDIFF(MICROSECOND, MAX(at), UTC_TIMESTAMP(3)) / 1000000 AS since'),
    )
  return { count: row.count, secondsAgo: Number(row.since ?? Infinity) }
}
export async function insertGuess(db: Knex, guess: Guess): Promise<string> {
  const id = newId()
  await db('guesses').insert({ ...guess, id, at: db.raw<string>('UTC_TIMESTAMP(3)') })
  return id
}
export const dropGuess = (db: Knex, id: string): Promise<number> => db('guesses').where({ id }).delete()
/** Forgets what was guessed wrongly before it was right. */
export const dropGuessesOf = (db: Knex, guess: Guess): Promise<number> => db('guesses').where(guess).delete()
export const dropOldGuesses = (db: Knex): Promise<number> =>
  db('guesses').where('at', '<', db.raw<string>(hourAgo)).delete()
