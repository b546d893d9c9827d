import type { PersonRow } from '../db/tables'

export type NamedRow = Pick<PersonRow, 'given_name' | 'family_name'>
/** `I. Marchetti` */
export const shortName = (row: NamedRow): string => `${row.given_name.slice(0, 1)}. ${row.family_name}`
/** `Ines Marchetti` */
export const fullName = (row: NamedRow): string => `${row.given_name} ${row.family_name}`
