import { z } from 'zod'
import { wallTime } from '../../calendar/schema'
import { identifier } from '../entry'
import { fromCourseJson } from '../kind'

export const journals = fromCourseJson({
  name: 'journals',
  words: ['journal or blog entry', 'journal and blog entries'],
  why: 'A journal is its writer’s: nobody in the new term should read it.',
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
