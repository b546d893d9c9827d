import { civilOfDay, dayOf, type Day } from '../calendar/day'
import type { Years } from '../calendar/zone'
import { dateFields } from '../course/dates'
import type { PlanInput } from './plan'
import { allRules } from './rule'

type Reaching = Pick<PlanInput, 'source' | 'target' | 'rules' | 'items'>

/** Days by which some rule may move a date: from class start to class start, end to end, milestone to milestone, and as asked. */
function shiftsOf({ source, target, rules }: Reaching): number[] {
  const asked = allRules(rules).flatMap(rule => ('days' in rule && rule.days !== null ? [rule.days] : []))
  const milestones = [...source.milestones].flatMap(([key, was]) => {
    const is = target.milestones.get(key)
    return is ? [is.date - was.date] : []
  })
  const ends = [
    target.classes.from - source.classes.from,
    target.classes.to - source.classes.to,
    target.firstWeek - source.firstWeek,
    ...(source.exams && target.exams ? [target.exams.from - source.exams.from] : []),
  ]
  return [...ends, ...asked, ...milestones]
}

/**
 * The years that the dates of a plan may reach, with one to spare on either side. The target zone's rules must be known for
 * all of them; the plan command, the server and the page take the years from here.
 */
export function yearsReached(input: Reaching): Years {
  const { classes } = input.target
  let [first, last]: [Day, Day] = [Infinity, -Infinity]
  for (const item of input.items)
    for (const field of dateFields) {
      const text = item[field]
      if (text === null) continue
      const day = dayOf(text)
      first = Math.min(first, day)
      last = Math.max(last, day)
    }
  const shifts = first > last ? [] : shiftsOf(input)
  const days = [classes.from, classes.to, ...shifts.flatMap(shift => [first + shift, last + shift])]
  const year = (day: Day): number => civilOfDay(day).year
  return { from: year(Math.min(...days)) - 1, to: year(Math.max(...days)) + 1 }
}
