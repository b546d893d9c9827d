import { itemKindDefinitions } from '../course/kinds'
import type { OutlineNode } from '../course/outline'
import { looksOfMode, type CourseMode } from './mode'

/** Why something of a source is worth a look before it comes. Nothing stays behind for it unless a person says so. */
export type Look = { readonly lineage: string } & (
  | { readonly why: 'untouched'; readonly students: number }
  | { readonly why: 'unseen' }
  | { readonly why: 'another-year'; readonly year: number; readonly where: 'name' | 'address' }
  | { readonly why: 'double'; readonly of: string; readonly title: string; readonly likeness: number }
  | { readonly why: 'used-before'; readonly terms: readonly string[] }
  | { readonly why: 'other-mode'; readonly mode: CourseMode; readonly sign: string }
)
export type LookWhy = Look['why']
export const lookWhys = [
  'used-before',
  'untouched',
  'unseen',
  'another-year',
  'double',
  'other-mode',
] as const satisfies LookWhy[]
export const lookTitles: Readonly<Record<LookWhy, string>> = {
  'used-before': 'Assessments used before',
  untouched: 'Untouched last term',
  unseen: 'Never seen by students',
  'another-year': 'Of another year',
  double: 'Here twice',
  'other-mode': 'Made for another way of teaching',
}
const modeWords: Readonly<Record<CourseMode, string>> = {
  'in-person': 'a course that meets',
  blended: 'a blended course',
  online: 'an online course',
}
/** The reason, as a sentence. */
export function lookSentence(look: Look): string {
  switch (look.why) {
    case 'untouched':
      return `None of the ${look.students} students did anything here last term.`
    case 'unseen':
      return 'It was hidden all term and had no opening date.'
    case 'another-year':
      return `Its ${look.where} says ${look.year}.`
    case 'double':
      return look.likeness === 1
        ? `The same text as “${look.title}”.`
        : `${Math.round(look.likeness * 100)} % of its words stand in “${look.title}” too.`
    case 'used-before':
      return `The same questions were used in ${look.terms.join(', ')}.`
    case 'other-mode':
      return `Made for ${modeWords[look.mode]}: ${look.sign}.`
  }
}

export interface WorthInput {
  /** What the sources hold, in course order. */
  readonly nodes: readonly OutlineNode[]
  /** Of each source, which years its term and the new one touch. */
  readonly years: ReadonlySet<number>
  /** By lineage: addresses of web links and tools. */
  readonly addresses: ReadonlyMap<string, string>
  /** Students of the sources, and the items that any of them worked on; null where the person may not be told. */
  readonly worked: { readonly students: number; readonly on: ReadonlySet<string> } | null
  /** By body: what one reads of it. */
  readonly texts: ReadonlyMap<string, string>
  /** By body: names of earlier terms in which students were given it. */
  readonly usedIn: ReadonlyMap<string, readonly string[]>
  /** How the old course was taught, and how the new one will be. */
  readonly modes: { readonly from: CourseMode; readonly into: CourseMode }
}
// Kinds that students work on: where none did, nobody needed it. Common practice, no source.
const workedOn = new Set(['assignment', 'quiz', 'discussion', 'poll', 'survey'])

