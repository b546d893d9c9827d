import { z } from 'zod'
import { wallTime } from '../../calendar/schema'
import { identifier } from '../entry'
import { fromCourseJson } from '../kind'

export const extensions = fromCourseJson({
  name: 'extensions',
  words: ['extension for one student', 'extensions for one student'],
  why: 'A later date for one student would be read as this term’s.',
  several: false,
  about: 'item',
  columns: { due: 'wall time', reason: 'text' },
  text: false,
  entry: z.object({
    student: identifier,
    item: identifier,
    due: wallTime,
    reason: z.string().default(''),
  }),
  read: ({ student, item, due, reason }) => ({ student, item, values: { due, reason } }),
})
