import { nameBy } from '~~/core/carry/titles'
import type { PlaceRow } from '~~/core/carry/places/row'
import type { ItemKind } from '~~/core/course/model'

/** What is renamed by a pattern: all units that come, all items of one kind, or what is selected. */
export type RenamedSort = 'units' | 'selected' | ItemKind
export interface Renaming {
  readonly lineage: string
  readonly from: string
  readonly to: string
}
/** Whether a thing of a source comes, and can so be called otherwise. */
const comesNamed = ({ source, happens, type }: PlaceRow): boolean =>
  source !== null &&
  (['adds', 'both', 'fills', 'replaces', 'again'].includes(happens) ||
    (type === 'unit' && happens === 'joins'))
/** The new names by a pattern, numbered from 1 in the order that the shell will have. Those that stay as they are, are left out. */
export function renamings(
  rows: readonly PlaceRow[],
  sort: RenamedSort,
  selected: (key: string) => boolean,
  pattern: string,
): Renaming[] {
  const isMeant = ({ type, source, key }: PlaceRow): boolean => {
    if (sort === 'selected') return selected(key)
    return sort === 'units' ? type === 'unit' : source?.kind === sort
  }
  return rows
    .filter(row => comesNamed(row) && isMeant(row))
    .flatMap(({ source, carries }, at): Renaming[] => {
      const to = source ? nameBy(pattern, source.title, at + 1).slice(0, 500) : ''
      const from = carries?.title ?? source?.title ?? ''
      return source && to !== '' && to !== from ? [{ lineage: source.lineage, from, to }] : []
    })
}
