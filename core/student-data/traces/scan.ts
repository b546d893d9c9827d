import { folded, partsOfWord, wordsIn, type Word } from './fold'
import { ordinaryWords } from './ordinary'
import {
  numbersOf,
  patternsOf,
  phoneEnds,
  traceKinds,
  type Pattern,
  type TracedPerson,
  type TraceKind,
} from './people'

/** Somebody told in a text: where, by what, and whom it may be. */
export interface Hit {
  readonly from: number
  readonly to: number
  readonly kind: TraceKind
  readonly people: readonly string[]
  /** Of a name in full: family name first; and all its words are ordinary ones as well, such as `Bay, Will`. */
  readonly isFamilyFirst: boolean
  readonly isOrdinary: boolean
}
interface Numbered {
  readonly kind: TraceKind
  readonly people: Set<string>
}
/** People by the first word of all that tells them, by their numbers, and by the ends of their phone numbers. */
export interface PeopleIndex {
  readonly byFirst: ReadonlyMap<string, readonly Pattern[]>
  /** Of these the patterns that are no word of a language alone. */
  readonly longer: ReadonlyMap<string, readonly Pattern[]>
  readonly numbers: ReadonlyMap<string, Numbered>
  readonly longestNumber: number
  readonly phones: ReadonlyMap<string, readonly string[]>
  /** The keyed hash of the end of a phone number; null where none are known. */
  readonly keyOf: KeyOf | null
}
/** Phone numbers are known by keyed hashes alone: whoever searches is given what makes them. */
export type KeyOf = (digits: string) => string

/** Prepares a roster for {@link scan}. */
export function peopleIndex(people: readonly TracedPerson[], keyOf: KeyOf | null = null): PeopleIndex {
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
  const longer = new Map([...byFirst].map(([word, list]) => [word, list.filter(isLonger)]))
  const numbers = new Map<string, Numbered>()
  const phones = new Map<string, string[]>()
  for (const person of people) {
    for (const { text, kind } of numbersOf(person)) {
      const known = numbers.get(text)
      if (known) known.people.add(person.id)
      else numbers.set(text, { kind, people: new Set([person.id]) })
    }
    for (const key of person.phones) phones.set(key, [...(phones.get(key) ?? []), person.id])
  }
  const longestNumber = Math.max(0, ...[...numbers.keys()].map(text => text.length))
  return { byFirst, longer, numbers, longestNumber, phones, keyOf }
}

