import { z } from 'zod'
import { line } from '../../text'
import { identifier, pointsEntry } from '../entry'
import { fromCourseJson } from '../kind'

/** More time for one student, in the whole course or for one item. `times`: by which a time limit is multiplied, such as `1.5`. */
export const accommodations = fromCourseJson({
  name: 'accommodations',
  words: ['accommodation', 'accommodations'],
  why: 'More time was granted to last term’s students, and must not reach another.',
  several: true,
  about: 'course',
  columns: { times: 'decimal', reason: 'text' },
  text: false,
  entry: z.object({
    student: identifier,
    item: identifier.nullish(),
    times: pointsEntry,
    reason: line(500).default(''),
  }),
  read: ({ student, item, times, reason }) => ({ student, item: item ?? null, values: { times, reason } }),
})
