import { dayOf, type Day } from '../calendar/day'
import type { Term } from '../calendar/term'
import { dateFields } from '../course/dates'
import { planDates, type PlanInput, type Summary } from './plan'
import { reaches, ruleAt, wholeCourse, widerRule, withRuleAt, type RuleScope } from './levels'
import {
  allMethods,
  commonOf,
  methodOf,
  ruleBy,
  type AnyMethod,
  type MethodName,
  type Rule,
  type RuleCommon,
} from './rule'

/** One way of crossing, with what it would leave to do. */
export interface Fit {
  readonly method: MethodName
  readonly rule: Rule
  readonly summary: Summary
  /** How many units and items it would put elsewhere than they are by the rules in force. */
  readonly moves: number
}
export interface Fits {
  /** How many units and items are compared: those that have a date. */
  readonly items: number
  readonly fits: readonly Fit[]
  /** The method to suggest, and why. */
  readonly suggested: MethodName
  readonly because: 'fewest-to-settle' | 'same-length' | 'other-length' | 'already-dated'
}

const compared = allMethods.filter(method => method.compared)
/** The place of a method among equals: the least first; null where it cannot be suggested for these terms. */
export function rankOf(
  method: AnyMethod,
  input: Pick<PlanInput, 'source' | 'target' | 'sourceMeetings' | 'targetMeetings'>,
): number | null {
  const noMeetings = input.sourceMeetings.length === 0 || input.targetMeetings.length === 0
  if (method.needsMeetings && noMeetings) return null
  const isSame = input.source.weeks.length === input.target.weeks.length
  return method.compared?.rank?.[isSame ? 'same' : 'other'] ?? null
}
/** The methods that are compared where nothing else is asked for. */
const comparedMethods: readonly MethodName[] = compared.map(method => method.name)
/** The methods that a person may choose for a course, a kind, a unit or an item: all but dates that are set by hand. */
export const offeredMethods: readonly AnyMethod[] = allMethods.filter(method => !method.byHand)
type Terms = Pick<PlanInput, 'source' | 'target'>
/**
 * A rule of a method as it is begun with for a pair of terms, with times, weekdays and closures taken from `common`; null where the terms give
 * the method nothing to go by.
 */
export function ruleToBegin(name: MethodName, common: RuleCommon, terms: Terms): Rule | null {
  const method = allMethods.find(each => each.name === name)
  const own = method?.beginsWith ? method.beginsWith(terms) : {}
  return own && ruleBy(name, { ...method?.compared?.with, ...own, ...commonOf(common) })
}

/**
 * Whether most dates lie in the new term and not in the old one: somebody has dated the course for it already. (At least three dates; common
 * practice, no source.)
 */
function isDatedAlready({ source, target, items }: Pick<PlanInput, 'source' | 'target' | 'items'>): boolean {
  const isIn = ({ firstWeek, classes, exams }: Term, day: Day): boolean =>
    day >= firstWeek && day <= (exams ?? classes).to
  const days = items.flatMap(({ due, opens, closes }) => {
    const at = due ?? opens ?? closes
    return at === null ? [] : [dayOf(at)]
  })
  const already = days.filter(day => isIn(target, day) && !isIn(source, day))
  return already.length >= 3 && already.length * 2 > days.length
}

/**
 * For each method, how many items it would put elsewhere, how many dates it would leave to settle, and which to suggest: the fewest to settle, then what suits
 * terms of these lengths (teaching weeks). Where the new term is as long as the old one, what people expect is the same
 * week; where it is not, the dates should fill it, and a week number would leave its end empty or overfull. Compared is a rule for `scope`;
 * all others stay as they are, and of a kind, a unit or an item only those dates count for which the rule would decide.
 */
export function compareMethods(
  whole: PlanInput,
  names: readonly MethodName[] = comparedMethods,
  scope: RuleScope = wholeCourse,
): Fits {
  const input =
    scope.level === 'course'
      ? whole
      : { ...whole, items: whole.items.filter(item => reaches(whole.rules, scope, item)) }
  const now = ruleAt(input.rules, scope) ?? widerRule(input.rules, scope, input.items)
  const standing = planDates(input).items
  const dated = input.items.filter(item => dateFields.some(field => item[field] !== null)).length
  const fits = names.flatMap((method): Fit[] => {
    const rule = method === now.method ? now : ruleToBegin(method, now, input)
    if (!rule) return []
    const rules = withRuleAt(input.rules, scope, rule)
    const { items, summary } = planDates({ ...input, rules })
    const moves = items.filter((item, at) => dateFields.some(field => item[field] !== standing[at]?.[field]))
    return [{ method, rule, summary, moves: moves.length }]
  })
  const same = input.source.weeks.length === input.target.weeks.length
  const rank = ({ rule }: Fit): number => rankOf(methodOf(rule), input) ?? Infinity
  const choices = fits.filter(fit => rank(fit) < Infinity).sort((a, b) => rank(a) - rank(b))
  const least = Math.min(...choices.map(fit => fit.summary.settle))
  const best = choices.find(fit => fit.summary.settle === least)
  const leaving = fits.find(fit => methodOf(fit.rule).leavesDates)
  if (leaving && isDatedAlready(input))
    return { fits, items: dated, suggested: leaving.method, because: 'already-dated' }
  const byLength = same ? 'same-length' : 'other-length'
  return {
    fits,
    items: dated,
    suggested: best?.method ?? now.method,
    because: best === choices[0] ? byLength : 'fewest-to-settle',
  }
}
