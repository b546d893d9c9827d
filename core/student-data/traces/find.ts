import { lineageOf } from '../../course/lineage'
import type { ItemKind } from '../../course/model'
import { folded } from './fold'
import { addWord, isEnglish, noWords, type WordCount } from './language'
import { editsFor, whereOf, type Edit, type Segment, type TracePlace } from './markup'
import { ordinaryWords } from './ordinary'
import { traceKinds, type TracedPerson, type TraceKind } from './people'
import { peopleIndex, scan, type Hit, type KeyOf } from './scan'
import { asRole, removed, type Stretch } from './stretch'
import type { Looked, Trace, TraceAnswer, TracedEntity, TraceEdit } from './trace'
import { honorific, rosterNames, weigh, type Weighed } from './weigh'

/** A thing of a course in which traces are looked for. */
export interface SearchedThing {
  readonly on: string
  readonly entity: TracedEntity
  readonly side: number
  readonly title: string
  readonly itemKind: ItemKind | null
}
/** A text of a thing: a page, a part of a file, a value of its settings. */
export interface SearchedPart {
  /** Which of the thing's texts it is: `traceEdit` says how they are named. */
  readonly part: string
  /** Of a file within the thing's file: its name. */
  readonly file: string | null
  readonly segments: readonly Segment[]
  readonly canWrite: boolean
}
/** Texts of a thing that are looked through together. */
export interface SearchedTexts {
  readonly parts: readonly SearchedPart[]
  /** All that is found is told at once: a table of students. */
  readonly isTable: boolean
}
/** Whom a search is for: last term's students, and who of them is here now too. */
export interface SearchedPeople {
  readonly students: readonly TracedPerson[]
  readonly alsoHere: ReadonlySet<string>
  readonly staff: readonly Pick<TracedPerson, 'given' | 'family'>[]
  /** What makes the keyed hashes by which phone numbers are known; null: none are looked for. */
  readonly keyOf: KeyOf | null
}
/** Keys under which decisions name traces: no name stands in a plan. */
export const wordIdOf = (on: string, place: TracePlace, text: string): string =>
  lineageOf(on, `${place} ${text}`)
export const tableId = (on: string): string => lineageOf(on, 'a table of students')
const hitId = (on: string, { place, text, before, after }: Words, nth: number): string =>
  lineageOf(on, [place, text, before.slice(-keyLetters), after.slice(0, keyLetters), nth].join('\n'))
type Words = Pick<Trace, 'place' | 'text' | 'before' | 'after'>

const contextLetters = 60
const keyLetters = 30
/** So many finds of its own a table has before all of them are told as one. */
const tableFrom = 3
/** And so many any other thing has: it is a list of students, whatever it is called. */
const listFrom = 500
/** A name that stands alone in so many things, or in this share of them, is probably a word of the course. */
const oftenFrom = 6
const oftenShare = 0.05
/** What the course writes in small letters so often is a word; and a name in small letters is a slip that is not made more often than that. */
const commonFrom = 20
const slipsAtMost = 3
/** In so many things it is one for sure, and is not listed. */
const alwaysFrom = 40
const alwaysTimes = 300

/** A hit where it stands. */
interface Met {
  readonly thing: SearchedThing
  readonly part: SearchedPart
  readonly segment: Segment
  readonly hit: Hit
  readonly weighed: Weighed
}
/** What was found in one text. */
interface Scanned {
  readonly thing: SearchedThing
  readonly part: SearchedPart
  readonly segment: Segment
  readonly hits: readonly Hit[]
}
/** Whether a hit is of somebody who is told for sure among some. */
function namedBy(scanned: readonly Scanned[]): (hit: Hit) => boolean {
  const people = new Set(
    scanned.flatMap(({ hits }) =>
      hits.flatMap(({ kind, people: who }) => (traceKinds[kind].isStrong ? who : [])),
    ),
  )
  return ({ people: who }) => people.size > 0 && who.some(person => people.has(person))
}
interface Found extends Met {
  /** The word, where it is one name alone. */
  readonly alone: string | null
  readonly said: string
}

