import { z } from 'zod'

/** A fact of an item that says itself: read, stored, copied, compared and shown without anybody naming it again. */
interface ItemField<S extends z.ZodType, C extends string> {
  readonly schema: S
  /** Of an item of which nobody has said anything, and of every unit. */
  readonly none: z.output<S>
  /** Its column among the rows of items. */
  readonly column: C
  /** A plan says what it will be in the shell; else it comes as the source has it. */
  readonly isPlanned: boolean
  readonly words: string
}
const itemField = <S extends z.ZodType, const C extends string>(field: ItemField<S, C>): ItemField<S, C> =>
  field

/**
 * Facts of items that come across with their settings, by name. A new one is a line here and its column (a migration): course JSON, outline,
 * API, database, copies, snapshots, runs and the comparison of three courses walk over this list.
 */
export const itemFields = {
  exempt: itemField({
    schema: z.boolean(),
    none: false,
    column: 'exempt',
    isPlanned: true,
    words: 'counts in no grade',
  }),
  extra: itemField({
    schema: z.boolean(),
    none: false,
    column: 'extra',
    isPlanned: true,
    words: 'is beside the points of its category',
  }),
}
type Fields = typeof itemFields
export type ItemFieldName = keyof Fields
export type ItemFieldValues = { [N in ItemFieldName]: z.output<Fields[N]['schema']> }
/** The same as columns of a row. */
export type ItemFieldColumns = {
  [N in ItemFieldName as Fields[N]['column']]: z.output<Fields[N]['schema']>
}
const entries = Object.entries(itemFields) as [ItemFieldName, Fields[ItemFieldName]][]
const mapFields = <T>(value: (name: ItemFieldName, field: Fields[ItemFieldName]) => T) =>
  Object.fromEntries(entries.map(([name, field]) => [name, value(name, field)])) as Record<ItemFieldName, T>

export const noItemFields = mapFields((_, { none }) => none) as Readonly<ItemFieldValues>
export const itemFieldColumns = entries.map(([, { column }]) => column)
export const plannedItemFields = entries
  .filter(([, { isPlanned }]) => isPlanned)
  .map(([, { column }]) => column)
/** The schemas of all fields; of a document that may leave each out. */
export const itemFieldSchemas = mapFields((_, { schema }) => schema) as {
  [N in ItemFieldName]: Fields[N]['schema']
}
export const itemFieldEntries = mapFields((_, { schema }) => schema.optional()) as {
  [N in ItemFieldName]: z.ZodOptional<Fields[N]['schema']>
}
/** The fields of something that has them, and nothing else of it; what it does not say is as nobody said it. */
export const itemFieldsOf = (of: Partial<ItemFieldValues>): ItemFieldValues =>
  mapFields((name, { none }) => of[name] ?? none)
export const itemFieldsOfRow = (row: ItemFieldColumns): ItemFieldValues =>
  mapFields((_, { column }) => row[column])
export const rowOfItemFields = (of: Partial<ItemFieldValues>): ItemFieldColumns =>
  Object.fromEntries(
    entries.map(([name, { column, none }]) => [column, of[name] ?? none]),
  ) as ItemFieldColumns
/** What of the fields somebody has said otherwise than usual, for texts that are compared. */
export const saidItemFields = (of: Readonly<ItemFieldValues>): Partial<ItemFieldValues> =>
  Object.fromEntries(entries.flatMap(([name, { none }]) => (of[name] === none ? [] : [[name, of[name]]])))
