import { z } from 'zod'
import { wallTime } from '../../calendar/schema'
import { identifier, pointsEntry } from '../entry'
import { fromCourseJson } from '../kind'

/** What a similarity check found in one submission. */
export const reports = fromCourseJson({
  name: 'reports',
  words: ['similarity report', 'similarity reports'],
  why: 'Similarity reports belong to work that is no longer there.',
  several: true,
  about: 'item',
  columns: { service: 'text', made_at: 'instant', overlap: 'decimal?' },
  text: false,
  entry: z.object({
    student: identifier,
    item: identifier,
    service: z.string().default(''),
    at: wallTime,
    overlap: pointsEntry.nullish(),
  }),
  read: ({ student, item, service, at, overlap }, { instant }) => ({
    student,
    item,
    values: { service, made_at: instant(at), overlap: overlap ?? null },
  }),
})
