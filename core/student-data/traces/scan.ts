import { folded, wordsOf, type Word } from './fold'
import { ordinaryWords } from './ordinary'
import { patternsOf, traceKinds, type Pattern, type TracedPerson, type TraceKind } from './people'

/** Somebody told in a text: where, by what, and whom it may be. */
export interface Hit {
  readonly from: number
  readonly to: number
  readonly kind: TraceKind
  readonly people: readonly string[]
}
/** People by the first word of all that tells them. */
export interface PeopleIndex {
  readonly byFirst: ReadonlyMap<string, readonly Pattern[]>
}
/** Prepares a roster for {@link scan}. */
export function peopleIndex(people: readonly TracedPerson[]): PeopleIndex {
  const byFirst = new Map<string, Pattern[]>()
  for (const pattern of people.flatMap(patternsOf)) {
    const [first] = pattern.words
    if (first === undefined) continue
    const list = byFirst.get(first)
    if (list) list.push(pattern)
    else byFirst.set(first, [pattern])
  }
  // What is longest counts; of two as long that which tells more.
  const order = (a: Pattern, b: Pattern): number =>
    b.words.length - a.words.length || Number(b.exact !== null) - Number(a.exact !== null)
  for (const list of byFirst.values()) list.sort(order)
  return { byFirst }
}

/** What may stand between two words of a name: blanks, a comma, a full stop, a hyphen, a line of a file's name; not a sentence's end. */
const between = /^(?:[\s\u00a0]*[,;.·\t][\s\u00a0]*|[\s\u00a0]+|[-‐‑'’_+]|[\s\u00a0]*[\r\n][\s\u00a0]*)?$/
const isBetween = (text: string, from: number, to: number): boolean =>
  to - from <= 6 && (to === from || between.test(text.slice(from, to)))

/** Whether a pattern stands where the words of a text begin; answers where it ends, or -1. */
function endOf(pattern: Pattern, text: string, words: readonly Word[], at: number): number {
  const last = words[at + pattern.words.length - 1]
  const first = words[at]
  if (!first || !last) return -1
  for (let step = 1; step < pattern.words.length; step++)
    if (words[at + step]?.folded !== pattern.words[step]) return -1
  if (pattern.exact !== null) return folded(text.slice(first.from, last.to)) === pattern.exact ? last.to : -1
  for (let step = 1; step < pattern.words.length; step++)
    if (!isBetween(text, words[at + step - 1]?.to ?? 0, words[at + step]?.from ?? 0)) return -1
  return last.to
}
const hasCapital = /^\p{Lu}/u
/** Whether what stands there is meant as a name: by its capitals, and by what tells initials from single letters. */
function looksLikeName(pattern: Pattern, text: string, words: readonly Word[], at: number): boolean {
  if (pattern.exact !== null) return true
  const own = words.slice(at, at + pattern.words.length)
  const isCapital = (word: Word): boolean => hasCapital.test(text.slice(word.from, word.to))
  if (pattern.isInitials) {
    const told = own.every(
      word =>
        isCapital(word) &&
        (word.to - word.from > 1 || text[word.to] === '.' || text[word.to] === '’' || text[word.to] === "'"),
    )
    const [first, second] = own
    const isListed =
      own.every(isCapital) && first && second && text.slice(first.to, second.from).includes(',')
    return told || Boolean(isListed)
  }
  if (!traceKinds[pattern.kind].isStrong) return own.every(isCapital)
  return own.some(isCapital) || !own.every(word => ordinaryWords.has(word.folded))
}

/**
 * Everybody who is told in a text, from its beginning to its end; hits do not overlap. `onSmall` hears of each word that is a name and
 * stands there in small letters.
 */
export function scan(text: string, { byFirst }: PeopleIndex, onSmall?: (word: string) => void): Hit[] {
  const hits: Hit[] = []
  let words: Word[] | null = null
  let index = -1
  for (const word of wordsOf(text)) {
    index++
    const patterns = byFirst.get(word.folded)
    if (!patterns || word.from < (hits.at(-1)?.to ?? 0)) continue
    words ??= [...wordsOf(text)]
    const hit = hitAt(patterns, text, words, index)
    if (hit) hits.push(hit)
    else if (onSmall && isSmallWord(text, word)) onSmall(word.folded)
  }
  return hits
}
/** A word in small letters that is no part of an address or of a file's name. */
const isSmallWord = (text: string, { from, to }: Word): boolean =>
  !hasCapital.test(text.slice(from, to)) &&
  !/[@._/\-]/.test(text[from - 1] ?? ' ') &&
  !/^(?:[@_/]|\.[\p{L}\p{N}])/u.test(text.slice(to, to + 2))
function hitAt(patterns: readonly Pattern[], text: string, words: readonly Word[], at: number): Hit | null {
  const first = words[at]
  if (!first) return null
  let best: { to: number; kind: TraceKind } | null = null
  const people = new Set<string>()
  for (const pattern of patterns) {
    const to = endOf(pattern, text, words, at)
    if (to < 0 || !looksLikeName(pattern, text, words, at)) continue
    if (best && to < best.to) continue
    if (!best || to > best.to) {
      best = { to, kind: pattern.kind }
      people.clear()
    }
    people.add(pattern.person)
  }
  return best && { from: first.from, ...best, people: [...people] }
}
