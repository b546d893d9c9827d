import { dayOf } from '../calendar/day'
import { counted, dayText } from '../dates/words'
import { check, standingItems } from './check'

/** Two exams nearer to each other than the limit. */
export const datesExams = check({
  title: 'Exams close together',
  short: 'exams close together',
  grave: 'look',
  mends: 'Ease the plan, or ask the other teacher',
  knows: ['crowding'],
  find: ({ nodes, crowding: { minGap } }) => {
    const exams = standingItems({ nodes })
      .flatMap(({ lineage, title, exam, due }) => (exam && due !== null ? [{ lineage, title, due }] : []))
      .sort((a, b) => (a.due < b.due ? -1 : 1))
    return exams.slice(1).flatMap(({ lineage, due }, at) => {
      const before = exams[at]
      const gap = before ? dayOf(due) - dayOf(before.due) : minGap
      return before && gap < minGap
        ? [
            {
              lineage,
              field: 'due' as const,
              sentence: `It is on ${dayText(due)}, ${gap === 0 ? 'the same day as' : `${counted(gap, 'day')} after`} “${before.title}”. The least is ${counted(minGap, 'day')}.`,
            },
          ]
        : []
    })
  },
})
