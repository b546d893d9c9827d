import type { Knex } from 'knex'
import { inTransaction, takeTurn } from '../db/transaction'
import { refuse } from '../errors/refusal'
import * as queries from './guesses.queries'
import type { Guess, GuessKind, Tally } from './guesses.queries'
import { hashOfSecret } from './secrets'

/**
 * Wrong guesses that cost nothing, in an hour. From one place at one name few; at one name from anywhere more, so that a stranger cannot
 * easily shut somebody out; from one place at any name more still, since a whole department may sit behind one address. In a browser
 * that the person has signed in with before, only what was guessed there counts.
 */
const free = { both: 5, name: 20, address: 50 }
const longestWait = 15 * 60

/** Seconds to wait after the last of so many wrong guesses: 1, 2, 4, 8 … once the free ones are used up, a quarter of an hour at most. */
export const waitAfter = (count: number, freeOnes: number): number =>
  count < freeOnes ? 0 : Math.min(longestWait, 2 ** (count - freeOnes))
const stillToWait = ({ count, secondsAgo }: Tally, freeOnes: number): number =>
  Math.ceil(waitAfter(count, freeOnes) - secondsAgo)

/** A known browser counts as a place of its own. */
const placeOf = (hash: string): string => `known ${hash.slice(0, 39)}`
const isKnown = ({ address }: Guess): boolean => address.startsWith('known ')
/** The wrong guesses that count against one: from there at this name, at this name, and from there. */
async function talliesOf(db: Knex, guess: Guess): Promise<{ tally: Tally; freeOnes: number }[]> {
  const { kind, name, address } = guess
  const both = { tally: await queries.tally(db, guess), freeOnes: free.both }
  if (isKnown(guess)) return [both]
  return [
    both,
    { tally: await queries.tally(db, { kind, name }), freeOnes: free.name },
    { tally: await queries.tally(db, { kind, address }), freeOnes: free.address },
  ]
}

/** Whose guess it is, of what: `name` as it was given (it is kept as a hash alone). */
export interface Guesser {
  kind: GuessKind
  name: string
  address: string
  /** What only this person's browser has (its secret's hash): there wrong guesses of others do not count. */
  known?: string | null
  /** Done once when the free guesses are used up: it goes into the log, where those after it do not, however many. */
  onStop?: () => Promise<void>
}
/**
 * Lets somebody guess at a secret, unless they have guessed wrongly too often; counted by the database, for all servers. A guess counts
 * as wrong from its beginning, so that many at once gain nothing. `right` says whether it was; one that could not be looked at
 * (a fault, too much to do) is not counted. @throws Refusal `too-many-guesses`, saying how long to wait
 */
export async function guessing<T>(
  db: Knex,
  { kind, name, address, known, onStop }: Guesser,
  guess: () => Promise<T>,
  right: (result: T) => boolean,
): Promise<T> {
  const counted = { kind, name: hashOfSecret(name), address: known ? placeOf(known) : address }
  const id = await inTransaction(db, async trx => {
    await takeTurn(trx, `guess ${kind} ${counted.address}`)
    await takeTurn(trx, `guess ${kind} ${counted.name}`)
    const tallies = await talliesOf(trx, counted)
    const seconds = Math.max(...tallies.map(({ tally, freeOnes }) => stillToWait(tally, freeOnes)))
    if (seconds > 0) throw refuse('too-many-guesses', { seconds })
    return queries.insertGuess(trx, counted)
  })
  let result: T
  try {
    result = await guess()
  } catch (error) {
    await queries.dropGuess(db, id)
    throw error
  }
  if (right(result)) await queries.dropGuessesOf(db, counted)
  else if ((await talliesOf(db, counted)).some(({ tally, freeOnes }) => tally.count === freeOnes))
    await onStop?.()
  return result
}
