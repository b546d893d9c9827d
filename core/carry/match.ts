import type { ItemKind } from '../course/model'
import type { OutlineNode } from '../course/outline'
import { comparableTitle } from './titles'

/** By what a thing of a source met one of the shell, the surest first; `hand`: a person said so. */
export const matchLevels = ['hand', 'lineage', 'identifier', 'content', 'title', 'place', 'position'] as const
export type MatchLevel = (typeof matchLevels)[number]
export type MatchSureness = 'sure' | 'likely' | 'guessed'
export const surenessOf = (level: MatchLevel): MatchSureness => {
  if (level === 'title') return 'likely'
  return level === 'place' || level === 'position' ? 'guessed' : 'sure'
}
export interface Match {
  readonly source: string
  readonly shell: string
  readonly level: MatchLevel
}

type Node = Pick<
  OutlineNode,
  'lineage' | 'type' | 'kind' | 'title' | 'identifier' | 'body' | 'size' | 'unit' | 'parent' | 'holds'
>
/** What a person said, by the source's lineage: which thing of the shell it meets, or (null) that it meets none. */
export type PairedByHand = Readonly<Record<string, string | null>>
export interface Sides {
  readonly sources: readonly Node[]
  readonly shell: readonly Node[]
  readonly byHand: PairedByHand
  /** Under which lineage of the shell an earlier run carried a thing of a source. */
  readonly carriedAs: ReadonlyMap<string, string>
  /** Whether units may meet by their position alone; they do where nothing is said. */
  readonly byPosition?: boolean
}

/** Things of one key, in the shell's order, of which each is taken once. */
class Free {
  private readonly byKey = new Map<string, Node[]>()
  private readonly next = new Map<string, number>()
  constructor(
    nodes: readonly Node[],
    keysOf: (node: Node) => readonly string[],
    private readonly isTaken: (lineage: string) => boolean,
  ) {
    for (const node of nodes)
      for (const key of keysOf(node)) {
        const list = this.byKey.get(key)
        if (list) list.push(node)
        else this.byKey.set(key, [node])
      }
  }
  earliest(key: string): Node | undefined {
    const list = this.byKey.get(key) ?? []
    let at = this.next.get(key) ?? 0
    while (at < list.length && this.isTaken(list[at]?.lineage ?? '')) at++
    this.next.set(key, at)
    return list[at]
  }
}

const canHold = (place: Pick<Node, 'holds'>, kind: ItemKind | null): boolean =>
  kind !== null && (place.holds?.includes(kind) ?? false)
/** The kinds that a thing counts as where titles are compared: a unit's, its own, or those that an empty place can hold. */
const kindsOf = ({ type, kind, holds }: Node): readonly string[] =>
  holds ?? (type === 'unit' ? ['unit'] : [kind ?? ''])

/**
 * Which thing of the sources meets which of the shell (docs/places.md, section 1): each meets at most one, of its own sort. Levels are tried
 * one after another over the whole course, each in the sources' order with the shell's earliest that is free.
 */
