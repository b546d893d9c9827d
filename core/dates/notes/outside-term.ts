import { dayOf } from '../../calendar/day'
import { dateFields } from '../../course/dates'
import { counted, momentText } from '../words'
import { noteCheck } from './note'

/** Days around classes and exams in which a date needs no remark. */
const around = 14
const verbs = { opens: 'opens', due: 'is due', closes: 'closes' }

/** A date that does not lie within fourteen days around classes and exams. */
export const outsideTerm = noteCheck({
  short: 'outside the term',
  look: (item, { term }) => {
    const [from, to] = [term.classes.from, (term.exams ?? term.classes).to]
    return dateFields.flatMap(field => {
      const at = item[field]
      if (at === null) return []
      const day = dayOf(at)
      if (day >= from - around && day <= to + around) return []
      const days = day < from ? counted(from - day, 'day') : counted(day - term.classes.to, 'day')
      const where = day < from ? 'before classes begin' : 'after classes end'
      return [{ field, message: `It ${verbs[field]} ${momentText(at)}, ${days} ${where}.` }]
    })
  },
})
