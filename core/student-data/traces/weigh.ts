import { present } from '../../present'
import { folded, foldedWords, wordsIn } from './fold'
import type { Segment } from './markup'
import { isNamedAfter, namesSomethingElse, ordinaryWords } from './ordinary'
import { traceKinds, type TracedPerson } from './people'
import { hasCapital, type Hit } from './scan'

/**
 * What a hit is by the form in which it stands: `sure`, a student; `ask`, perhaps one; `doubtful`, probably only a word or somebody else;
 * `word`, a word. No list of persons says so, but what stands around it.
 */
export type Weight = 'sure' | 'ask' | 'doubtful' | 'word'
/** The names of a roster, by which somebody else’s are told apart. */
export interface RosterNames {
  readonly given: ReadonlySet<string>
  readonly family: ReadonlySet<string>
  /** Initials of those who have a family name, by that name. */
  readonly initials: ReadonlyMap<string, ReadonlySet<string>>
}
export function rosterNames(people: readonly TracedPerson[]): RosterNames {
  const given = new Set<string>()
  const family = new Set<string>()
  const initials = new Map<string, Set<string>>()
  for (const person of people) {
    const first = [person.given, person.middle, person.nickname].flatMap(name => foldedWords(name ?? ''))
    for (const word of first) given.add(word)
    for (const word of foldedWords(person.family)) {
      family.add(word)
      const known = initials.get(word) ?? new Set()
      for (const name of first) known.add(name.slice(0, 1))
      initials.set(word, known)
    }
  }
  return { given, family, initials }
}

