import type { OutlineNode } from '../course/outline'
import { check, standingItems } from './check'

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
/** Which earlier item a text stands in too, and how much of it: 1 is all, in the very same words. */
export interface Double {
  readonly of: string
  readonly title: string
  readonly likeness: number
}
/** Items whose text an earlier item of the same kind has, by hash or by words. */
export function doublesAmong(
  items: readonly Pick<OutlineNode, 'lineage' | 'kind' | 'body' | 'title'>[],
  texts: ReadonlyMap<string, string>,
): Map<string, Double> {
  const doubles = new Map<string, Double>()
  const byBody = new Map<string, (typeof items)[number]>()
  const kept: { item: (typeof items)[number]; shingles: Set<string> }[] = []
  // Which earlier texts hold a shingle: only those that share some are compared.
  const holders = new Map<string, number[]>()
  for (const item of items) {
    if (item.body === null) continue
    const say = (of: (typeof items)[number], likeness: number): void =>
      void doubles.set(item.lineage, { of: of.lineage, title: of.title, likeness })
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

/** The same content under two keys, or most of it. */
export const contentTwice = check({
  title: 'Here twice',
  short: 'here twice',
  grave: 'look',
  mends: 'Leave one behind',
  knows: ['content'],
  find: ({ nodes, content: { texts } }) =>
    [
      ...doublesAmong(
        standingItems({ nodes }).filter(({ holds }) => holds === null),
        texts,
      ),
    ].map(([lineage, { title, likeness }]) => ({
      lineage,
      sentence:
        likeness === 1
          ? `The same text as “${title}”.`
          : `${Math.round(likeness * 100)} % of its words stand in “${title}” too.`,
    })),
})
