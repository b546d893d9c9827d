import { z } from 'zod'
import { wallTime } from '../../calendar/schema'
import { identifier } from '../entry'
import { fromCourseJson } from '../kind'

/** What teaching staff wrote down about a student. */
export const notes = fromCourseJson({
  name: 'notes',
  words: ['note about a student', 'notes about students'],
  why: 'Notes about a student are for the term in which they were written.',
  several: true,
  about: 'course',
  columns: { written_at: 'instant' },
  text: true,
  entry: z.object({ student: identifier, item: identifier.nullish(), at: wallTime, text: z.string() }),
  read: ({ student, item, at, text }, { instant }) => ({
    student,
    item: item ?? null,
    values: { written_at: instant(at) },
    text,
  }),
})
