import { dayOf, type WallTime } from '../calendar/day'
import { teachingWeek, type Term } from '../calendar/term'
import type { ItemDates } from '../course/dates'
import type { PlaceRow } from './places/row'

/** The number that a unit's title gives it ("Week 3", "3 Tides"); null where there is none. */
export function unitNumber(title: string): number | null {
  const found = /\d+/.exec(title)
  return found ? Number(found[0]) : null
}
/** The teaching week of a moment; null where it lies in none. */
function weekOf(term: Term, at: WallTime): number | null {
  const { week, after } = teachingWeek(term, dayOf(at))
  return after === 0 ? week : null
}
/**
 * Into which unit each thing goes by the teaching week of its new due date (else of its opening): the unit with that number in its title, by
 * lineage of the source. Only what comes and is not nested in an item is moved, and only where such a unit will be there.
 */
export function byTeachingWeek(
  rows: readonly PlaceRow[],
  dates: ReadonlyMap<string, Readonly<ItemDates>>,
  term: Term,
): Record<string, string> {
  const units = new Map<number, PlaceRow>()
  const items = new Set(rows.filter(row => row.type === 'item').map(row => row.key))
  for (const row of rows) {
    const number =
      row.type === 'unit' && row.lineage !== null ? unitNumber((row.shell ?? row.source)?.title ?? '') : null
    if (number !== null && !units.has(number)) units.set(number, row)
  }
  return Object.fromEntries(
    rows.flatMap((row): [string, string][] => {
      if (
        row.type !== 'item' ||
        row.happens !== 'adds' ||
        !row.source ||
        (row.parent && items.has(row.parent))
      )
        return []
      const planned = dates.get(row.source.lineage)
      const at = planned?.due ?? planned?.opens ?? null
      const week = at === null ? null : weekOf(term, at)
      const unit = week === null ? undefined : units.get(week)
      const key = unit && (unit.source?.lineage ?? unit.key)
      return key && unit.lineage !== row.parent ? [[row.source.lineage, key]] : []
    }),
  )
}
