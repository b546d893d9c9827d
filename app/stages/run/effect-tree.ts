import type { Happening, PlaceRow } from '~~/core/carry/places/row'
import type { PlannedItem } from '~~/core/dates/plan'
import type { WallTime } from '~~/core/calendar/day'
import { happeningText, titleOf } from '../carry/carry'

/** What a run does with things, in the order in which it is told; what stays as it is says nothing. */
const told = [
  { name: 'adds', words: ['added', 'added'], of: ['adds', 'both'] },
  { name: 'fills', words: ['place filled', 'places filled'], of: ['fills'] },
  { name: 'replaces', words: ['replaced', 'replaced'], of: ['replaces'] },
  { name: 'updates', words: ['brought up to date', 'brought up to date'], of: ['again'] },
  { name: 'joins', words: ['text into another', 'texts into others'], of: ['joins'] },
  { name: 'removes', words: ['removed', 'removed'], of: ['removes', 'unfilled'] },
  { name: 'left', words: ['left behind', 'left behind'], of: ['left', 'away'] },
  { name: 'stays', words: ['stays', 'stay'], of: ['stays', 'kept', 'fixed', 'there'] },
] as const satisfies { name: string; words: readonly [string, string]; of: readonly Happening[] }[]
export type EffectName = (typeof told)[number]['name']
export const effectNames: readonly EffectName[] = told.map(({ name }) => name)
export const effectName = ({ happens }: Pick<PlaceRow, 'happens'>): EffectName =>
  told.find(({ of }) => (of as readonly Happening[]).includes(happens))?.name ?? 'stays'

export interface EffectItem {
  readonly key: string
  readonly row: PlaceRow
  readonly title: string
  readonly happens: string
  readonly effect: EffectName
  readonly category: string
  readonly rubric: string
  readonly dates: PlannedItem | null
}
export interface EffectGroup {
  readonly key: string
  readonly title: string
  readonly depth: number
  /** What happens to the unit itself; null of what stands outside the units. */
  readonly happens: string | null
  /** When the unit opens, where it does so on a date. */
  readonly opens: WallTime | null
  readonly items: readonly EffectItem[]
  readonly counts: Readonly<Partial<Record<EffectName, number>>>
}
type Titles = ReadonlyMap<string, string>
/**
 * The whole effect as a tree: each unit with what happens in it, in the order that the shell will have. `shown`: of which effects; a unit in
 * which nothing of that happens is left out. `dates`: by lineage in the source.
 */
export function effectTree(
  rows: readonly PlaceRow[],
  {
    shown,
    categories,
    rubrics,
    dates,
  }: {
    shown: ReadonlySet<EffectName>
    categories: Titles
    rubrics: Titles
    dates: ReadonlyMap<string, PlannedItem>
  },
): EffectGroup[] {
  type Open = EffectGroup & { items: EffectItem[]; counts: Partial<Record<EffectName, number>> }
  const outside: Open = {
    key: 'outside',
    title: 'Outside the units',
    depth: 0,
    happens: null,
    opens: null,
    items: [],
    counts: {},
  }
  const groups: Open[] = [outside]
  const over: { depth: number; group: Open }[] = []
  for (const row of rows) {
    while (over.length > 0 && (over.at(-1)?.depth ?? 0) >= row.depth) over.pop()
    const effect = effectName(row)
    if (row.type === 'unit') {
      const group: Open = {
        key: row.key,
        title: titleOf(row),
        depth: row.depth,
        happens: happeningText(row),
        opens: opensThen(row, dates),
        items: [],
        counts: {},
      }
      groups.push(group)
      over.push({ depth: row.depth, group })
      continue
    }
    const group = over.at(-1)?.group ?? outside
    group.counts[effect] = (group.counts[effect] ?? 0) + 1
    if (!shown.has(effect)) continue
    const comes = effect !== 'left' && effect !== 'removes' && effect !== 'stays'
    group.items.push({
      key: row.key,
      row,
      title: titleOf(row),
      happens: happeningText(row),
      effect,
      category: comes ? (categories.get(row.carries?.category ?? '') ?? '') : '',
      rubric: comes ? (rubrics.get(row.source?.rubric ?? '') ?? '') : '',
      dates: comes ? (dates.get(row.source?.lineage ?? '') ?? null) : null,
    })
  }
  return groups.filter(({ items }) => items.length > 0)
}
/** When a unit opens once the plan is run; one of the shell that opens on a date of its own keeps that. */
function opensThen(row: PlaceRow, dates: ReadonlyMap<string, PlannedItem>): EffectGroup['opens'] {
  const own = row.shell?.opens ?? null
  const comes = dates.get(row.source?.lineage ?? '')?.opens ?? null
  if (row.happens === 'left' || row.happens === 'away') return own
  return row.happens === 'joins' ? (own ?? comes) : (comes ?? own)
}
/** `12 added, 1 left behind` */
export const effectCounts = (counts: EffectGroup['counts']): string =>
  told
    .flatMap(({ name, words }) => {
      const n = counts[name] ?? 0
      return n > 0 ? [`${n} ${words[n === 1 ? 0 : 1]}`] : []
    })
    .join(', ')
export const effectWord = (name: EffectName, n: number): string => {
  const { words } = told.find(each => each.name === name) ?? told[0]
  return words[n === 1 ? 0 : 1]
}
