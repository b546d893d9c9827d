import type { ItemKind } from '../../course/model'
import { lineageOf } from '../../course/lineage'
import { folded } from './fold'
import { isCased, type Segment, type TracePlace } from './markup'
import { namesSomethingElse, ordinaryWords } from './ordinary'
import { traceKinds, type TracedPerson, type TraceKind } from './people'
import { peopleIndex, scan, type Hit, type PeopleIndex } from './scan'
import type { Looked, Trace, TraceAnswer, TracedEntity } from './trace'

/** A thing of a course in which traces are looked for. */
export interface SearchedThing {
  readonly on: string
  readonly entity: TracedEntity
  readonly side: number
  readonly title: string
  readonly itemKind: ItemKind | null
}
/** Texts of a thing that are looked through together. */
export interface SearchedTexts {
  readonly segments: readonly Segment[]
  /** All that is found is told at once: a table of students. */
  readonly isTable: boolean
  readonly canWrite: boolean
}
/** Whom a search is for: last term's students, and who of them is here now too. */
export interface SearchedPeople {
  readonly students: readonly TracedPerson[]
  readonly alsoHere: ReadonlySet<string>
  readonly staff: readonly Pick<TracedPerson, 'given' | 'family'>[]
}
/** Key under which decisions name a trace: no name stands in a plan. */
export const traceId = (on: string, place: TracePlace, text: string): string =>
  lineageOf(on, `${place} ${text}`)
export const tableId = (on: string): string => lineageOf(on, 'a table of students')

const contextLetters = 60
/** So many finds of its own a table has before all of them are told as one. */
const tableFrom = 3
/** A name that stands alone in so many things, or in this share of them, is a word of the course. */
const oftenFrom = 6
const oftenShare = 0.05

