import { z } from 'zod'
import { wallTime } from '../../calendar/schema'
import { identifier } from '../entry'
import { fromCourseJson } from '../kind'

/** What a student, or the course by a rule, ticked as finished. */
export const completions = fromCourseJson({
  name: 'completions',
  words: ['item marked as finished', 'items marked as finished'],
  why: 'What was ticked last term would open items too early.',
  several: false,
  about: 'item',
  columns: { finished_at: 'instant' },
  text: false,
  entry: z.object({ student: identifier, item: identifier, at: wallTime }),
  read: ({ student, item, at }, { instant }) => ({ student, item, values: { finished_at: instant(at) } }),
})