export function matchThings({
  sources,
  shell,
  byHand,
  carriedAs,
  byPosition = true,
}: Sides): Map<string, Match> {
  // An empty shell, as most are: nothing can meet anything.
  if (shell.length === 0) return new Map()
  const matches = new Map<string, Match>()
  const taken = new Map<string, string>()
  const inShell = new Map(shell.map(node => [node.lineage, node]))
  const meet = (source: Node, found: Node | undefined, level: MatchLevel): void => {
    if (!found || source.type !== found.type || matches.has(source.lineage) || taken.has(found.lineage))
      return
    matches.set(source.lineage, { source: source.lineage, shell: found.lineage, level })
    taken.set(found.lineage, source.lineage)
  }
  const isOpen = ({ lineage }: Node): boolean => !matches.has(lineage) && byHand[lineage] !== null
  const open = (type?: Node['type']): Node[] =>
    sources.filter(node => isOpen(node) && (type === undefined || node.type === type))
  const isTaken = (lineage: string): boolean => taken.has(lineage)
  const free = (keysOf: (node: Node) => readonly string[]): Free => new Free(shell, keysOf, isTaken)
  const metBy = (lineage: string | null): string | null =>
    lineage === null ? null : (matches.get(lineage)?.shell ?? null)

  for (const node of sources) meet(node, inShell.get(byHand[node.lineage] ?? ''), 'hand')
  // What a run carried under another key goes first: there the same key stands for what the shell kept beside it.
  for (const node of open()) meet(node, inShell.get(carriedAs.get(node.lineage) ?? ''), 'lineage')
  for (const node of open()) meet(node, inShell.get(node.lineage), 'lineage')

  const identified = free(node => (node.identifier === null ? [] : [`${node.type} ${node.identifier}`]))
  for (const node of open())
    if (node.identifier !== null)
      meet(node, identified.earliest(`${node.type} ${node.identifier}`), 'identifier')

  const contentOf = ({ kind, body, size }: Node): string[] => (body && size > 0 ? [`${kind} ${body}`] : [])
  const bodied = free(contentOf)
  for (const node of open('item'))
    for (const key of contentOf(node)) meet(node, bodied.earliest(key), 'content')
  for (const { unit, found } of unitsByItems(open('unit'), sources, shell, matches, isTaken))
    meet(unit, found, 'content')

  matchTitles()
  const places = free(node => (node.holds ?? []).map(kind => `${node.unit ?? ''} ${kind}`))
  for (const node of open('item')) {
    const unit = metBy(node.unit)
    if (unit === null || node.kind === null) continue
    const found = places.earliest(`${unit} ${node.kind}`)
    if (found && canHold(found, node.kind)) meet(node, found, 'place')
  }
  if (byPosition) matchPositions()
  return matches

  /** The same kind and title: of units first, since items look into units that met; there first, then anywhere. */
  function matchTitles(): void {
    const keyOf = (node: Node, kind: string): string | null => {
      const title = comparableTitle(node.title)
      return title === '' ? null : `${kind} ${title}`
    }
    const keysOf = (node: Node): string[] => kindsOf(node).flatMap(kind => keyOf(node, kind) ?? [])
    const own = (node: Node): string | null => keyOf(node, node.type === 'unit' ? 'unit' : (node.kind ?? ''))
    for (const type of ['unit', 'item'] as const) {
      const within = free(node => keysOf(node).map(key => `${overOf(node) ?? ''} ${key}`))
      for (const node of open(type)) {
        const key = own(node)
        const over = overOf(node)
        const met = metBy(over)
        if (key !== null && over !== null && met !== null)
          meet(node, within.earliest(`${met} ${key}`), 'title')
      }
      const anywhere = free(keysOf)
      for (const node of open(type)) {
        const key = own(node)
        if (key !== null) meet(node, anywhere.earliest(key), 'title')
      }
    }
  }
  /** The k-th unit without a partner with the k-th of the shell's, where the shell's units hold nothing but places. */
  function matchPositions(): void {
    const unitsOf = (isPlace: boolean): Set<string | null> =>
      new Set(
        shell
          .filter(node => node.type === 'item' && (node.holds !== null) === isPlace)
          .map(node => node.unit),
      )
    const [withPlaces, held] = [unitsOf(true), unitsOf(false)]
    const left = shell.filter(
      node =>
        node.type === 'unit' &&
        !isTaken(node.lineage) &&
        withPlaces.has(node.lineage) &&
        !held.has(node.lineage),
    )
    open('unit').forEach((node, at) => meet(node, left[at], 'position'))
  }
}
const overOf = ({ type, unit, parent }: Node): string | null => (type === 'unit' ? parent : unit)

/** For each unit the shell's free one in which more than half of its items met theirs: that with most of them; of equals the earlier. */
function* unitsByItems(
  units: readonly Node[],
  sources: readonly Node[],
  shell: readonly Node[],
  matches: ReadonlyMap<string, Match>,
  isTaken: (lineage: string) => boolean,
): Generator<{ unit: Node; found: Node | undefined }> {
  const inShell = new Map(shell.map(node => [node.lineage, node]))
  const order = new Map(shell.map((node, at) => [node.lineage, at]))
  const itemsOf = new Map<string | null, Node[]>()
  for (const node of sources)
    if (node.type === 'item') itemsOf.set(node.unit, [...(itemsOf.get(node.unit) ?? []), node])
  for (const unit of units) {
    const items = itemsOf.get(unit.lineage) ?? []
    const met = new Map<string, number>()
    for (const item of items) {
      const there = inShell.get(matches.get(item.lineage)?.shell ?? '')?.unit
      if (there) met.set(there, (met.get(there) ?? 0) + 1)
    }
    const [best] = [...met]
      .filter(([lineage]) => !isTaken(lineage))
      .sort(
        ([one, ones], [other, others]) => others - ones || (order.get(one) ?? 0) - (order.get(other) ?? 0),
      )
    if (best && 2 * best[1] > items.length) yield { unit, found: inShell.get(best[0]) }
  }
}

/** What categories and rubrics are matched by: they stand in no unit, hold nothing, and are alike by key, identifier or title alone. */
interface Named {
  readonly lineage: string
  readonly identifier: string | null
  readonly title: string
}
/** Which of some named things of the sources meets which of the shell, by the lineage of the source's. */
export function matchNamed(
  sources: readonly Named[],
  shell: readonly Named[],
  byHand: PairedByHand,
): Map<string, Match> {
  const asNode = ({ lineage, identifier, title }: Named): Node => ({
    lineage,
    identifier,
    title,
    type: 'unit',
    kind: null,
    body: null,
    size: 0,
    unit: null,
    parent: null,
    holds: null,
  })
  return matchThings({
    sources: sources.map(asNode),
    shell: shell.map(asNode),
    byHand,
    carriedAs: new Map(),
    byPosition: false,
  })
}
