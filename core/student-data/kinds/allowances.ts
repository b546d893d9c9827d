import { z } from 'zod'
import { wallTime } from '../../calendar/schema'
import { identifier } from '../entry'
import { fromCourseJson } from '../kind'

/** A later hand-in that a student took without asking. `days`: how many at once. */
export const allowances = fromCourseJson({
  name: 'allowances',
  words: ['grace allowance used', 'grace allowances used'],
  why: 'Allowances used last term would be missing from this one’s.',
  several: true,
  about: 'item',
  columns: { used_at: 'instant', days: 'whole number' },
  text: false,
  entry: z.object({ student: identifier, item: identifier, at: wallTime, days: z.int().min(1) }),
  read: ({ student, item, at, days }, { instant }) => ({
    student,
    item,
    values: { used_at: instant(at), days },
  }),
})
