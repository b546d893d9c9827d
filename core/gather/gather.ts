import { meet, type HandPairs, type Met, type Unmet } from './meet'
import {
  isDay,
  saysSame,
  sayingKinds,
  saidFields,
  type GatheredItem,
  type SaidBy,
  type SaidField,
  type Saying,
} from './saying'

/** One file's word on a field of an item. */
export interface Said {
  readonly file: string
  readonly kind: Saying['kind']
  readonly value: string | null
}
/** What an item gets, and which file says so. */
export interface Taken extends Said {
  /** Other files say otherwise, the one that wins unasked first. */
  readonly others: readonly Said[]
}
export interface GatheredFields {
  readonly item: GatheredItem
  readonly fields: Readonly<Partial<Record<SaidField, Taken>>>
}
/** Which file is believed, by {@link fieldKey}. */
export type FileChoices = Readonly<Record<string, string>>
/** Stands for one field of one item. */
export const fieldKey = (identifier: string, field: SaidField): string => `${identifier}\n${field}`

/** What kind of file each field of each item was taken from, by the item's identifier. */
export const saidBy = ({ items }: Pick<Gathered, 'items'>): Map<string, SaidBy> =>
  new Map(
    items.map(({ item, fields }) => [
      item.identifier,
      Object.fromEntries(Object.entries(fields).map(([field, { kind }]) => [field, kind])),
    ]),
  )
export interface Gathered {
  /** Every item of the package, in its order. */
  readonly items: readonly GatheredFields[]
  readonly met: readonly Met[]
  /** What met nothing stays out, and is told. */
  readonly unmet: readonly Unmet[]
}
/** A day alone takes its time from a file that gives one on that day, if any does. */
function withTime(value: string | null, said: readonly Said[]): string | null {
  if (value === null || !isDay(value)) return value
  return (
    said.find(other => other.value !== null && !isDay(other.value) && saysSame(other.value, value))?.value ??
    value
  )
}
/** Whether an item says anything of a field itself: also that there is nothing, where a file said so or somebody took it away. */
const speaksOf = ({ values, touched, by }: GatheredItem, field: SaidField): boolean =>
  values[field] !== undefined || by?.[field] !== undefined || (touched?.includes(field) ?? false)
/** What stands in a course counts right after the kind of file that brought it, or first where somebody has changed it there. */
function rankIn({ touched, by }: GatheredItem, field: SaidField, { kind }: Said): number {
  if (kind !== 'package') return sayingKinds.indexOf(kind)
  return touched?.includes(field) ? -1 : sayingKinds.indexOf(by?.[field] ?? 'package') + 0.5
}
/** Puts together what several files say of the items of a package: field by field, each with the file that says so. */
export function gather(
  items: readonly GatheredItem[],
  sayings: readonly Saying[],
  {
    pairs = {},
    choices = {},
    packageFile = '',
  }: { pairs?: HandPairs; choices?: FileChoices; packageFile?: string } = {},
): Gathered {
  const { met, unmet } = meet(items, sayings, pairs)
  const about = new Map<GatheredItem, Saying[]>()
  for (const { saying, item } of met) about.set(item, [...(about.get(item) ?? []), saying])
  const fieldOf = (item: GatheredItem, field: SaidField): Taken | null => {
    const own: Said[] = [{ file: packageFile, kind: 'package', value: item.values[field] ?? null }]
    const said = [
      ...(about.get(item) ?? []).flatMap(({ file, kind, values }): Said[] => {
        const value = values[field]
        return value === undefined ? [] : [{ file, kind, value }]
      }),
      ...(speaksOf(item, field) ? own : []),
    ].sort((a, b) => rankIn(item, field, a) - rankIn(item, field, b))
    const chosen = choices[fieldKey(item.identifier, field)]
    const takes = said.find(({ file }) => file === chosen) ?? said[0]
    if (!takes) return null
    const others = said.filter(({ value }) => !saysSame(value, takes.value))
    return { ...takes, value: withTime(takes.value, said), others }
  }
  return {
    items: items.map(item => ({
      item,
      fields: Object.fromEntries(
        saidFields.flatMap(field => {
          const taken = fieldOf(item, field)
          return taken ? [[field, taken]] : []
        }),
      ),
    })),
    met,
    unmet,
  }
}