/** A search through things one after another, since not all of a course is held at once. */
export interface TraceSearch {
  look: (thing: SearchedThing, texts: SearchedTexts) => void
  /** What was found once everything was looked through: what are only words is left out. */
  result: () => { traces: Trace[]; passedOver: Looked['passedOver'] }
}
export function traceSearch({ students, alsoHere, staff, keyOf }: SearchedPeople): TraceSearch {
  const index = peopleIndex(students, keyOf)
  const names = rosterNames(students)
  const found: Found[] = []
  const tables: Found[][] = []
  const passed = new Map<string, Looked['passedOver'][number]>()
  const inSmall = new Map<string, number>()
  const thingsOf = new Map<string, Set<string>>()
  const timesOf = new Map<string, number>()
  const staffWords = new Set(staff.flatMap(({ given, family }) => [folded(given), folded(family)]))
  const words = { things: new Map<string, WordCount>(), sides: new Map<number, WordCount>() }
  let things = 0
  let lastThing = ''

  function look(thing: SearchedThing, { parts, isTable }: SearchedTexts): void {
    if (thing.on !== lastThing) things++
    lastThing = thing.on
    const own = counted(words.things, thing.on)
    const before = { ...own }
    const scanned = parts.flatMap(part =>
      part.segments.flatMap(segment => hitsIn(thing, part, segment) ?? []),
    )
    const course = counted(words.sides, thing.side)
    course.all += own.all - before.all
    course.english += own.english - before.english
    const here = scanned.flatMap(weighed(namedBy(scanned)))
    const strong = here.filter(({ hit }) => traceKinds[hit.kind].isStrong)
    const isOne = strong.length >= (isTable ? tableFrom : listFrom)
    const inTable = isOne ? withOwn(here, strong) : []
    if (inTable.length > 0) tables.push(inTable)
    const rest = inTable.length > 0 ? here.filter(each => !inTable.includes(each)) : here
    found.push(...rest)
    for (const { alone } of rest) if (alone !== null) noteThing(alone, thing.on)
  }
  function hitsIn(thing: SearchedThing, part: SearchedPart, segment: Segment): Scanned | null {
    const where = whereOf(segment.place)
    const count = isRead(segment.place) ? counted(words.things, thing.on) : null
    const hits = scan(
      segment.text,
      index,
      where === 'prose'
        ? { where, onSmall: noteSmall, ...(count && { onWord: word => addWord(count, word) }) }
        : { where },
    )
    return hits.length > 0 ? { thing, part, segment, hits } : null
  }
  /** Weighs what was found in a text. A word that the course writes small all the time is none of the students whom the thing does not name. */
  const weighed =
    (isNamed: (hit: Hit) => boolean) =>
    ({ thing, part, segment, hits }: Scanned): Found[] => {
      const hasStrong = hits.some(({ kind }) => traceKinds[kind].isStrong)
      return hits.flatMap((hit, at) => {
        const said = segment.text.slice(hit.from, hit.to)
        const isAlone = hit.kind === 'family' || hit.kind === 'given'
        // Whatever programs are called by is no name alone.
        if (segment.place === 'identifier' && isAlone) return []
        const alone = isAlone ? folded(said) : null
        const isCommon = alone !== null && !hasStrong && (inSmall.get(alone) ?? 0) >= commonFrom
        if (isCommon && !isNamed(hit) && !honorific.test(segment.text.slice(hit.from - 12, hit.from)))
          return passOver(said)
        const weight = weigh(segment, hits, at, names)
        if (weight.weight === 'word') return passOver(said)
        return [{ thing, part, segment, hit, weighed: weight, said, alone }]
      })
    }
  function passOver(said: string): never[] {
    passed.set(said, { word: said, why: 'ordinary' })
    return []
  }
  function noteSmall(word: string): boolean {
    const times = (inSmall.get(word) ?? 0) + 1
    inSmall.set(word, times)
    return times > slipsAtMost
  }
  /** Once may be a slip of whoever wrote it. */
  const isSmallWord = (word: string): boolean => (inSmall.get(word) ?? 0) >= (ordinaryWords.has(word) ? 1 : 2)
  function noteThing(word: string, on: string): void {
    timesOf.set(word, (timesOf.get(word) ?? 0) + 1)
    const list = thingsOf.get(word)
    if (list) list.add(on)
    else thingsOf.set(word, new Set([on]))
  }
  const countOf = (word: string): number => thingsOf.get(word)?.size ?? 0
  const isEverywhere = (word: string): boolean =>
    countOf(word) >= Math.max(alwaysFrom, things * oftenShare) || (timesOf.get(word) ?? 0) >= alwaysTimes

  /** What a hit is once all is known: of one name alone that rests on where else the word stands. */
  function settled({ alone, hit, weighed }: Found, isNamed: boolean): Settled {
    const { weight, isSupported } = weighed
    if (alone === null) {
      const isHere = hit.people.some(person => alsoHere.has(person))
      return { weight: isHere ? 'ask' : weight, why: null }
    }
    if (staffWords.has(alone)) return { weight: 'word', why: 'staff' }
    const often = Math.max(oftenFrom, things * oftenShare)
    if (!isSupported && isEverywhere(alone)) return { weight: 'word', why: 'course' }
    if (weight === 'doubtful') return { weight, why: null }
    if (isNamed) return { weight: isSmallWord(alone) ? 'ask' : 'sure', why: null }
    if (isSupported) return { weight, why: null }
    const isCommon = isSmallWord(alone) || countOf(alone) >= often
    return { weight: isCommon ? 'doubtful' : weight, why: null }
  }
  /** Whether somebody stands in a thing in full, or by an address or a number: then one name alone there is theirs. */
  function namedInFull(): (each: Found) => boolean {
    const keys = new Set<string>()
    for (const { thing, hit } of [...found, ...tables.flat()]) {
      const [who] = hit.people
      const { isStrong } = traceKinds[hit.kind]
      if (isStrong && hit.people.length === 1 && who !== undefined && !alsoHere.has(who))
        keys.add(`${thing.on} ${who}`)
    }
    return ({ thing, hit }) => hit.people.length === 1 && keys.has(`${thing.on} ${hit.people[0]}`)
  }
  function result(): ReturnType<TraceSearch['result']> {
    const named = namedInFull()
    const equals = new Map<string, number>()
    const traces = found.flatMap(each => {
      const { weight, why } = settled(each, each.alone !== null && named(each))
      if (weight === 'word') {
        passed.set(each.said, { word: each.said, why: why ?? 'ordinary' })
        return []
      }
      const own = counted(words.things, each.thing.on)
      const speaksEnglish = isEnglish(own, counted(words.sides, each.thing.side))
      return [traceOf(each, { weight, isHere: isHere(each), speaksEnglish }, equals)]
    })
    const asTables = tables.map(all => tableTrace(all, all.every(isHere)))
    return {
      traces: [...traces, ...asTables],
      passedOver: [...passed.values()].sort((a, b) => (a.word < b.word ? -1 : 1)),
    }
  }
  const isHere = ({ hit }: Met): boolean => hit.people.some(person => alsoHere.has(person))
  return { look, result }
}
interface Settled {
  readonly weight: Weighed['weight']
  readonly why: Looked['passedOver'][number]['why'] | null
}
function counted<K>(counts: Map<K, WordCount>, key: K): WordCount {
  const there = counts.get(key) ?? noWords()
  counts.set(key, there)
  return there
}
/** Where the words are those of the thing’s language: not in attributes, nor in what programs say of a file. */
const isRead = (place: TracePlace): boolean => place === 'text' || place === 'title' || place === 'page'
/** What a table of students holds: all that tells one in full, and names alone of those who are told so. */
function withOwn(all: readonly Found[], strong: readonly Found[]): Found[] {
  const people = new Set(strong.flatMap(({ hit }) => hit.people))
  return all.filter(each => strong.includes(each) || each.hit.people.some(person => people.has(person)))
}

