import { z } from 'zod'
import { wallTime } from '../../calendar/schema'
import { identifier } from '../entry'
import { fromCourseJson } from '../kind'

/** When a student was there: in the course, or at one item. */
export const visits = fromCourseJson({
  name: 'visits',
  words: ['visit', 'visits'],
  why: 'Who saw what last term says nothing about this one.',
  several: true,
  about: 'course',
  columns: { visited_at: 'instant' },
  text: false,
  entry: z.object({ student: identifier, item: identifier.nullish(), at: wallTime }),
  read: ({ student, item, at }, { instant }) => ({
    student,
    item: item ?? null,
    values: { visited_at: instant(at) },
  }),
})
