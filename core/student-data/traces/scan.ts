import { folded, wordsIn, type Word } from './fold'
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
const capital = /^\p{Lu}/u
function hasCapital(text: string, { from }: Word): boolean {
  const code = text.charCodeAt(from)
  if (code < 128) return code >= 65 && code <= 90
  return capital.test(text.slice(from, from + 2))
}
/** Whether what stands there is meant as a name: by its capitals, and by what tells initials from single letters. */
function looksLikeName(
  pattern: Pattern,
  text: string,
  words: readonly Word[],
  at: number,
  isCased: boolean,
): boolean {
  if (pattern.exact !== null) return true
  const isStrong = traceKinds[pattern.kind].isStrong
  const first = words[at]
  // Most words that could be one name alone are no names: they are done with here.
  if (!first || (!isStrong && !hasCapital(text, first))) return false
  const own = words.slice(at, at + pattern.words.length)
  if (pattern.isInitials) return areInitials(text, own)
  if (!isStrong) return own.every(word => hasCapital(text, word))
  return !isCased || own.some(word => hasCapital(text, word)) || !own.every(isOrdinary)
}
const isOrdinary = (word: Word): boolean => ordinaryWords.has(word.folded)
/** Single letters are initials with a full stop after them (or an apostrophe, as in O’Carrow), or in a list: `Bay, W`. */
function areInitials(text: string, own: readonly Word[]): boolean {
  if (!own.every(word => hasCapital(text, word))) return false
  const [first, second] = own
  if (first && second && text.slice(first.to, second.from).includes(',')) return true
  return own.every(({ from, to }) => to - from > 1 || /[.'’]/.test(text.charAt(to)))
}

export interface ScanOptions {
  /** Whether names begin with capitals there: not in addresses, nor in what programs read. */
  readonly isCased: boolean
  /** Hears of each word that is a name and stands there in small letters. */
  readonly onSmall?: (word: string) => void
}
/** Everybody who is told in a text, from its beginning to its end; hits do not overlap. */
export function scan(
  text: string,
  { byFirst }: PeopleIndex,
  { isCased, onSmall }: ScanOptions = { isCased: true },
): Hit[] {
  const hits: Hit[] = []
  const words = wordsIn(text)
  let end = 0
  for (let at = 0; at < words.length; at++) {
    const word = words[at]
    const patterns = word && byFirst.get(word.folded)
    if (!patterns || word.from < end) continue
    const hit = hitAt(patterns, text, words, at, isCased)
    if (hit) {
      hits.push(hit)
      end = hit.to
    } else if (onSmall && isSmallWord(text, word)) onSmall(word.folded)
  }
  return hits
}
/** A word in small letters that is no part of an address or of a file's name. */
function isSmallWord(text: string, word: Word): boolean {
  if (hasCapital(text, word)) return false
  const [before, after] = [text.charAt(word.from - 1), text.charAt(word.to)]
  if (before === ' ' && after === ' ') return true
  return !/[@._/\-]/.test(before) && !/^(?:[@_/]|\.[\p{L}\p{N}])/u.test(text.slice(word.to, word.to + 2))
}
function hitAt(
  patterns: readonly Pattern[],
  text: string,
  words: readonly Word[],
  at: number,
  isCased: boolean,
): Hit | null {
  const first = words[at]
  if (!first) return null
  let best: { to: number; kind: TraceKind; people: Set<string> } | null = null
  for (const pattern of patterns) {
    const to = endOf(pattern, text, words, at)
    if (to < 0 || (best && to < best.to) || !looksLikeName(pattern, text, words, at, isCased)) continue
    if (!best || to > best.to) best = { to, kind: pattern.kind, people: new Set() }
    best.people.add(pattern.person)
  }
  return best && { from: first.from, to: best.to, kind: best.kind, people: [...best.people] }
}
