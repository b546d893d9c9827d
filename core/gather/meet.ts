import { comparableTitle } from '../carry/titles'
import { sayingKey, type GatheredItem, type Saying } from './saying'

/** How a saying came to its item. `likely`: by a title that is the same but for case, numbers in front and punctuation (docs/places.md, level 4). */
export type MetHow = 'hand' | 'identifier' | 'title' | 'likely'
export interface Met {
  readonly saying: Saying
  readonly item: GatheredItem
  readonly how: MetHow
}
/** Why a saying met nothing: no item is like it, several are, or another line of the file met that item. */
export type UnmetWhy = 'none' | 'several' | 'taken'
export interface Unmet {
  readonly saying: Saying
  readonly why: UnmetWhy
  /** So many items are like it. */
  readonly alike: number
}
/** Pairs made by hand: an item's identifier by a saying's key; null: it is to meet nothing. */
export type HandPairs = Readonly<Record<string, string | null>>

function groupedBy(items: readonly GatheredItem[], keyOf: (item: GatheredItem) => string | null) {
  const groups = new Map<string, GatheredItem[]>()
  for (const item of items) {
    const key = keyOf(item)
    if (key) groups.set(key, [...(groups.get(key) ?? []), item])
  }
  return groups
}

/**
 * Which item each saying is about: by a hand's pair, by identifier, by exactly its title, by a title that is compared. Of one file two lines
 * never meet the same item: the first of the surer way has it. Levels are tried in this order over all sayings of a file.
 */
export function meet(
  items: readonly GatheredItem[],
  sayings: readonly Saying[],
  byHand: HandPairs = {},
): { met: Met[]; unmet: Unmet[] } {
  const byIdentifier = new Map<string, GatheredItem>()
  for (const item of items)
    if (item.resource) byIdentifier.set(item.resource, byIdentifier.get(item.resource) ?? item)
  for (const item of items) byIdentifier.set(item.identifier, item)
  const byTitle = groupedBy(items, item => item.title)
  const byLikeness = groupedBy(items, item => comparableTitle(item.title))
  const levels: readonly [MetHow, (saying: Saying) => readonly GatheredItem[]][] = [
    ['hand', saying => found(byIdentifier.get(byHand[sayingKey(saying)] ?? ''))],
    ['identifier', ({ identifier }) => found(identifier === null ? undefined : byIdentifier.get(identifier))],
    ['title', ({ title }) => byTitle.get(title) ?? []],
    ['likely', ({ title }) => byLikeness.get(comparableTitle(title)) ?? []],
  ]
  const met = new Map<Saying, Met>()
  const why = new Map<Saying, Unmet>()
  const taken = new Set<string>()
  for (const [how, candidates] of levels)
    for (const saying of sayings) {
      if (met.has(saying) || (how !== 'hand' && byHand[sayingKey(saying)] === null)) continue
      const alike = candidates(saying)
      const free = alike.filter(item => !taken.has(`${saying.file}\n${item.identifier}`))
      const [item] = free
      if (item && free.length === 1) {
        met.set(saying, { saying, item, how })
        taken.add(`${saying.file}\n${item.identifier}`)
      } else if (alike.length > 0)
        why.set(saying, { saying, why: item ? 'several' : 'taken', alike: alike.length })
    }
  return {
    met: sayings.flatMap(saying => met.get(saying) ?? []),
    unmet: sayings.flatMap(saying =>
      met.has(saying) ? [] : [why.get(saying) ?? { saying, why: 'none', alike: 0 }],
    ),
  }
}
const found = (item: GatheredItem | undefined): readonly GatheredItem[] => (item ? [item] : [])
