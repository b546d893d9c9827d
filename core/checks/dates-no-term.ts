import { dayOf, isoOf } from '../calendar/day'
import { dateFields, dateVerbs } from '../course/dates'
import type { OutlineNode } from '../course/outline'
import { counted, dayText, momentText, yearsOf } from '../dates/words'
import { check, type Knowledge } from './check'
import type { Found } from './finding'

/** Days around classes and exams in which a date needs no remark. */
const around = 14
export const cannotEnter = 'students cannot enter'

/** A date that does not lie within fourteen days around classes and exams. */
function outsideTerm(node: OutlineNode, { term }: Knowledge['calendar']): Found[] {
  const [from, to] = [term.classes.from, (term.exams ?? term.classes).to]
  return dateFields.flatMap((field): Found[] => {
    const at = node[field]
    if (at === null) return []
    const day = dayOf(at)
    if (day >= from - around && day <= to + around) return []
    const days = day < from ? counted(from - day, 'day') : counted(day - term.classes.to, 'day')
    const where = day < from ? 'before classes begin' : 'after classes end'
    const sentence = `It ${dateVerbs[field]} ${momentText(at, yearsOf(term))}, ${days} ${where}.`
    return [{ lineage: node.lineage, field, sentence }]
  })
}
/** A date on which students may not enter the course. What opens before they may does no harm. */
function outsideWindow(node: OutlineNode, { term, window: { from, to } }: Knowledge['calendar']): Found[] {
  return dateFields.flatMap((field): Found[] => {
    const at = node[field]
    if (at === null) return []
    const day = dayOf(at)
    const years = yearsOf(term)
    const found = (which: 'from' | 'to', end: number): Found => ({
      lineage: node.lineage,
      field,
      short: cannotEnter,
      sentence: `It ${dateVerbs[field]} ${momentText(at, years)}; students can enter ${which} ${dayText(isoOf(end), years)}.`,
    })
    if (to !== null && day > to) return [found('to', to)]
    return from !== null && day < from && field !== 'opens' ? [found('from', from)] : []
  })
}
/** A date outside the term, or outside the days on which students may enter. */
export const datesNoTerm = check({
  title: 'Outside the term',
  short: 'outside the term',
  grave: 'look',
  mends: 'Move it to the last class day, or let students enter longer',
  knows: ['calendar'],
  find: ({ nodes, calendar }) =>
    nodes.flatMap(node => [...outsideTerm(node, calendar), ...outsideWindow(node, calendar)]),
})
