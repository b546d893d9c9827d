import { computed, type Ref } from 'vue'
import { happenings, losesHere, type Happening, type PlaceRow } from '~~/core/carry/places/row'
import { itemKinds, type ItemKind } from '~~/core/course/model'

/** How many items there are, and how many of them come across. */
export interface CarryCount {
  items: number
  carried: number
}
/** Some, and not all of them, come across. */
export const isPartly = (count: CarryCount | undefined): boolean =>
  count !== undefined && count.carried > 0 && count.carried < count.items
/** Whether taking the box should carry: where not everything below comes yet, everything should. */
export const shouldCarry = (count: CarryCount | undefined, wanted: boolean): boolean =>
  count && count.carried < count.items ? true : wanted

/** A row of the ledger of places as it is shown; its key is what is selected by. */
export interface ShownRow {
  readonly lineage: string
  readonly row: PlaceRow
  readonly carried: boolean
  /** Of a unit: what lies below it. */
  readonly below: CarryCount | undefined
  readonly collapsed: boolean
  /** Of several sources: which one it comes from. */
  readonly from: string | null
  /** It comes from the source whose heading it stands under. */
  readonly isHeaded: boolean
}
interface Shown {
  rows: Ref<readonly PlaceRow[]>
  carried: Ref<ReadonlySet<string>>
  text: Ref<string>
  settleOnly: Ref<boolean>
  /** Whether a person must say something of a row. */
  isOpen: (row: PlaceRow) => boolean
  collapsed: Ref<ReadonlySet<string>>
  from: (lineage: string) => string | null
}
const titleOf = ({ source, shell }: PlaceRow): string => source?.title ?? shell?.title ?? ''
/** What a row is found by: its titles on both sides and its kind. */
const searched = ({ source, shell }: PlaceRow): string =>
  `${source?.title ?? ''} ${shell?.title ?? ''} ${source?.kind ?? shell?.kind ?? ''}`.toLowerCase()

/** Counts for every unit of the sources, of all that lies below it in the ledger. */
export function countsBelow(
  rows: readonly PlaceRow[],
  carried: ReadonlySet<string>,
): Map<string, CarryCount> {
  const counts = new Map<string, CarryCount>()
  const over: PlaceRow[] = []
  for (const row of rows) {
    while (over.length > row.depth) over.pop()
    if (row.source?.type === 'item')
      for (const unit of over) {
        const count = counts.get(unit.key) ?? { items: 0, carried: 0 }
        count.items++
        if (carried.has(row.source.lineage)) count.carried++
        counts.set(unit.key, count)
      }
    over[row.depth] = row
  }
  return counts
}
/** Rows that are found, with the units that they stand in, less what is folded away. */
export function useShownRows({ rows, carried, text, settleOnly, isOpen, collapsed, from }: Shown) {
  const below = computed(() => countsBelow(rows.value, carried.value))
  const words = computed(() => text.value.toLowerCase().split(/\s+/).filter(Boolean))
  return computed(() => {
    const isFound = (row: PlaceRow): boolean =>
      (!settleOnly.value || isOpen(row)) &&
      (words.value.length === 0 || words.value.every(word => searched(row).includes(word)))
    const filters = settleOnly.value || words.value.length > 0
    const wanted = filters ? withUnits(rows.value, isFound) : null
    const shown: ShownRow[] = []
    let hiddenBelow = Infinity
    let top: string | null = null
    for (const row of rows.value) {
      if (wanted && !wanted.has(row.key)) continue
      if (row.depth > hiddenBelow && !filters) continue
      hiddenBelow = collapsed.value.has(row.key) ? row.depth : Infinity
      const source = row.source && from(row.source.lineage)
      if (row.depth === 0) top = source
      shown.push({
        lineage: row.key,
        row,
        carried: row.source !== null && carried.value.has(row.source.lineage),
        below: row.type === 'unit' ? below.value.get(row.key) : undefined,
        collapsed: collapsed.value.has(row.key),
        from: source,
        isHeaded: source !== null && source === top,
      })
    }
    return shown
  })
}
function withUnits(rows: readonly PlaceRow[], isFound: (row: PlaceRow) => boolean): Set<string> {
  const wanted = new Set<string>()
  const over: PlaceRow[] = []
  for (const row of rows) {
    over.length = row.depth
    if (isFound(row)) for (const each of [...over, row]) wanted.add(each.key)
    over[row.depth] = row
  }
  return wanted
}

/** Several sources: what each brings, told above the first of its units. */
export interface SourceHeading extends CarryCount {
  readonly title: string
  /** Bytes of its texts and files that come, each once. */
  readonly size: number
}
/** A line of the ledger as it is drawn: a row by its place among those shown, or the heading of a source. */
export type LedgerLine =
  { key: string; heading: SourceHeading } | { key: string; heading: null; index: number }
