import { planDates, type PlanInput, type Summary } from './plan'
import { allMethods, commonOf, methodOf, ruleBy, type MethodName, type Rule, type RuleCommon } from './rule'

/** One way of crossing, with what it would leave to do. */
export interface Fit {
  readonly method: MethodName
  readonly rule: Rule
  readonly summary: Summary
}
export interface Fits {
  readonly fits: readonly Fit[]
  /** The method to suggest, and why. */
  readonly suggested: MethodName
  readonly because: 'fewest-to-settle' | 'same-length' | 'other-length'
}

const compared = allMethods.filter(method => method.compared)
/** The methods worth comparing for a pair of terms. */
export const comparedMethods: readonly MethodName[] = compared.map(method => method.name)
/** A rule of a method as it is compared, with times, weekdays and closures taken from `common`. */
export const comparedRule = (name: MethodName, common: RuleCommon): Rule =>
  ruleBy(name, { ...compared.find(method => method.name === name)?.compared?.with, ...commonOf(common) })

/**
 * For each method, how many dates it would leave to settle, and which to suggest: the fewest to settle, then what suits
 * terms of these lengths (teaching weeks). Where the new term is as long as the old one, what people expect is the same
 * week; where it is not, the dates should fill it, and a week number would leave its end empty or overfull. Rules at unit,
 * kind and item level stay as they are.
 */
export function compareMethods(input: PlanInput, names: readonly MethodName[] = comparedMethods): Fits {
  const now = input.rules.rule
  const fits = names.map((method): Fit => {
    const rule = method === now.method ? now : comparedRule(method, now)
    return { method, rule, summary: planDates({ ...input, rules: { ...input.rules, rule } }).summary }
  })
  const same = input.source.weeks.length === input.target.weeks.length
  const noMeetings = input.sourceMeetings.length === 0 || input.targetMeetings.length === 0
  const rankOf = ({ rule }: Fit): number =>
    methodOf(rule).compared?.rank?.[same ? 'same' : 'other'] ?? Infinity
  const choices = fits
    .filter(fit => rankOf(fit) < Infinity && !(methodOf(fit.rule).needsMeetings && noMeetings))
    .sort((a, b) => rankOf(a) - rankOf(b))
  const least = Math.min(...choices.map(fit => fit.summary.settle))
  const best = choices.find(fit => fit.summary.settle === least)
  const byLength = same ? 'same-length' : 'other-length'
  return {
    fits,
    suggested: best?.method ?? now.method,
    because: best === choices[0] ? byLength : 'fewest-to-settle',
  }
}
