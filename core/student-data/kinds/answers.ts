import { z } from 'zod'
import { wallTime } from '../../calendar/schema'
import { identifier } from '../entry'
import { fromCourseJson } from '../kind'

export const answers = fromCourseJson({
  name: 'answers',
  words: ['poll or survey answer', 'poll and survey answers'],
  why: 'Old answers would count in this term’s results.',
  several: true,
  about: 'item',
  columns: { answered_at: 'instant', answer: 'text' },
  text: false,
  entry: z.object({ student: identifier, item: identifier, at: wallTime, answer: z.string().max(10_000) }),
  read: ({ student, item, at, answer }, { instant }) => ({
    student,
    item,
    values: { answered_at: instant(at), answer },
  }),
})
