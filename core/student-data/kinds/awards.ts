import { z } from 'zod'
import { wallTime } from '../../calendar/schema'
import { line } from '../../text'
import { identifier } from '../entry'
import { fromCourseJson } from '../kind'

export const awards = fromCourseJson({
  name: 'awards',
  words: ['award', 'awards'],
  why: 'An award says what somebody did last term.',
  several: true,
  about: 'course',
  columns: { award: 'text', given_at: 'instant' },
  text: false,
  entry: z.object({ student: identifier, item: identifier.nullish(), award: line(500), at: wallTime }),
  read: ({ student, item, award, at }, { instant }) => ({
    student,
    item: item ?? null,
    values: { award, given_at: instant(at) },
  }),
})
