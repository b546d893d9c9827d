import { z } from 'zod'
import { wallTime } from '../../calendar/schema'
import { identifier, pointsEntry } from '../entry'
import { fromCourseJson } from '../kind'

export const attempts = fromCourseJson({
  name: 'attempts',
  words: ['quiz attempt', 'quiz attempts'],
  why: 'An attempt used last term would count against this term’s limit.',
  several: true,
  about: 'item',
  columns: {
    number: 'whole number',
    started_at: 'instant',
    finished_at: 'instant?',
    score: 'decimal?',
  },
  text: false,
  entry: z.object({
    student: identifier,
    item: identifier,
    number: z.int().min(1),
    startedAt: wallTime,
    finishedAt: wallTime.nullish(),
    score: pointsEntry.nullish(),
  }),
  read: ({ student, item, number, startedAt, finishedAt, score }, { instant }) => ({
    student,
    item,
    values: {
      number,
      started_at: instant(startedAt),
      finished_at: finishedAt ? instant(finishedAt) : null,
      score: score ?? null,
    },
  }),
})
