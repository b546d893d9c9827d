import type { Knex } from 'knex'
import type { CoursePreferenceRow } from '../db/tables'

/** What a person keeps of a course for themselves alone. */
export type CoursePreferences = Pick<CoursePreferenceRow, 'pinned' | 'hidden' | 'label'>
export const noPreferences: CoursePreferences = { pinned: false, hidden: false, label: null }

export async function savePreferences(
  db: Knex,
  personId: string,
  courseId: string,
  preferences: Partial<CoursePreferences>,
): Promise<void> {
  await db('course_preferences')
    .insert({ person_id: personId, course_id: courseId, ...preferences })
    .onConflict(['person_id', 'course_id'])
    .merge(Object.keys(preferences) as (keyof CoursePreferences)[])
}
export async function preferencesOf(
  db: Knex,
  personId: string,
  courseId: string,
): Promise<CoursePreferences> {
  const row = await db('course_preferences')
    .where({ person_id: personId, course_id: courseId })
    .first('pinned', 'hidden', 'label')
  return row ?? noPreferences
}
