import { z } from 'zod'
import { wallTime } from '../../calendar/schema'
import { identifier } from '../entry'
import { fromCourseJson } from '../kind'

export const comments = fromCourseJson({
  name: 'comments',
  words: ['comment', 'comments'],
  why: 'Comments answer work that is no longer there.',
  several: true,
  about: 'item',
  columns: { written_at: 'instant' },
  text: true,
  entry: z.object({ student: identifier, item: identifier, at: wallTime, text: z.string() }),
  read: ({ student, item, at, text }, { instant }) => ({
    student,
    item,
    values: { written_at: instant(at) },
    text,
  }),
})