/** What each of several sources brings. `from`: which one a thing comes from; `titles`: of the sources in their order. */
export function headingsOfSources(
  rows: readonly PlaceRow[],
  carried: ReadonlySet<string>,
  from: (lineage: string) => number,
  titles: readonly string[],
): SourceHeading[] {
  const found = titles.map(title => ({ title, items: 0, carried: 0, size: 0, bodies: new Set<string>() }))
  for (const { source } of rows) {
    const one = source?.type === 'item' ? found[from(source.lineage)] : undefined
    if (!source || !one) continue
    one.items++
    if (!carried.has(source.lineage)) continue
    one.carried++
    if (source.body === null || one.bodies.has(source.body)) continue
    one.bodies.add(source.body)
    one.size += source.size
  }
  return found.map(({ bodies: _, ...heading }) => heading)
}
/** The lines of a ledger of several sources: a heading wherever the units of another one begin. */
export function linesWithHeadings(
  shown: readonly ShownRow[],
  headings: readonly SourceHeading[],
  from: (lineage: string) => number,
): LedgerLine[] {
  let before: number | null = null
  return shown.flatMap(({ lineage: key, row }, index): LedgerLine[] => {
    const line: LedgerLine = { key, heading: null, index }
    if (headings.length < 2 || row.depth > 0 || !row.source) return [line]
    const source = from(row.source.lineage)
    const heading = source === before ? undefined : headings[source]
    before = source
    return heading ? [{ key: `source ${source} ${key}`, heading }, line] : [line]
  })
}

/** Counts for every kind that there is among the sources' items. */
export function countsByKind(rows: readonly PlaceRow[], carried: ReadonlySet<string>) {
  const counts = new Map<ItemKind, CarryCount>()
  for (const { source } of rows) {
    if (!source?.kind) continue
    const count = counts.get(source.kind) ?? { items: 0, carried: 0 }
    count.items++
    if (carried.has(source.lineage)) count.carried++
    counts.set(source.kind, count)
  }
  return itemKinds.flatMap(kind => {
    const count = counts.get(kind)
    return count ? [{ kind, ...count }] : []
  })
}

/** What happens at a row, in the words between its two sides. */
export function happeningText({ happens, type, isGone }: PlaceRow): string {
  if (type === 'unit' && happens === 'adds') return 'adds the unit'
  if (happens === 'stays' && isGone) return 'gone from the source'
  return happenings[happens]
}
const arrows: Partial<Record<Happening, 'plain' | 'tide' | 'brass'>> = {
  adds: 'plain',
  both: 'brass',
  fills: 'tide',
  joins: 'tide',
  again: 'tide',
  replaces: 'brass',
}
/** The colour of the arrow from one side to the other; null where nothing crosses. */
export const arrowOf = (row: PlaceRow): 'plain' | 'tide' | 'brass' | null => {
  const arrow = arrows[row.happens] ?? null
  return arrow === 'plain' && row.settle ? 'brass' : arrow
}
/** Where what the shell has is from, in a word or two. */
export function shellPlaceText({ shell, isUntouched, happens }: PlaceRow): string {
  if (!shell) return ''
  if (shell.holds) return happens === 'fills' ? 'a template’s place' : 'empty place'
  if (shell.fixed) return 'fixed'
  if (shell.madeBy === 'template') return isUntouched ? 'template’s, untouched' : 'template’s, changed here'
  return shell.madeBy === 'run' ? 'from an earlier run' : 'made here'
}

/** Rows that are alike: the same choice can be made for all of them. */
export const alike = (rows: readonly PlaceRow[], row: PlaceRow): PlaceRow[] =>
  rows.filter(
    other =>
      other.key !== row.key &&
      other.type === row.type &&
      other.source !== null &&
      other.match !== null &&
      row.match !== null &&
      other.happens === row.happens &&
      other.settle === row.settle,
  )
const orderKey = (row: PlaceRow): string => row.source?.lineage ?? row.key
/**
 * What moves a row a place up or down among those of its parent: right after which one it stands then (null: before all others). Null where
 * there is no such place.
 */
export function movedAmong(
  rows: readonly PlaceRow[],
  row: PlaceRow,
  step: -1 | 1,
): { key: string; after: string | null } | null {
  const siblings = rows.filter(
    each => each.parent === row.parent && each.depth === row.depth && each.lineage !== null,
  )
  const at = siblings.findIndex(each => each.key === row.key)
  const passed = siblings[at + step]
  if (at < 0 || !passed) return null
  const after = step > 0 ? passed : siblings[at - 2]
  return { key: orderKey(row), after: after ? orderKey(after) : null }
}
/** Things of the shell that nothing meets and that could be taken away. */
export const removable = (rows: readonly PlaceRow[]): PlaceRow[] =>
  rows.filter(row => row.source === null && row.shell !== null && !row.shell.fixed)
/** The exact list of what is written over or taken away. */
export const lossesIn = (rows: readonly PlaceRow[]): PlaceRow[] => rows.filter(losesHere)
export { titleOf }
