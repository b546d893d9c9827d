import { fromResults } from '../kind'

export const grades = fromResults({
  name: 'grades',
  words: ['grade', 'grades'],
  why: 'Last term’s grades go. The categories and items they were given for stay.',
  several: false,
  about: 'item',
  columns: { score: 'decimal?', status: 'text', graded_on: 'civil date?', comment: 'text?' },
  text: false,
  read: result => ({
    score: result.score || null,
    status: result.scoreStatus || 'fully graded',
    graded_on: result.scoreDate || null,
    comment: result.comment || null,
  }),
})
