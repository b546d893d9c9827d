import type { Knex } from 'knex'
import type { May } from '../auth/may'
import { dutyReach } from '../courses/access'
import { notFound } from '../errors/refusal'
import type { Person } from '../people/people.queries'
import { findHabit, type HabitOwner } from './habits.queries'

/** Whether a person may make and change habits of an owner: their own, or through a duty those of what it reaches. */
export async function mayChangeHabits(db: Knex, person: Person, owner: HabitOwner): Promise<boolean> {
  if ('personId' in owner) return owner.personId === person.id
  const reach = await dutyReach(db, person)
  return reach.office.has(owner.orgId) || reach.coordinator.has(owner.orgId)
}
/** Those who may change a habit. */
export const changesHabit: May<{ id: string }> = {
  name: 'owns the habit',
  allow: async ({ db, person, params }) => {
    const habit = await findHabit(db, params.id)
    return (habit !== null && (await mayChangeHabits(db, person, habit.owner))) || notFound('This habit')
  },
}
