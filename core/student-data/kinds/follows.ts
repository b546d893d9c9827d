import { z } from 'zod'
import { wallTime } from '../../calendar/schema'
import { identifier } from '../entry'
import { fromCourseJson } from '../kind'

export const follows = fromCourseJson({
  name: 'follows',
  words: ['discussion followed', 'discussions followed'],
  why: 'Whoever still follows a discussion gets mail from the new term.',
  several: false,
  about: 'item',
  columns: { since: 'instant' },
  text: false,
  entry: z.object({ student: identifier, item: identifier, at: wallTime }),
  read: ({ student, item, at }, { instant }) => ({ student, item, values: { since: instant(at) } }),
})
