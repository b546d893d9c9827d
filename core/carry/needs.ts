import type { OutlineNode } from '../course/outline'

/** Why one thing needs another. */
export const needWords = {
  link: 'links to',
  release: 'opens after',
  category: 'is graded under',
  rubric: 'is marked by',
  group: 'is for',
} as const
export type NeedWhy = keyof typeof needWords
/** One thing that needs another, by lineage. */
export interface Need {
  readonly from: string
  readonly to: string
  readonly why: NeedWhy
}
export interface Link {
  readonly from: string
  readonly to: string
}

/** All that the things of the sources need: what their texts link to, what must come before them, and what they are graded by. */
export function needsIn(
  nodes: readonly Pick<OutlineNode, 'lineage' | 'release' | 'category' | 'rubric' | 'group'>[],
  links: readonly Link[],
): Need[] {
  const own = nodes.flatMap(({ lineage: from, release, category, rubric, group }): Need[] => [
    ...release.map(({ after }): Need => ({ from, to: after, why: 'release' })),
    ...(category === null ? [] : [{ from, to: category, why: 'category' as const }]),
    ...(rubric === null ? [] : [{ from, to: rubric, why: 'rubric' as const }]),
    ...(group === null ? [] : [{ from, to: group, why: 'group' as const }]),
  ])
  return [
    ...links.filter(({ from, to }) => from !== to).map((link): Need => ({ ...link, why: 'link' })),
    ...own,
  ]
}

/**
 * The least set that holds some things and all that they need, and what those need in turn; cycles are fine. What is not `known` is no thing of the
 * sources: a link to nowhere brings nothing.
 */
export function closureOf(
  chosen: Iterable<string>,
  needs: readonly Need[],
  known: (lineage: string) => boolean,
): Set<string> {
  const of = new Map<string, string[]>()
  for (const { from, to } of needs) {
    const list = of.get(from)
    if (list) list.push(to)
    else of.set(from, [to])
  }
  const closed = new Set<string>()
  const waiting = [...chosen]
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    if (closed.has(next) || !known(next)) continue
    closed.add(next)
    waiting.push(...(of.get(next) ?? []))
  }
  return closed
}

/** Something that is left behind although what comes needs it: who needs it, and why. */
export interface Broken {
  readonly needed: string
  readonly by: readonly { readonly lineage: string; readonly why: NeedWhy }[]
}
/** What breaks if just these come: things that are not there then, and that nothing of the shell stands for. */
export function brokenBy(
  carried: ReadonlySet<string>,
  needs: readonly Need[],
  isThere: (lineage: string) => boolean,
): Broken[] {
  const broken = new Map<string, { lineage: string; why: NeedWhy }[]>()
  for (const { from, to, why } of needs) {
    if (!carried.has(from) || carried.has(to) || isThere(to)) continue
    const list = broken.get(to)
    if (list) list.push({ lineage: from, why })
    else broken.set(to, [{ lineage: from, why }])
  }
  return [...broken].map(([needed, by]) => ({ needed, by }))
}
