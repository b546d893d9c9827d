import { folded, foldedWords, spelledOut } from './fold'
import { ordinaryWords } from './ordinary'

/** Somebody whose traces are looked for, as the registrar's list and Northtide know them. */
export interface TracedPerson {
  /** The person's id; it is never told with a find. */
  readonly id: string
  readonly given: string
  readonly middle: string | null
  readonly family: string
  readonly nickname: string | null
  readonly email: string | null
  /** The registrar's key, the number that the institution gave, and the name to sign in with. */
  readonly key: string
  readonly number: string | null
  readonly userName: string | null
  /** Keyed hashes of the ends of their phone numbers (`phoneEnds`): the numbers themselves are not kept. */
  readonly phones: readonly string[]
}
/** By what a person is told: a name in full, or one name alone, which others may have as well. */
export const traceKinds = {
  name: { words: ['name', 'names'], isStrong: true },
  email: { words: ['address', 'addresses'], isStrong: true },
  number: { words: ['student number', 'student numbers'], isStrong: true },
  login: { words: ['sign-in name', 'sign-in names'], isStrong: true },
  phone: { words: ['phone number', 'phone numbers'], isStrong: true },
  family: { words: ['family name alone', 'family names alone'], isStrong: false },
  given: { words: ['first name alone', 'first names alone'], isStrong: false },
  handle: {
    words: ['initial and family name in one word', 'initials and family names in one word'],
    isStrong: false,
  },
  digits: {
    words: ['student number without its letter', 'student numbers without their letters'],
    isStrong: false,
  },
} as const
export type TraceKind = keyof typeof traceKinds
export const traceKindNames = Object.keys(traceKinds) as [TraceKind, ...TraceKind[]]

/** Where a name is meant though it is written in one word, in small letters: anywhere; or only where no words of prose stand, as in a file's name. */
export type JoinedIn = 'anywhere' | 'code'
/** Words in a row that stand for a person. `exact`: what stands between them counts too. */
export interface Pattern {
  readonly words: readonly string[]
  readonly exact: string | null
  readonly kind: TraceKind
  readonly person: string
  /** With single letters in it: they count as initials where a full stop or a comma says so. */
  readonly isInitials: boolean
  /** Family name first, or one name alone: tells what may stand between two words. */
  readonly isFamilyFirst: boolean
  /** Of a name written in one word, as hand-ins are named: where that counts. */
  readonly joined: JoinedIn | null
}

