import { planDates, type PlanInput, type Summary } from './plan'
import { ruleSchemas, type MethodName, type Rule } from './rule'

/** One way of crossing, with what it would leave to do. */
export interface Fit {
  readonly key: string
  readonly rule: Rule
  readonly summary: Summary
}
export interface Fits {
  readonly fits: readonly Fit[]
  /** Key of the one to suggest, and why. */
  readonly suggested: string
  readonly because: 'fewest-to-settle' | 'same-length' | 'other-length'
}

/** Ways worth comparing for a pair of terms, as keys of {@link candidateRules}. */
export type CandidateKey = 'keep-week' | 'offset' | 'meetings' | 'stretch' | 'none'

/** The rule of each way, with times, weekdays and closures taken from `common`. */
export function candidateRules({
  weekdays,
  times,
  closures,
}: Pick<Rule, 'weekdays' | 'times' | 'closures'>): Record<CandidateKey, Rule> {
  const common = { weekdays, times, closures }
  return {
    'keep-week': ruleSchemas['keep-week'].parse({ method: 'keep-week', ...common }),
    offset: ruleSchemas.offset.parse({ method: 'offset', wholeWeeks: true, ...common }),
    meetings: ruleSchemas.meetings.parse({ method: 'meetings', ...common }),
    stretch: ruleSchemas.stretch.parse({ method: 'stretch', basis: 'teaching', ...common }),
    none: ruleSchemas.none.parse({ method: 'none', ...common }),
  }
}

// Among equals. Where the new term is as long as the old one, what people expect is the same week; where it is not, the
// dates should fill it, and a week number would leave its end empty or overfull.
const whenSameLength: CandidateKey[] = ['keep-week', 'offset', 'meetings', 'stretch']
const whenOtherLength: CandidateKey[] = ['stretch', 'meetings', 'keep-week', 'offset']

/**
 * For each way, how many dates it would leave to settle, and which way to suggest: the fewest to settle, then what suits
 * terms of these lengths (teaching weeks). Taking every date away settles everything and is never suggested. Rules at unit,
 * kind and item level stay as they are. `keys` are compared in their order.
 */
export function compareMethods(
  input: PlanInput,
  keys: readonly CandidateKey[] = ['keep-week', 'offset', 'meetings', 'stretch', 'none'],
): Fits {
  const rules = candidateRules(input.rules.rule)
  const current: MethodName = input.rules.rule.method
  const fits = keys.map((key): Fit => {
    const rule = key === current ? input.rules.rule : rules[key]
    return { key, rule, summary: planDates({ ...input, rules: { ...input.rules, rule } }).summary }
  })
  const same = input.source.weeks.length === input.target.weeks.length
  const order = same ? whenSameLength : whenOtherLength
  const noMeetings = input.sourceMeetings.length === 0 || input.targetMeetings.length === 0
  const choices = fits
    .filter(fit => fit.key !== 'none' && !(fit.key === 'meetings' && noMeetings))
    .sort(
      (a, b) =>
        a.summary.settle - b.summary.settle ||
        order.indexOf(a.key as CandidateKey) - order.indexOf(b.key as CandidateKey),
    )
  const best = choices[0]!
  const usual = choices.find(fit => fit.key === order.find(key => choices.some(each => each.key === key)))!
  return {
    fits,
    suggested: best.key,
    because: best === usual ? (same ? 'same-length' : 'other-length') : 'fewest-to-settle',
  }
}