export const startsSentence = (before: string): boolean => /(^|[.!?:…]["’”)]?\s+|[\r\n])$/.test(before)
/** What people are called by before their names. */
export const honorific =
  /(?:^|[^\p{L}])((?:mr|mrs|ms|mx|miss|dr|prof|professor|doctor|sir|madam|captain|capt|herr|frau|mme|mlle)\.?[\s\u00a0]+)$/iu
const namesNobody = (before: string): boolean =>
  /(^|[^\p{L}])(the|an?|this|each|every|no|some)\s$|['’]s\s$/iu.test(before)
const months = new Set(['april', 'may', 'june', 'august'])
/** `in May`, `5 May`, `May 5`, `April and May`: a month. */
const isMonth = (word: string, before: string, after: string): boolean =>
  months.has(word) &&
  (/(^|[^\p{L}])(in|of|by|from|to|until|till|since|before|after|early|mid|late|last|next|through|during|between|and|or)[\s-]$|\d(?:st|nd|rd|th)?\s$/iu.test(
    before,
  ) ||
    /^\s(\d|and\s(?:june|july|september)|to\s(?:june|july|september))/i.test(after))
const wordAfter = (after: string): string => folded(/^(?:['’]s)?\s(\p{L}+)/u.exec(after)?.[1] ?? '')

/** Whether one name alone is a word where it stands: `the Ness`, `Quist’s Bay`, `in May`, `Will the fog lift?` */
function isWord(word: string, before: string, after: string): boolean {
  if (namesNobody(before.slice(-8)) || namesSomethingElse(wordAfter(after))) return true
  if (isNamedAfter(folded(/(?:^|[^\p{L}])(\p{Lu}\p{Ll}*)\.?\s$/u.exec(before)?.[1] ?? ''))) return true
  return (
    isMonth(word, before.slice(-10), after) || (startsSentence(before.slice(-6)) && ordinaryWords.has(word))
  )
}
/** Whether a name stands with another one that nobody here has: `Halvard Berg`, `Ernst Quist`, `J. Quist`. */
function isSomebodyElse(hit: Hit, word: string, before: string, after: string, names: RosterNames): boolean {
  const next = /^[\s\u00a0]+(\p{Lu}[\p{L}’'-]+)/u.exec(after)?.[1]
  // `Perpetua of Carthage`: somebody known by a place.
  if (hit.kind === 'given' && /^ (?:of|von|van|de) \p{Lu}/u.test(after)) return true
  if (hit.kind === 'given' && next !== undefined && foldedWords(next).every(part => !names.family.has(part)))
    return !startsSentence(before.slice(-6)) || !ordinaryWords.has(word)
  if (hit.kind !== 'family') return false
  const initial = /(?:^|[^\p{L}])(\p{Lu})\.[\s\u00a0]*(?:\p{Lu}\.[\s\u00a0]*)*$/u.exec(before)?.[1]
  if (initial !== undefined) return !(names.initials.get(word)?.has(folded(initial)) ?? false)
  const last = /(\p{Lu}[\p{L}’'-]+)[\s\u00a0]+$/u.exec(before)
  if (!last || honorific.test(before)) return false
  const words = foldedWords(last[1] ?? '')
  // At the beginning of a sentence any word has a capital: there only one tells that is a name as well.
  const isFirst = startsSentence(before.slice(0, last.index).slice(-6))
  return words.every(part => !names.given.has(part) && (!isFirst || ordinaryWords.has(part)))
}
/** `Quist et al.`, `Quist (1998)`, `Quist & Ness, 2004`: somebody who is cited. */
const isCited = (after: string): boolean =>
  /^,?\s+(?:et\s+al\b|(?:(?:&|and)\s+\p{Lu}[\p{L}’'-]+,?\s*)?\(?(?:19|20)\d{2}[a-z]?\)?[\s,.;)]?)/u.test(
    after,
  )
/** Whether some words are written as a title is: each of four letters or more with a capital. */
const isTitle = (text: string): boolean => {
  const words = wordsIn(text)
  return words.length > 1 && words.every(word => word.to - word.from < 4 || hasCapital(text, word))
}
/** The stretch in quotation marks that holds a hit; null where none does. */
function quoted(text: string, from: number, to: number): string | null {
  const [left, right] = [text.slice(Math.max(0, from - 80), from), text.slice(to, to + 80)]
  const open = /["“„«‘]([^"“”„«»‘’]*)$/u.exec(left)?.[1]
  const close = /^([^"“”„«»‘’]*)["”“»’]/u.exec(right)?.[1]
  return open === undefined || close === undefined ? null : open + text.slice(from, to) + close
}
/** Whether a name stands in the title of a work, in italics or in quotation marks, and is not all of it. */
function isInTitle({ text, slanted }: Segment, { from, to }: Hit): boolean {
  const range = slanted.find(([start, end]) => start <= from && end >= to)
  const within = range ? text.slice(range[0], range[1]) : quoted(text, from, to)
  return within !== null && wordsIn(within).length > wordsIn(text.slice(from, to)).length && isTitle(within)
}
const nearLetters = 80
/** Whether something else of students stands near: a title before the name, a number, an address, another student in full. */
function isSupported(hit: Hit, all: readonly Hit[], at: number): boolean {
  const tells = (other: Hit): boolean =>
    traceKinds[other.kind].isStrong && !other.people.some(person => hit.people.includes(person))
  for (let n = at - 1; n >= 0; n--) {
    const other = all[n]
    if (!other || other.to <= hit.from - nearLetters) break
    if (tells(other)) return true
  }
  for (let n = at + 1; n < all.length; n++) {
    const other = all[n]
    if (!other || other.from >= hit.to + nearLetters) break
    if (tells(other)) return true
  }
  return false
}
/** A name in full of ordinary words, family name first, may be two words where a place is told: `in the Bay, Will said`. */
const isDoubtfulInFull = ({ isOrdinary, isFamilyFirst }: Hit, before: string): boolean =>
  isOrdinary &&
  isFamilyFirst &&
  /(^|[^\p{L}])(the|an?|in|at|of|on|near|to|from|into|across|along|this|every)\s$/iu.test(before)

/** A weight, and whether something else of students stands near: then where else the word stands is no matter. */
export interface Weighed {
  readonly weight: Weight
  readonly isSupported: boolean
}
/** What a hit is, as far as its own text says: one of all hits of that text, which stand in order. */
export function weigh(segment: Segment, all: readonly Hit[], at: number, names: RosterNames): Weighed {
  const { text } = segment
  const hit = present(all[at])
  const before = text.slice(Math.max(0, hit.from - nearLetters), hit.from)
  const after = text.slice(hit.to, hit.to + nearLetters)
  const as = (weight: Weight, isSupported = false): Weighed => ({ weight, isSupported })
  if (traceKinds[hit.kind].isStrong) return as(isDoubtfulInFull(hit, before) ? 'ask' : 'sure')
  const said = text.slice(hit.from, hit.to)
  const word = folded(said)
  if (hit.kind !== 'family' && hit.kind !== 'given') return as('ask')
  if (honorific.test(before)) return as('ask', true)
  const isNamed = /\p{Lu}/u.test(said)
  const isNear = isNamed && isSupported(hit, all, at)
  if (isWord(word, before, after) && !(isNear && !ordinaryWords.has(word))) return as('word')
  if (isCited(after)) return as('doubtful')
  if (isNear) return as('ask', true)
  if (isSomebodyElse(hit, word, before, after, names) || isInTitle(segment, hit)) return as('doubtful')
  return as(said.length < 3 || !isNamed ? 'doubtful' : 'ask')
}