/** One way of editing a hit, in the text as it is stored. */
function editOf({ part, segment, hit }: Met, stretch: Stretch): TraceEdit {
  const goesWhole = segment.whole !== null && (segment.place === 'link' || segment.place === 'metadata')
  const edits: Edit[] = goesWhole
    ? [{ from: segment.whole[0], to: segment.whole[1], text: '' }]
    : editsFor(segment, hit.from - stretch.lead, hit.to + stretch.tail, stretch.text)
  const { lead, tail, text } = stretch
  return { lead, tail, text, at: edits.map(({ from, to }) => ({ part: part.part, from, to })) }
}
interface Told {
  readonly weight: Exclude<Weighed['weight'], 'word'>
  readonly isHere: boolean
  readonly speaksEnglish: boolean
}
function traceOf(found: Found, { weight, isHere, speaksEnglish }: Told, equals: Map<string, number>): Trace {
  const { thing, part, segment, hit, said } = found
  const { text, place } = segment
  const { from, to, kind } = hit
  const before = text.slice(Math.max(0, from - contextLetters), from)
  const after = text.slice(to, to + contextLetters)
  const words = { place, text: said, before, after }
  const first = hitId(thing.on, words, 0)
  const nth = equals.get(first) ?? 0
  equals.set(first, nth + 1)
  const can = canBe(segment, kind, part.canWrite)
  const role = place === 'fileName' ? inFileName : asRole(text, from, to)
  const reads = role.isSound && speaksEnglish
  return {
    ...thing,
    id: nth === 0 ? first : hitId(thing.on, words, nth),
    wordId: wordIdOf(thing.on, place, said),
    paragraph: segment.paragraph,
    file: part.file,
    ...words,
    count: 1,
    kind,
    kinds: null,
    weight,
    people: hit.people.length,
    isAlsoHere: isHere,
    can,
    proposed: proposedFor({ place, kind, weight, can, reads }),
    edits: {
      remove: editOf(found, place === 'fileName' ? nothingElse : removed(text, from, to)),
      role: can.includes('role') ? editOf(found, role) : null,
    },
  }
}
const nothingElse: Stretch = { lead: 0, tail: 0, text: '' }
const inFileName = { lead: 0, tail: 0, text: 'student', isSound: true }