/** All that is worth a look, in course order, one reason after another. */
export function worthALook(input: WorthInput): Look[] {
  const items = input.nodes.filter(node => node.type === 'item' && node.state !== 'deleted' && !node.holds)
  const doubles = doublesAmong(items, input.texts)
  return items.flatMap((item): Look[] => [
    ...usedBefore(item, input),
    ...untouched(item, input),
    ...ofAnotherYear(item, input),
    ...(doubles.get(item.lineage) ?? []),
    ...looksOfMode(item, input.modes).map((found): Look => ({
      lineage: item.lineage,
      why: 'other-mode',
      ...found,
    })),
  ])
}
function usedBefore({ lineage, kind, body }: OutlineNode, { usedIn }: WorthInput): Look[] {
  const terms = body === null || kind === null ? [] : (usedIn.get(body) ?? [])
  const asks = kind !== null && itemKindDefinitions[kind].shows === 'questions' && kind !== 'bank'
  return asks && terms.length > 1 ? [{ lineage, why: 'used-before', terms }] : []
}
function untouched({ lineage, kind, state, opens }: OutlineNode, { worked }: WorthInput): Look[] {
  if (state === 'hidden' && opens === null) return [{ lineage, why: 'unseen' }]
  if (!worked || worked.students === 0 || !workedOn.has(kind ?? '') || worked.on.has(lineage)) return []
  return [{ lineage, why: 'untouched', students: worked.students }]
}
/** A year from 1990 to 2099 that stands by itself. */
const yearIn = /(?<!\d)(19[9]\d|20\d\d)(?!\d)/g
function ofAnotherYear({ lineage, title, kind }: OutlineNode, { years, addresses }: WorthInput): Look[] {
  const address = addresses.get(lineage)
  const isNamed = kind === 'file' || kind === 'recording' || address !== undefined
  const said = { name: isNamed ? title : '', address: address ?? '' }
  return (['name', 'address'] as const).flatMap((where): Look[] => {
    const found = [...said[where].matchAll(yearIn)].map(match => Number(match[0]))
    const [year] = found
    if (year === undefined || found.some(each => years.has(each))) return []
    return [{ lineage, why: 'another-year', year, where }]
  })
}

const shingle = 5
const alike = { least: 0.7, words: 30 }
const wordsIn = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []
/** So many words after one another, at every place: what two texts share of them tells how alike they are (Broder 1997, resemblance by shingles; from memory). */
function shinglesOf(text: string): Set<string> {
  const words = wordsIn(text).slice(0, 4000)
  return new Set(words.slice(shingle - 1).map((_, at) => words.slice(at, at + shingle).join(' ')))
}
/** How much of the shorter of two sets stands in the other, from 0 to 1. */
function shared(one: ReadonlySet<string>, other: ReadonlySet<string>): number {
  const [few, many] = one.size <= other.size ? [one, other] : [other, one]
  let found = 0
  for (const each of few) if (many.has(each)) found++
  return few.size === 0 ? 0 : found / few.size
}
/** Items whose text an earlier item of the same kind has, by hash or by words. */
export function doublesAmong(
  items: readonly Pick<OutlineNode, 'lineage' | 'kind' | 'body' | 'title'>[],
  texts: ReadonlyMap<string, string>,
): Map<string, Look[]> {
  const doubles = new Map<string, Look[]>()
  const byBody = new Map<string, (typeof items)[number]>()
  const kept: { item: (typeof items)[number]; shingles: Set<string> }[] = []
  // Which earlier texts hold a shingle: only those that share some are compared.
  const holders = new Map<string, number[]>()
  for (const item of items) {
    if (item.body === null) continue
    const say = (of: (typeof items)[number], likeness: number): void =>
      void doubles.set(item.lineage, [
        { lineage: item.lineage, why: 'double', of: of.lineage, title: of.title, likeness },
      ])
    const same = byBody.get(`${item.kind} ${item.body}`)
    if (same) {
      say(same, 1)
      continue
    }
    byBody.set(`${item.kind} ${item.body}`, item)
    const text = texts.get(item.body) ?? ''
    const shingles = shinglesOf(text)
    if (shingles.size < alike.words) continue
    const counts = new Map<number, number>()
    for (const each of shingles)
      for (const at of holders.get(each) ?? []) counts.set(at, (counts.get(at) ?? 0) + 1)
    const near = [...counts]
      .filter(([at, count]) => count >= alike.least * Math.min(shingles.size, kept[at]?.shingles.size ?? 0))
      .flatMap(([at]) => kept[at] ?? [])
      .filter(each => each.item.kind === item.kind)
      .map(each => ({ item: each.item, likeness: shared(shingles, each.shingles) }))
      .sort((a, b) => b.likeness - a.likeness)
    const [best] = near
    if (best && best.likeness >= alike.least) say(best.item, Math.min(best.likeness, 0.99))
    const at = kept.push({ item, shingles }) - 1
    for (const each of shingles) {
      const list = holders.get(each)
      // What stands everywhere (a header that every page has) tells nothing.
      if (!list) holders.set(each, [at])
      else if (list.length < 20) list.push(at)
    }
  }
  return doubles
}
