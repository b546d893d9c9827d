import { z } from 'zod'
import { wallTime } from '../../calendar/schema'
import { line } from '../../text'
import { identifier } from '../entry'
import { fromCourseJson } from '../kind'

/** `at`: when the meeting began. */
export const attendances = fromCourseJson({
  name: 'attendances',
  words: ['attendance mark', 'attendance marks'],
  why: 'Attendance is taken anew, from the first meeting.',
  several: true,
  about: 'course',
  columns: { held_at: 'wall time', mark: 'text' },
  text: false,
  entry: z.object({ student: identifier, item: identifier.nullish(), at: wallTime, mark: line(40) }),
  read: ({ student, item, at, mark }) => ({ student, item: item ?? null, values: { held_at: at, mark } }),
})