/** A hit where it stands. */
interface Met {
  readonly thing: SearchedThing
  readonly texts: SearchedTexts
  readonly segment: Segment
  readonly hit: Hit
}
interface Found {
  /** Its key is made last: most of what is looked at is no trace. */
  trace: Omit<Trace, 'id'>
  /** Whom of the roster it may be. */
  readonly who: readonly string[]
  /** The word, where it is one name alone; how it stands there. */
  readonly alone: { readonly word: string; readonly startsSentence: boolean; readonly isElse: boolean } | null
}
const startsSentence = (before: string): boolean => /(^|[.!?:…]["’”)]?\s+|[\r\n])$/.test(before)
/** `the Ness`, `Quist’s Bay`: nobody is called so. */
const namesNobody = (before: string): boolean =>
  /(^|[^\p{L}])(the|an?|this|each|every)\s$|['’]s\s$/iu.test(before)
const wordAfter = (after: string): string => folded(/^(?:['’]s)?\s(\p{L}+)/u.exec(after)?.[1] ?? '')

/** A search through things one after another, since not all of a course is held at once. */
export interface TraceSearch {
  look: (thing: SearchedThing, texts: SearchedTexts) => void
  /** What was found once everything was looked through: what are only words is left out. */
  result: () => { traces: Trace[]; passedOver: Looked['passedOver'] }
  readonly index: PeopleIndex
}
export function traceSearch({ students, alsoHere, staff }: SearchedPeople): TraceSearch {
  const index = peopleIndex(students)
  const found: Found[] = []
  const passed = new Map<string, Looked['passedOver'][number]>()
  const inSmall = new Map<string, number>()
  const thingsOf = new Map<string, Set<string>>()
  const staffWords = new Set(staff.flatMap(({ given, family }) => [folded(given), folded(family)]))
  let things = 0
  let lastThing = ''

  function look(thing: SearchedThing, texts: SearchedTexts): void {
    if (thing.on !== lastThing) things++
    lastThing = thing.on
    // The same words in one place are told once, with how often they stand there.
    const byWords = new Map<string, Found>()
    for (const segment of texts.segments) {
      const options = isCased(segment.place) ? { isCased: true, onSmall: noteSmall } : { isCased: false }
      for (const hit of scan(segment.text, index, options))
        if (!isPassed(segment, hit)) noteHit(byWords, { thing, texts, segment, hit })
    }
    const here = [...byWords.values()]
    const strong = here.filter(({ trace }) => trace.isStrong)
    if (texts.isTable && timesOf(strong) >= tableFrom) found.push(asTable(texts, strong))
    else found.push(...here)
    for (const { alone, trace } of here) if (alone) noteWord(alone.word, trace.on)
  }
  function noteHit(byWords: Map<string, Found>, met: Met): void {
    const { text, place } = met.segment
    const key = `${place} ${text.slice(met.hit.from, met.hit.to)}`
    const there = byWords.get(key)
    // Of two of which one may be a word only, the other tells more.
    const made = there && !isExcused(there) ? there : foundAt(met)
    const first = !there || (isExcused(there) && !isExcused(made)) ? made : there
    first.trace = { ...first.trace, count: (there?.trace.count ?? 0) + 1 }
    byWords.set(key, first)
  }
  function noteSmall(word: string): void {
    inSmall.set(word, (inSmall.get(word) ?? 0) + 1)
  }
  /** Once may be a slip of whoever wrote it. */
  const isSmallWord = (word: string): boolean => (inSmall.get(word) ?? 0) >= (ordinaryWords.has(word) ? 1 : 2)
  /** Whether a word is known already to be an ordinary one here: whatever else is found, it is passed over. */
  function isPassed({ text }: Segment, { from, to, kind }: Hit): boolean {
    if (traceKinds[kind].isStrong) return false
    const word = text.slice(from, to)
    if (!isSmallWord(folded(word))) return false
    passed.set(word, { word, why: 'ordinary' })
    return true
  }
  function noteWord(word: string, on: string): void {
    const list = thingsOf.get(word)
    if (list) list.add(on)
    else thingsOf.set(word, new Set([on]))
  }
  function foundAt({ thing, texts, segment, hit }: Met): Found {
    const { from, to, kind, people } = hit
    const before = segment.text.slice(Math.max(0, from - contextLetters), from)
    const text = segment.text.slice(from, to)
    const after = segment.text.slice(to, to + contextLetters)
    const isHere = people.some(person => alsoHere.has(person))
    const { isStrong } = traceKinds[kind]
    const can = canBe(segment, kind, texts.canWrite)
    return {
      trace: {
        ...thing,
        place: segment.place,
        paragraph: segment.paragraph,
        before,
        text,
        after,
        count: 1,
        kind,
        kinds: null,
        isStrong,
        people: people.length,
        isAlsoHere: isHere,
        can,
        proposed:
          isStrong && (!isHere || segment.place === 'settings') ? proposedFor(segment, kind, can) : null,
      },
      who: people,
      alone: isStrong
        ? null
        : {
            word: folded(text),
            startsSentence: startsSentence(before.slice(-6)),
            isElse: namesNobody(before.slice(-8)) || namesSomethingElse(wordAfter(after)),
          },
    }
  }
  const limit = (): number => Math.max(oftenFrom, things * oftenShare)
  /** Why one name alone is only a word here; null where it may be somebody. */
  function whyWord({ word, startsSentence: starts, isElse }: NonNullable<Found['alone']>) {
    if (staffWords.has(word)) return 'staff' as const
    if (isSmallWord(word) || isElse || (starts && ordinaryWords.has(word))) return 'ordinary' as const
    return (thingsOf.get(word)?.size ?? 0) >= limit() ? ('course' as const) : null
  }
  /** Whether somebody stands in full in a thing. */
  function namedInFull(): (on: string, who: readonly string[]) => boolean {
    const keys = new Set(
      found.flatMap(({ trace, who }) =>
        trace.isStrong && who.length === 1 && !trace.isAlsoHere ? [`${trace.on} ${who[0]}`] : [],
      ),
    )
    return (on, who) => who.length === 1 && keys.has(`${on} ${who[0]}`)
  }
  function result(): ReturnType<TraceSearch['result']> {
    const named = namedInFull()
    const traces = found.flatMap(({ trace, alone, who }) => {
      const why = alone && whyWord(alone)
      // One name alone where the same person stands in full: it is theirs.
      const id = trace.kinds ? tableId(trace.on) : traceId(trace.on, trace.place, trace.text)
      const inFull = alone && named(trace.on, who) ? asInFull(trace) : null
      if (!why) return [{ ...trace, ...inFull, id }]
      passed.set(trace.text, { word: trace.text, why })
      return []
    })
    return { traces, passedOver: [...passed.values()].sort((a, b) => (a.word < b.word ? -1 : 1)) }
  }
  return { look, result, index }
}

/** What can be done with a find: a student's identifier never crosses in settings; what cannot be written is kept or stays behind. */
function canBe({ place }: Segment, kind: TraceKind, canWrite: boolean): TraceAnswer[] {
  const { isStrong } = traceKinds[kind]
  if (!canWrite) return ['keep']
  if (place === 'settings' && isStrong) return ['remove']
  if (place === 'link' || place === 'metadata' || place === 'script') return ['remove', 'keep']
  return ['remove', 'role', 'keep']
}
function proposedFor({ place }: Segment, kind: TraceKind, can: readonly TraceAnswer[]): TraceAnswer | null {
  if (!can.includes('remove')) return null
  const isName = kind === 'name' && can.includes('role') && place !== 'comment'
  return isName ? 'role' : 'remove'
}
const isExcused = ({ alone }: Found): boolean =>
  alone !== null && (alone.isElse || (alone.startsSentence && ordinaryWords.has(alone.word)))
const asInFull = ({ can }: Pick<Trace, 'can'>): Pick<Trace, 'proposed'> => ({
  proposed: can.includes('role') ? 'role' : null,
})
/** How often some finds stand in a thing, all together. */
const timesOf = (all: readonly Found[]): number => all.reduce((sum, { trace }) => sum + trace.count, 0)
function asTable(texts: SearchedTexts, all: readonly Found[]): Found {
  const kinds: Partial<Record<TraceKind, number>> = {}
  for (const { trace } of all) kinds[trace.kind] = (kinds[trace.kind] ?? 0) + trace.count
  const [first] = all
  if (!first) throw new Error('a table without a find')
  return {
    trace: {
      ...first.trace,
      count: timesOf(all),
      kinds,
      people: all.length,
      isAlsoHere: all.every(({ trace }) => trace.isAlsoHere),
      can: texts.canWrite ? ['remove', 'keep'] : ['keep'],
      proposed: null,
    },
    who: [],
    alone: null,
  }
}