const joiner = /^(?:[\s\u00a0]+|[-‐‑–'’_+~]|[\s\u00a0]*[\r\n][\s\u00a0]*)$/
const comma = /^[\s\u00a0]*[,;·\t][\s\u00a0]*$/
const isInitial = ({ folded: word }: Word): boolean => word.length === 1 || word === 'st'
/** Whether two words can be one name with what stands between them: blanks, a hyphen, a line of a file's name; a comma, where the family name comes first or a table is written; a full stop after an initial. Never a sentence's end. */
function isBetween(text: string, left: Word, right: Word, isFamilyFirst: boolean): boolean {
  const gap = text.slice(left.to, right.from)
  if (gap === '' || gap === '.' || joiner.test(gap)) return gap.length <= 6
  if (gap.length > 6) return false
  if (comma.test(gap)) return isFamilyFirst || gap.length === 1
  return /^\.[\s\u00a0]*[-‐‑]?$/.test(gap) && isInitial(left)
}

/** How many words of a text, from one on, are a pattern, whose first word that one is; 0 where it does not stand there. */
function wordsOf(pattern: Pattern, text: string, words: readonly Word[], at: number): number {
  const wanted = pattern.words
  let fits = 1
  while (fits < wanted.length && words[at + fits]?.folded === wanted[fits]) fits++
  if (fits === wanted.length) {
    if (pattern.exact !== null) return isExactly(pattern.exact, text, words, at, fits) ? fits : 0
    return areBetween(text, words, at, fits, pattern.isFamilyFirst) ? fits : 0
  }
  // A middle initial that the roster does not tell.
  if (fits !== 1 || wanted.length !== 2 || pattern.kind !== 'name') return 0
  const initial = words[at + 1]
  if (initial?.folded.length !== 1 || words[at + 2]?.folded !== wanted[1]) return 0
  if (pattern.isFamilyFirst || pattern.isInitials || !hasCapital(text, initial)) return 0
  return areBetween(text, words, at, 3, false) ? 3 : 0
}
function isExactly(exact: string, text: string, words: readonly Word[], at: number, count: number): boolean {
  return folded(text.slice(words[at]?.from, words[at + count - 1]?.to)) === exact
}
function areBetween(
  text: string,
  words: readonly Word[],
  at: number,
  count: number,
  isFamilyFirst: boolean,
): boolean {
  for (let step = 1; step < count; step++) {
    const [left, right] = [words[at + step - 1], words[at + step]]
    if (!left || !right || !isBetween(text, left, right, isFamilyFirst)) return false
  }
  return true
}
const capital = /^\p{Lu}/u
export function hasCapital(text: string, { from }: Pick<Word, 'from'>): boolean {
  const code = text.charCodeAt(from)
  if (code < 128) return code >= 65 && code <= 90
  return capital.test(text.slice(from, from + 2))
}
/** Words within family names that are mostly written small (from memory). */
const particles = new Set(
  'af al bin da das de del della den der di do dos du e el la le los ten ter van von y zu zum zur'.split(' '),
)
/** Whether a name has its capitals: each word of it, but for such as `van der` in a longer one. */
const isCapitalised = (text: string, own: readonly Word[]): boolean =>
  own.some(word => hasCapital(text, word)) &&
  own.every(word => hasCapital(text, word) || (own.length > 1 && particles.has(word.folded)))
const isOrdinary = (word: Word): boolean => ordinaryWords.has(word.folded)
/** Whether what stands there is meant as a name: by its capitals, and by what tells initials from single letters. */
function looksLikeName(pattern: Pattern, text: string, own: readonly Word[], where: Where): boolean {
  if (pattern.exact !== null) return true
  const [first] = own
  if (!first) return false
  if (pattern.joined) return pattern.joined === 'anywhere' || where !== 'prose' || isInCode(text, first)
  const isStrong = traceKinds[pattern.kind].isStrong
  // Most words that could be one name alone are no names: they are done with here.
  if (!isStrong) return isCapitalised(text, own) || isSmallName(text, own, where)
  if (pattern.isInitials) return areInitials(text, own)
  return where !== 'prose' || !own.every(isOrdinary) || own.every(word => hasCapital(text, word))
}
/** One name alone in small letters is told only where it is no ordinary word, and long enough to be none of another language. */
const isSmallName = (text: string, own: readonly Word[], where: Where): boolean =>
  own.every(
    word => word.folded.length >= 5 && !isOrdinary(word) && (where === 'code' || isSmallWord(text, word)),
  )
/** Whether a word stands in an address, a path or a file's name. */
function isInCode(text: string, { from, to }: Word): boolean {
  const [before, after] = [text.slice(Math.max(0, from - 1), from), text.slice(to, to + 3)]
  return /[@_/\\]/.test(before) || /^[@_/\\\d]|^\.[\p{L}\p{N}]/u.test(after)
}
/** Single letters are initials with a full stop after them (or an apostrophe, as in O’Carrow), or in a list: `Bay, W`. */
function areInitials(text: string, own: readonly Word[]): boolean {
  if (!isCapitalised(text, own)) return false
  const [first, second] = own
  if (first && second && text.slice(first.to, second.from).includes(',')) return true
  return own.every(({ from, to }) => to - from > 1 || /[.'’]/.test(text.charAt(to)))
}

/** What a text is: words that people read, or what programs read, such as an address, a file's name or a script. */
export type Where = 'prose' | 'code'
export interface ScanOptions {
  readonly where: Where
  /** Hears of each word that is a name and stands there in small letters; answers whether it is known to be a word here, and no name in small letters. */
  readonly onSmall?: (word: string) => boolean
  /** Hears of every word. */
  readonly onWord?: (word: string) => void
}
/** Everybody who is told in a text, from its beginning to its end; hits do not overlap. */
export function scan(text: string, index: PeopleIndex, { where, onSmall, onWord }: ScanOptions): Hit[] {
  const words = wordsIn(text)
  if (onWord) for (const word of words) onWord(word.folded)
  const hits = hitsAmong(text, words, index, { where, onSmall })
  const further = [...runTogether(text, words, index, where), ...phonesIn(text, index)]
  return further.length === 0 ? hits : joinedHits(hits, further)
}
interface Among {
  readonly where: Where
  readonly onSmall?: ((word: string) => boolean) | undefined
}
function hitsAmong(
  text: string,
  words: readonly Word[],
  index: PeopleIndex,
  { where, onSmall }: Among,
): Hit[] {
  const hits: Hit[] = []
  let end = 0
  for (let at = 0; at < words.length; at++) {
    const word = words[at]
    if (!word || word.from < end) continue
    const patterns = index.byFirst.get(word.folded)
    const isWord =
      patterns !== undefined && onSmall !== undefined && isSmallWord(text, word) && onSmall(word.folded)
    const number = numberAt(text, words, at, index)
    const looked = isWord ? index.longer.get(word.folded) : patterns
    const name = looked ? hitAt(looked, text, words, at, where) : null
    const hit = number && (!name || number.to >= name.to) ? number : name
    if (!hit) continue
    hits.push(hit)
    end = hit.to
  }
  return hits
}
/** Whether more than one word makes a pattern, or it is no word of a language. */
const isLonger = ({ words, exact, joined }: Pattern): boolean =>
  words.length > 1 || exact !== null || joined !== null
/** The same for ASCII, which most texts are; any other letter wants the closer look. */
const perhapsJoint = /[a-z][A-Z]|[A-Z]{2}[a-z]|[A-Za-z][0-9]|[0-9][A-Za-z]|[^\0-\x7f]/
const someJoint = /\p{Ll}\p{Lu}|\p{Lu}\p{Lu}\p{Ll}|\p{L}\p{N}|\p{N}\p{L}/u
/** Who is told in words that are several run together, such as the name of a hand-in. One name alone is not looked for there. */
function runTogether(text: string, words: readonly Word[], index: PeopleIndex, where: Where): Hit[] {
  if (!perhapsJoint.test(text) || !someJoint.test(text)) return []
  const parts = words.map(word => partsOfWord(text, word))
  if (parts.every(each => each.length === 0)) return []
  const fine = parts.flatMap((each, at) => (each.length > 0 ? each : (words[at] ?? [])))
  return hitsAmong(text, fine, index, { where }).filter(
    ({ kind }) => traceKinds[kind].isStrong || kind === 'handle',
  )
}
const phoneLike = /(?:\+|\(?\b)\d(?:[\d\s\u00a0().‐‑–/-]{5,22})\d\b/g
function phonesIn(text: string, { phones, keyOf }: PeopleIndex): Hit[] {
  if (!keyOf || phones.size === 0) return []
  return [...text.matchAll(phoneLike)].flatMap(found => {
    const people = new Set(phoneEnds(found[0]).flatMap(end => phones.get(keyOf(end)) ?? []))
    if (people.size === 0) return []
    const from = found.index
    return [{ ...noName, from, to: from + found[0].length, kind: 'phone' as const, people: [...people] }]
  })
}
const noName = { isFamilyFirst: false, isOrdinary: false } as const
/** Hits of several passes: where two stand over each other, the one that tells more. */
function joinedHits(hits: readonly Hit[], further: readonly Hit[]): Hit[] {
  const weight = ({ kind, from, to }: Hit): number => (traceKinds[kind].isStrong ? 1000 : 0) + to - from
  const kept: Hit[] = []
  for (const hit of [...hits, ...further].sort((a, b) => weight(b) - weight(a) || a.from - b.from))
    if (kept.every(other => other.to <= hit.from || other.from >= hit.to)) kept.push(hit)
  return kept.sort((a, b) => a.from - b.from)
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
  where: Where,
): Hit | null {
  let best: { own: Word[]; to: number; pattern: Pattern; people: Set<string> } | null = null
  for (const pattern of patterns) {
    const count = wordsOf(pattern, text, words, at)
    if (count === 0) continue
    const own = words.slice(at, at + count)
    const to = own[count - 1]?.to ?? 0
    if ((best && to < best.to) || !looksLikeName(pattern, text, own, where)) continue
    if (!best || to > best.to) best = { own, to, pattern, people: new Set() }
    best.people.add(pattern.person)
  }
  if (!best) return null
  const { own, to, pattern, people } = best
  return {
    from: own[0]?.from ?? 0,
    to,
    kind: pattern.kind,
    people: [...people],
    isFamilyFirst: pattern.isFamilyFirst,
    isOrdinary: pattern.exact === null && own.every(isOrdinary),
  }
}
const isDigit = (code: number): boolean => code >= 48 && code <= 57
/** Whether a number may begin with a word: it ends or begins with a digit, or is short and a digit follows. Asked of every word. */
function mayBeNumber(text: string, { from, to }: Word): boolean {
  if (isDigit(text.charCodeAt(to - 1)) || isDigit(text.charCodeAt(from))) return true
  return to - from <= 4 && (isDigit(text.charCodeAt(to)) || isDigit(text.charCodeAt(to + 1)))
}
const inNumber = /^[\s\u00a0\u202f.‐‑–/_-]?$/
/** The longest number of somebody that begins with a word, whatever stands between its digits. */
function numberAt(text: string, words: readonly Word[], at: number, index: PeopleIndex): Hit | null {
  const first = words[at]
  if (!first || index.longestNumber === 0 || !mayBeNumber(text, first)) return null
  let best: Hit | null = null
  let said = ''
  let last = first
  for (const word of words.slice(at, at + 8)) {
    if (word !== first && !inNumber.test(text.slice(last.to, word.from))) break
    said += word.folded
    last = word
    if (said.length > index.longestNumber) break
    const known = index.numbers.get(said)
    if (known)
      best = { ...noName, from: first.from, to: word.to, kind: known.kind, people: [...known.people] }
  }
  return best
}
