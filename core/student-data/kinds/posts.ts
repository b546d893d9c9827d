import { z } from 'zod'
import { wallTime } from '../../calendar/schema'
import { identifier } from '../entry'
import { fromCourseJson } from '../kind'

export const posts = fromCourseJson({
  name: 'posts',
  words: ['discussion post', 'discussion posts'],
  why: 'Old posts would send mail to last term’s students at each new answer.',
  several: true,
  about: 'item',
  columns: { posted_at: 'instant' },
  text: true,
  entry: z.object({ author: identifier, item: identifier, at: wallTime, text: z.string() }),
  read: ({ author, item, at, text }, { instant }) => ({
    student: author,
    item,
    values: { posted_at: instant(at) },
    text,
  }),
})