/** Nicknames within a given name: `Brisa "Bee"`, `Brisa (Bee)`. */
const nicknamesIn = (given: string): string[] =>
  [...given.matchAll(/["“(]([^"”)]{2,40})["”)]/g)].map(found => found[1] ?? '')
const withoutNicknames = (given: string): string => given.replace(/["“(][^"”)]*["”)]/g, ' ')

interface Name {
  readonly words: readonly string[]
  readonly isInitials: boolean
  readonly isFamilyFirst: boolean
}
const initialsOf = (words: readonly string[]): string[] => words.map(word => word.slice(0, 1))
const whole = (words: readonly string[]): Name => ({ words, isInitials: false, isFamilyFirst: false })
const short = (words: readonly string[]): Name => ({ words, isInitials: true, isFamilyFirst: false })
/** By what somebody is called before the family name: all of it, the first of it, with a middle name, by initials, by a nickname. */
function firstNames({ given: name, middle: between, nickname }: TracedPerson): Name[] {
  const given = foldedWords(withoutNicknames(name))
  const middle = foldedWords(between ?? '')
  const withMiddle =
    middle.length === 0
      ? []
      : [
          whole([...given, ...middle]),
          short([...given, ...initialsOf(middle)]),
          short([...initialsOf(given), ...initialsOf(middle)]),
        ]
  return [
    whole(given),
    whole(given.slice(0, 1)),
    ...(given.length > 1 ? [whole([given.join('')])] : []),
    short(initialsOf(given)),
    short(initialsOf(given.slice(0, 1))),
    ...withMiddle,
    ...[nickname ?? '', ...nicknamesIn(name)].map(each => whole(foldedWords(each))),
  ].filter(({ words }) => words.length > 0)
}
/** Every usual order of somebody's names: given and family, or family first. */
function fullNames(person: TracedPerson): Name[] {
  const family = foldedWords(person.family)
  if (family.length === 0) return []
  // Of a family name in two parts often one is used, or both in one word.
  const parts = family.length > 1 ? family.filter(part => part.length > 3).map(part => [part]) : []
  const families = [family, ...parts, ...(family.length > 1 ? [[family.join('')]] : [])]
  return firstNames(person).flatMap(({ words: first, isInitials }) =>
    families.flatMap(last =>
      // One letter and a part of a name are anybody's.
      first.join('').length < 2 && last !== family
        ? []
        : [
            { words: [...first, ...last], isInitials, isFamilyFirst: false },
            { words: [...last, ...first], isInitials, isFamilyFirst: true },
          ],
    ),
  )
}
const isTelling = (word: string, shortest: number): boolean => word.length >= shortest
/** Numbers and keys are told by a digit; a plain word is no number. */
const isNumber = (text: string): boolean => text.length >= 4 && /\d/.test(text)
/** A name to sign in with that is more than a word: with a digit, a dot or a line in it. */
const isLoginOnly = (text: string): boolean => text.length >= 4 && /[\d._-]/.test(text)
const plain = { exact: null, isInitials: false, isFamilyFirst: false, joined: null } as const

/** Names in one word, as hand-ins, addresses and files are named: `FairlieRosamund`, `rosamundfairlie`, `rfairlie`. */
function joinedNames(person: TracedPerson): Pattern[] {
  const family = foldedWords(person.family)
  const given = foldedWords(withoutNicknames(person.given))
  const [first = ''] = given
  const last = family.join('')
  if (last.length < 2 || first === '') return []
  const isProse = [first, last].every(word => ordinaryWords.has(word))
  const full: Pattern[] = [...new Set([first, given.join('')])].flatMap(name =>
    [last + name, name + last]
      .filter(word => word.length >= 6)
      .map(word => ({
        ...plain,
        words: [word],
        kind: 'name' as const,
        person: person.id,
        joined: isProse ? ('code' as const) : ('anywhere' as const),
      })),
  )
  // In prose a family name with an initial after it is soon a word: Marin, A. is no marina.
  const isRare = last.length >= 5 && !ordinaryWords.has(last)
  const [before, after] = [first.slice(0, 1) + last, last + first.slice(0, 1)]
  const short: Pattern[] = [before, after]
    .filter(word => word.length >= 4)
    .map(word => ({
      ...plain,
      words: [word],
      kind: 'handle',
      person: person.id,
      joined: isRare && word === before && !ordinaryWords.has(word) ? 'anywhere' : 'code',
    }))
  return [...full, ...short]
}

/** All that tells a person in a text, but for numbers (`numbersOf`). */
export function patternsOf(person: TracedPerson): Pattern[] {
  const spellings = [person, ...spelledPerson(person)]
  const exact = (text: string | null, kind: TraceKind, is: (text: string) => boolean): Pattern[] =>
    text !== null && is(text)
      ? [{ ...plain, words: foldedWords(text), exact: folded(text), kind, person: person.id }]
      : []
  const named = ({ words, isInitials, isFamilyFirst }: Name, kind: TraceKind): Pattern => ({
    ...plain,
    words,
    kind,
    person: person.id,
    isInitials,
    isFamilyFirst,
  })
  const alone = (text: string | null, kind: TraceKind): Pattern[] => {
    const words = foldedWords(text ?? '')
    return isTelling(words.join(''), 2) ? [named(whole(words), kind)] : []
  }
  return [
    ...spellings.flatMap(each => fullNames(each).map(name => named(name, 'name'))),
    ...exact(person.email, 'email', text => text.includes('@')),
    ...exact(person.userName, 'login', isLoginOnly),
    ...spellings.flatMap(each => [
      ...joinedNames(each),
      ...alone(each.family, 'family'),
      ...alone(withoutNicknames(each.given), 'given'),
      // Of several first names the first is the one that somebody is called by.
      ...(foldedWords(each.given).length > 1 ? alone(foldedWords(each.given)[0] ?? null, 'given') : []),
      ...[each.nickname, ...nicknamesIn(each.given)].flatMap(name => alone(name, 'given')),
    ]),
  ]
}
/** A number as it is compared however it is written: letters and digits only. */
export const compact = (text: string): string => folded(text).replace(/[^\p{L}\p{N}]/gu, '')
/**
 * Numbers of a person, each as `compact` has it: with and without its letters. What could be a year with a month, or is short, is no number
 * without its letters; what begins with 0, or has six digits, is one by itself.
 */
export function numbersOf(person: TracedPerson): { text: string; kind: TraceKind }[] {
  const whole = [person.number, person.key].flatMap(text =>
    text !== null && isNumber(text) ? [{ text: compact(text), kind: 'number' as const }] : [],
  )
  const digits = person.number?.replace(/\D/g, '') ?? ''
  if (digits.length < 5 || digits === compact(person.number ?? '') || /^(19|20)\d{4}$/.test(digits))
    return whole
  const isSure = digits.length >= 6 || digits.startsWith('0')
  return [...whole, { text: digits, kind: isSure ? 'number' : 'digits' }]
}
/** The digits by which a phone number is compared, with or without its country or area: the last ten, and the last seven (North American numbering; common practice). */
export function phoneEnds(number: string): string[] {
  const digits = number.replace(/\D/g, '')
  if (digits.length < 7 || digits.length > 15) return []
  return [...new Set([digits.slice(-10), digits.slice(-7)])]
}
function spelledPerson(person: TracedPerson): TracedPerson[] {
  const out = (name: string | null): string | null => name && spelledOut(name)
  const spelled = {
    ...person,
    given: spelledOut(person.given),
    family: spelledOut(person.family),
    middle: out(person.middle),
    nickname: out(person.nickname),
  }
  return spelled.given !== person.given || spelled.family !== person.family ? [spelled] : []
}
