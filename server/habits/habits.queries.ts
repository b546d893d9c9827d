import type { Knex } from 'knex'
import { planDocument, type PlanDocument } from '../../core/plan/document'
import { now, stampOf } from '../clock'
import { takeTurn } from '../db/transaction'
import { json, jsonOf, newId } from '../db/rows'
import type { HabitRow } from '../db/tables'
import { shortName, type NamedRow } from '../people/names'

/** Whose a habit is: a person's, or that of an organisation and what is below it. */
export type HabitOwner = { readonly personId: string } | { readonly orgId: string }
export interface Habit {
  id: string
  owner: HabitOwner
  name: string
  document: PlanDocument
  runId: string
  /** The source and the shell of the run that it was kept from. */
  sourceId: string
  targetId: string
  isUsual: boolean
  by: string
  madeAt: string
}
type Columns = HabitRow & NamedRow & { source_course_id: string; target_course_id: string }
const habitRows = (db: Knex) =>
  db('habits')
    .join('people', 'people.id', 'habits.made_by')
    .join('runs', 'runs.id', 'habits.run_id')
    .orderBy([{ column: 'is_usual', order: 'desc' }, { column: 'habits.name' }])
    .select<Columns[]>(
      'habits.*',
      'given_name',
      'family_name',
      'runs.source_course_id',
      'runs.target_course_id',
    )
const ownerOf = ({ person_id, org_id }: HabitRow): HabitOwner =>
  person_id === null ? { orgId: org_id ?? '' } : { personId: person_id }
const habitFrom = (row: Columns): Habit => ({
  id: row.id,
  owner: ownerOf(row),
  name: row.name,
  document: planDocument.parse(jsonOf(row.document)),
  runId: row.run_id,
  sourceId: row.source_course_id,
  targetId: row.target_course_id,
  isUsual: Boolean(row.is_usual),
  by: shortName(row),
  madeAt: row.made_at,
})
const ownColumns = (owner: HabitOwner): Pick<HabitRow, 'person_id' | 'org_id'> =>
  'personId' in owner ? { person_id: owner.personId, org_id: null } : { person_id: null, org_id: owner.orgId }

/** Habits of a person and of some organisations: the usual ones first, then by name. */
export async function habitsOf(db: Knex, personId: string, orgIds: readonly string[]): Promise<Habit[]> {
  const rows = await habitRows(db).where(whose =>
    whose.where('habits.person_id', personId).orWhereIn('habits.org_id', orgIds),
  )
  return rows.map(habitFrom)
}
export async function findHabit(db: Knex, id: string): Promise<Habit | null> {
  const [row] = await habitRows(db).where('habits.id', id)
  return row ? habitFrom(row) : null
}
/** Waits for whoever else changes habits of the same owner. */
export const turnOfHabits = (trx: Knex, owner: HabitOwner): Promise<void> =>
  takeTurn(trx, `habits ${'personId' in owner ? owner.personId : owner.orgId}`)

export async function insertHabit(
  trx: Knex,
  habit: Pick<Habit, 'owner' | 'name' | 'document' | 'runId'> & { personId: string },
): Promise<string> {
  const id = newId()
  await trx('habits').insert({
    id,
    ...ownColumns(habit.owner),
    name: habit.name,
    document: json(habit.document),
    run_id: habit.runId,
    is_usual: false,
    made_by: habit.personId,
    made_at: stampOf(now()),
  })
  return id
}
export const renameHabit = (trx: Knex, id: string, name: string): Promise<number> =>
  trx('habits').where({ id }).update({ name })
/** Makes a habit the one its owner's plans begin with, or none of them. */
export async function setUsual(trx: Knex, owner: HabitOwner, id: string | null): Promise<void> {
  await trx('habits').where(ownColumns(owner)).update({ is_usual: false })
  if (id) await trx('habits').where({ id }).update({ is_usual: true })
}
export const deleteHabit = (trx: Knex, id: string): Promise<number> => trx('habits').where({ id }).delete()
