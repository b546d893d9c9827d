import { z } from 'zod'
import { line } from '../../text'
import { identifier } from '../entry'
import { fromCourseJson } from '../kind'

/** In which group of the course a student is. */
export const memberships = fromCourseJson({
  name: 'memberships',
  words: ['place in a group', 'places in groups'],
  why: 'Groups begin empty. The groups themselves stay.',
  several: true,
  about: 'course',
  columns: { group_name: 'text' },
  text: false,
  entry: z.object({ student: identifier, item: identifier.nullish(), group: line(500) }),
  read: ({ student, item, group }) => ({ student, item: item ?? null, values: { group_name: group } }),
})