/** What can be done with a find: a student's identifier never crosses in settings; what cannot be written is kept or stays behind. */
function canBe({ place }: Segment, kind: TraceKind, canWrite: boolean): TraceAnswer[] {
  const { isStrong } = traceKinds[kind]
  if (!canWrite) return ['keep']
  if (place === 'identifier' || (place === 'settings' && isStrong)) return ['remove']
  if (place === 'link' || place === 'metadata' || place === 'script') return ['remove', 'keep']
  return ['remove', 'role', 'keep']
}
interface Proposing {
  readonly place: TracePlace
  readonly kind: TraceKind
  readonly weight: Told['weight']
  readonly can: readonly TraceAnswer[]
  /** Whether “a student” reads right there. */
  readonly reads: boolean
}
function proposedFor({ place, kind, weight, can, reads }: Proposing): TraceAnswer | null {
  // Where nothing else can be done there is nothing to ask.
  if (can.length === 1 && can[0] === 'remove') return 'remove'
  if (weight === 'doubtful') return 'keep'
  if (weight === 'ask' || !can.includes('remove')) return null
  const isName = kind === 'name' || !traceKinds[kind].isStrong
  if (!isName || !can.includes('role') || place === 'comment') return 'remove'
  return reads ? 'role' : null
}
function tableTrace(all: readonly Found[], isHere: boolean): Trace {
  const [first] = all
  if (!first) throw new Error('a table without a find')
  const kinds: Partial<Record<TraceKind, number>> = {}
  for (const { hit } of all) kinds[hit.kind] = (kinds[hit.kind] ?? 0) + 1
  const canWrite = all.every(({ part }) => part.canWrite)
  const at = all.flatMap(each => editOf(each, nothingElse).at)
  const { thing, segment } = first
  return {
    ...thing,
    id: tableId(thing.on),
    wordId: tableId(thing.on),
    place: segment.place,
    paragraph: null,
    file: null,
    before: '',
    text: first.said,
    after: '',
    count: all.length,
    kind: first.hit.kind,
    kinds,
    weight: 'ask',
    people: new Set(all.flatMap(({ hit }) => hit.people)).size,
    isAlsoHere: isHere,
    can: canWrite ? ['remove', 'keep'] : ['keep'],
    proposed: null,
    edits: { remove: { lead: 0, tail: 0, text: '', at }, role: null },
  }
}
