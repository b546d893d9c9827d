import { z } from 'zod'
import { wallTime } from '../../calendar/schema'
import { line } from '../../text'
import { identifier } from '../entry'
import { fromCourseJson } from '../kind'

/** What stands in a student’s own calendar of the course; deadlines are not among them. */
export const events = fromCourseJson({
  name: 'events',
  words: ['event of a student’s own', 'events of students’ own'],
  why: 'Students’ own events are their own. Events of the course stay.',
  several: true,
  about: 'course',
  columns: { title: 'text', starts: 'wall time' },
  text: false,
  entry: z.object({ student: identifier, item: identifier.nullish(), title: line(500), at: wallTime }),
  read: ({ student, item, title, at }) => ({ student, item: item ?? null, values: { title, starts: at } }),
})
