import { dayOf } from '../calendar/day'
import type { GradingPeriod } from '../calendar/term'
import type { ItemDates } from '../course/dates'
import type { OutlineNode } from '../course/outline'

/** The grading period that an item is filed under in the new term, and by what it was found; null: a person must say. */
export type Filed =
  | { readonly period: string; readonly by: 'chosen' | 'due' | 'opens' | 'unit' }
  /** No grading period holds the date that tells, or no date tells anything. */
  | { readonly period: null; readonly by: 'outside' | 'nothing' }

type Dates = ReadonlyMap<string, Readonly<ItemDates>>
export interface FilingInput {
  /** Units and items in course order. */
  readonly nodes: readonly Pick<OutlineNode, 'lineage' | 'type' | 'unit' | 'points' | 'exempt'>[]
  /** Their dates in the new term. */
  readonly dates: Dates
  /** Those of the new term, in the order of their first days. */
  readonly periods: readonly GradingPeriod[]
  /** By lineage key, what a person has chosen. */
  readonly chosen: Readonly<Record<string, string>>
}

/** Whether an item is filed under a grading period: it has points, and counts. */
export const isFiled = ({ type, points, exempt }: Pick<OutlineNode, 'type' | 'points' | 'exempt'>): boolean =>
  type === 'item' && points !== null && !exempt

/** The first grading period that holds a day; null where none does. */
const periodOn = (periods: readonly GradingPeriod[], at: string): string | null => {
  const day = dayOf(at)
  return periods.find(({ from, to }) => day >= from && day <= to)?.name ?? null
}

/**
 * The grading period of every item that counts: what was chosen, else that of its new due date, else of its opening, else of its unit (of the
 * date on which that opens, else the one period in which all that is due or opens in it falls). Empty where the term has none. A date
 * outside every period is no reason to look further: the item is asked about, as it would be filed under a period that is over.
 * Common practice, no source.
 */
export function fileItems({ nodes, dates, periods, chosen }: FilingInput): Map<string, Filed> {
  if (periods.length === 0) return new Map()
  const names = new Set(periods.map(({ name }) => name))
  // A course has far fewer different dates than items.
  const known = new Map<string, string | null>()
  const periodAt = (at: string): string | null => {
    const found = known.has(at) ? (known.get(at) ?? null) : periodOn(periods, at)
    known.set(at, found)
    return found
  }
  const telling = (lineage: string): { at: string; by: 'due' | 'opens' } | null => {
    const own = dates.get(lineage)
    if (own?.due) return { at: own.due, by: 'due' }
    return own?.opens ? { at: own.opens, by: 'opens' } : null
  }
  const within = new Map<string, Set<string | null>>()
  for (const { lineage, type, unit } of nodes) {
    const told = type === 'item' && unit !== null ? telling(lineage) : null
    if (told && unit !== null) within.set(unit, (within.get(unit) ?? new Set()).add(periodAt(told.at)))
  }
  const ofUnit = (unit: string | null): Filed => {
    const opens = unit === null ? null : dates.get(unit)?.opens
    const all = unit === null ? [] : [...(within.get(unit) ?? [])]
    const shared = all.length === 1 ? (all[0] ?? null) : null
    const period = opens ? periodAt(opens) : shared
    return period === null ? { period, by: 'nothing' } : { period, by: 'unit' }
  }
  const filed = (lineage: string, unit: string | null): Filed => {
    const own = chosen[lineage]
    if (own !== undefined && names.has(own)) return { period: own, by: 'chosen' }
    const told = telling(lineage)
    if (!told) return ofUnit(unit)
    const period = periodAt(told.at)
    return period === null ? { period, by: 'outside' } : { period, by: told.by }
  }
  return new Map(nodes.filter(isFiled).map(({ lineage, unit }) => [lineage, filed(lineage, unit)]))
}
