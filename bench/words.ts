import { present } from '../core/present'

let seed = 20270105
/** The same numbers in every run, from 0 up to 1. */
export const random = (): number => {
  seed = (Math.imul(seed, 1_103_515_245) + 12_345) >>> 0
  return seed / 2 ** 32
}
const syllables = 'ta ri mo lek sun dar vi post ne gal bru chi fen ost ram pel'.split(' ')
export const vocabulary = Array.from({ length: 4096 }, (_, n) =>
  [n % 16, (n >> 4) % 16, (n >> 8) % 16].map(at => syllables[at]).join(''),
)
/** A made-up word; few are frequent, as in any language (Zipf's law). */
export const word = (): string => present(vocabulary[Math.floor(vocabulary.length * random() ** 3)])
