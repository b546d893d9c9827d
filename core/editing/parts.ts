import type { WallTime } from '../calendar/day'
import type { Term } from '../calendar/term'
import { dateFields } from '../course/dates'
import type { ItemKind, ItemState } from '../course/model'
import { settingNames, type SettingName } from '../course/settings'
import { farFault } from '../dates/far'

/** What can be edited of a unit or item in its course, each part by itself. */
export const editedParts = [
  'title',
  'opens',
  'due',
  'closes',
  'points',
  'category',
  'period',
  'state',
  ...settingNames,
] as const
export type EditedPart = (typeof editedParts)[number]
/**
 * Values of parts: dates as wall times, points in ten-thousandths, the category by its key, the grading period by its name, settings as text.
 * Null: it has none.
 */
export interface Parts extends Partial<Record<SettingName, string | null>> {
  readonly title?: string
  readonly opens?: WallTime | null
  readonly due?: WallTime | null
  readonly closes?: WallTime | null
  readonly points?: number | null
  readonly category?: string | null
  readonly period?: string | null
  readonly state?: ItemState
}
/** A unit or item with all its parts as they stand. A unit has a title, an opening and a state. */
export interface Thing {
  readonly lineage: string
  readonly type: 'unit' | 'item'
  readonly kind: ItemKind | null
  readonly parent: string | null
  readonly fixed: boolean
  readonly parts: Parts & { readonly title: string; readonly state: ItemState }
}
/** What an edit changed of one thing: the same parts before and after. */
export interface ThingChange {
  readonly lineage: string
  readonly before: Parts
  readonly after: Parts
}

const ofUnits: ReadonlySet<EditedPart> = new Set(['title', 'opens', 'state'])
const partsIn = (parts: Parts): EditedPart[] => editedParts.filter(part => part in parts)
const only = (parts: Parts, wanted: (part: EditedPart) => boolean): Parts =>
  Object.fromEntries(partsIn(parts).flatMap(part => (wanted(part) ? [[part, parts[part] ?? null]] : [])))
const isSame = (one: Parts, other: Parts, part: EditedPart): boolean =>
  (one[part] ?? null) === (other[part] ?? null)

/** What is wanted of things that is not so already. What a unit cannot have is left out. */
export function changesOf(
  things: ReadonlyMap<string, Thing>,
  wanted: Readonly<Record<string, Parts>>,
): ThingChange[] {
  return Object.entries(wanted).flatMap(([lineage, parts]) => {
    const thing = things.get(lineage)
    if (!thing) return []
    const differs = (part: EditedPart): boolean =>
      (thing.type === 'item' || ofUnits.has(part)) && !isSame(thing.parts, parts, part)
    const after = only(parts, differs)
    const changed = partsIn(after)
    if (changed.length === 0) return []
    return [
      { lineage, before: only(thing.parts, part => changed.includes(part)), after: withAll(after, changed) },
    ]
  })
}
/** A part that a thing has no value of is told as null: it is put back to that. */
const withAll = (parts: Parts, changed: readonly EditedPart[]): Parts =>
  Object.fromEntries(changed.map(part => [part, parts[part] ?? null]))

/** Why a change cannot be made, as a sentence; null where it can. */
export function changeFault(
  { lineage, after }: ThingChange,
  things: ReadonlyMap<string, Thing>,
  known: {
    readonly term: Term
    readonly categories: ReadonlySet<string>
    readonly periods: ReadonlySet<string>
  },
): { readonly part: EditedPart; readonly message: string } | null {
  const thing = things.get(lineage)
  const mayMove = new Set<EditedPart>(['opens', 'due', 'closes', 'period'])
  const held = partsIn(after).find(part => !mayMove.has(part))
  if (thing?.fixed && held)
    return { part: held, message: 'The institution fixes this item: only its dates can be changed.' }
  for (const field of dateFields) {
    const at = after[field]
    const [far] = at ? farFault([field], at, known.term) : []
    if (far) return { part: field, message: far.message }
  }
  const { points, category, period } = after
  if ((points ?? 0) < 0) return { part: 'points', message: 'Points cannot be below 0.' }
  if (typeof category === 'string' && !known.categories.has(category))
    return { part: 'category', message: 'This grade category is not there any more.' }
  if (typeof period === 'string' && !known.periods.has(period))
    return { part: 'period', message: 'The term has no such grading period.' }
  return null
}

/** What taking an edit back puts there again, thing by thing; `overtaken`: how many parts were changed since, and stay. */
export function undoneChanges(
  changes: readonly ThingChange[],
  things: ReadonlyMap<string, Thing>,
): { readonly back: ThingChange[]; readonly overtaken: number } {
  let overtaken = 0
  const back = changes.flatMap(({ lineage, before, after }) => {
    const thing = things.get(lineage)
    const stands = partsIn(after).filter(part => thing !== undefined && isSame(thing.parts, after, part))
    overtaken += partsIn(after).length - stands.length
    if (stands.length === 0) return []
    return [{ lineage, before: only(after, part => stands.includes(part)), after: withAll(before, stands) }]
  })
  return { back, overtaken }
}
/** Two changes one after the other as one: what was before the first, and after the second. Null where they are not of the same things. */
export function joinedChanges(
  first: readonly ThingChange[],
  second: readonly ThingChange[],
): ThingChange[] | null {
  const then = new Map(second.map(change => [change.lineage, change]))
  if (first.length !== second.length || first.some(({ lineage }) => !then.has(lineage))) return null
  return first.flatMap(({ lineage, before, after }) => {
    const next = then.get(lineage)
    if (!next) return []
    const [was, is] = [
      { ...next.before, ...before },
      { ...after, ...next.after },
    ]
    const changed = partsIn(is).filter(part => !isSame(was, is, part))
    return changed.length > 0 ? [{ lineage, before: withAll(was, changed), after: withAll(is, changed) }] : []
  })
}
/** Whether a change is of dates alone, which a section has itself. */
export const isOfDates = ({ after }: ThingChange): boolean =>
  partsIn(after).every(part => dateFields.some(field => field === part))
export const partsOfChange = ({ after }: ThingChange): EditedPart[] => partsIn(after)
