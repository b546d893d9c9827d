import { folded, foldedWords, spelledOut } from './fold'

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
}
/** By what a person is told: a name in full, or one name alone, which others may have as well. */
export const traceKinds = {
  name: { words: ['name', 'names'], isStrong: true },
  email: { words: ['address', 'addresses'], isStrong: true },
  number: { words: ['student number', 'student numbers'], isStrong: true },
  login: { words: ['sign-in name', 'sign-in names'], isStrong: true },
  family: { words: ['family name alone', 'family names alone'], isStrong: false },
  given: { words: ['first name alone', 'first names alone'], isStrong: false },
} as const
export type TraceKind = keyof typeof traceKinds
export const traceKindNames = Object.keys(traceKinds) as [TraceKind, ...TraceKind[]]

/** Words in a row that stand for a person. `exact`: what stands between them counts too. */
export interface Pattern {
  readonly words: readonly string[]
  readonly exact: string | null
  readonly kind: TraceKind
  readonly person: string
  /** With single letters in it: they count as initials where a full stop or a comma says so. */
  readonly isInitials: boolean
}

/** Nicknames within a given name: `Brisa "Bee"`, `Brisa (Bee)`. */
const nicknamesIn = (given: string): string[] =>
  [...given.matchAll(/["“(]([^"”)]{2,40})["”)]/g)].map(found => found[1] ?? '')
const withoutNicknames = (given: string): string => given.replace(/["“(][^"”)]*["”)]/g, ' ')

interface Name {
  readonly words: readonly string[]
  readonly isInitials: boolean
}
const initialsOf = (words: readonly string[]): string[] => words.map(word => word.slice(0, 1))
const whole = (words: readonly string[]): Name => ({ words, isInitials: false })
const short = (words: readonly string[]): Name => ({ words, isInitials: true })
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
            { words: [...first, ...last], isInitials },
            { words: [...last, ...first], isInitials },
          ],
    ),
  )
}
const isTelling = (word: string, shortest: number): boolean => word.length >= shortest
/** Numbers and keys are told by a digit; a plain word is no number. */
const isNumber = (text: string): boolean => text.length >= 4 && /\d/.test(text)
/** A name to sign in with that is more than a word: with a digit, a dot or a line in it. */
const isLoginOnly = (text: string): boolean => text.length >= 4 && /[\d._-]/.test(text)

/** All that tells a person in a text. */
export function patternsOf(person: TracedPerson): Pattern[] {
  const spellings = [person, ...spelledPerson(person)]
  const exact = (text: string | null, kind: TraceKind, is: (text: string) => boolean): Pattern[] =>
    text !== null && is(text)
      ? [{ words: foldedWords(text), exact: folded(text), kind, person: person.id, isInitials: false }]
      : []
  const named = ({ words, isInitials }: Name, kind: TraceKind): Pattern => ({
    words,
    exact: null,
    kind,
    person: person.id,
    isInitials,
  })
  const alone = (text: string | null, kind: TraceKind): Pattern[] => {
    const words = foldedWords(text ?? '')
    return isTelling(words.join(''), 3) ? [named(whole(words), kind)] : []
  }
  return [
    ...spellings.flatMap(each => fullNames(each).map(name => named(name, 'name'))),
    ...exact(person.email, 'email', text => text.includes('@')),
    ...exact(person.number, 'number', isNumber),
    ...exact(person.key, 'number', isNumber),
    ...exact(person.userName, 'login', isLoginOnly),
    ...spellings.flatMap(each => [
      ...alone(each.family, 'family'),
      ...alone(withoutNicknames(each.given), 'given'),
      ...[each.nickname, ...nicknamesIn(each.given)].flatMap(name => alone(name, 'given')),
    ]),
  ]
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
