import { z } from 'zod'
import { wallTime } from '../../calendar/schema'
import { identifier } from '../entry'
import { fromCourseJson } from '../kind'

export const submissions = fromCourseJson({
  name: 'submissions',
  words: ['submission', 'submissions'],
  why: 'Last term’s work would stand among what this term’s students hand in.',
  several: true,
  about: 'item',
  columns: { submitted_at: 'instant' },
  text: true,
  entry: z.object({ student: identifier, item: identifier, at: wallTime, text: z.string().default('') }),
  read: ({ student, item, at, text }, { instant }) => ({
    student,
    item,
    values: { submitted_at: instant(at) },
    text,
  }),
})
