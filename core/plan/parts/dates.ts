import { z } from 'zod'
import { civilDate, clockTime, weekdayNumber } from '../../calendar/schema'
import { dayOf } from '../../calendar/day'
import { dateFields } from '../../course/dates'
import { itemKinds, kindWords, type ItemKind } from '../../course/model'
import { farFault } from '../../dates/far'
import { summarise } from '../../dates/plan'
import { defaultRule, methodOf, ruleSetSchema, type Rule } from '../../dates/rule'
import { counted, dayText } from '../../dates/words'
import { line } from '../../text'
import { ruleDifferenceText } from '../../dates/rule-text'
import { changedIn } from '../join'
import { planPart } from '../part'

const patternDate = z.object({
  weeksOn: z.int().min(0, 'Not below 0.').max(60, 'At most 60 weeks on.'),
  weekday: weekdayNumber,
  time: clockTime,
})
/** A pattern for work without dates, and the kinds that it dates. */
const patternSchema = z.object({
  firstWeek: z.int().min(1, 'The first week is 1 or later.').max(200),
  weeksPerUnit: z.int().min(1, 'At least one week for a unit.').max(60),
  dates: z.object({ opens: patternDate, due: patternDate, closes: patternDate }).partial(),
  kinds: z.array(z.enum(itemKinds)),
})
export type UndatedPattern = z.output<typeof patternSchema>
const limit = z.int().min(1, 'At least 1, or no limit.').max(200, 'At most 200.').nullable()
/** How much is too much, and what Ease may do about it: `Crowding` of `core/dates/crowding.ts`. */
const crowdingSchema = z.object({
  perDay: limit,
  perWeek: z.number().min(0.1, 'More than 0, or no limit.').max(1000, 'At most 1000.').nullable(),
  minGap: z.int().min(0, 'Not below 0.').max(60, 'At most 60 days.'),
  weights: z.partialRecord(z.enum(itemKinds), z.number().min(0, 'Not below 0.').max(100, 'At most 100.')),
  days: z.enum(['usable', 'meetings']),
})
/** When the old course ran, where its term does not say: at least a week, so that a class day is in it. */
const spanSchema = z.object({ from: civilDate, to: civilDate }).check(context => {
  const { from, to } = context.value
  if (dayOf(to) - dayOf(from) >= 6) return
  const message = 'The last day of classes is at least a week after the first.'
  context.issues.push({ code: 'custom', path: ['to'], message, input: context.value })
})
const spanText = (span: z.output<typeof spanSchema> | null | undefined): string =>
  span ? `from ${dayText(span.from)} to ${dayText(span.to)}` : 'as its term says'
const crowdingText = (crowding: z.output<typeof crowdingSchema> | null | undefined): string =>
  crowding
    ? `${crowding.perDay === null ? 'any number' : `at most ${crowding.perDay}`} due on a day`
    : 'the usual'
const patternText = (pattern: UndatedPattern | null | undefined): string =>
  pattern ? `a pattern from teaching week ${pattern.firstWeek}` : 'none'
const isByHand = (rule: Rule): boolean => Boolean(methodOf(rule).byHand)
/** The dates of a rule that were set by hand. */
const handDates = (rule: Rule) =>
  rule.method === 'set' ? dateFields.flatMap(field => (rule[field] ? [{ field, at: rule[field] }] : [])) : []
const withoutHand = (rules: Readonly<Record<string, Rule>>): Record<string, Rule> =>
  Object.fromEntries(Object.entries(rules).filter(([, rule]) => !isByHand(rule)))

const onlyHand = (rules: Readonly<Record<string, Rule>>): Record<string, Rule> =>
  Object.fromEntries(Object.entries(rules).filter(([, rule]) => isByHand(rule)))
/** A rule by its name, and what it says otherwise than the recommended one. */
function ruleText(rule: Rule): string {
  const { title } = methodOf(rule)
  if (rule.method === 'set') return title
  const { times, closures, weekdays } = defaultRule as Exclude<Rule, { method: 'set' }>
  return [title, ruleDifferenceText(rule, { ...rule, times, closures, weekdays })].filter(Boolean).join('; ')
}
const rulesOf = (rules: Readonly<Record<string, Rule>>, one: string): string[] => {
  const n = Object.keys(rules).length
  return n === 0
    ? []
    : [
        `${counted(n, one)} of the old course ${n === 1 ? 'has a rule of its own' : 'have rules of their own'}.`,
      ]
}

/** How dates cross: a rule for the course, and rules for kinds, units and items. A rule is one decision. */
export const dates = planPart({
  words: 'the rule for dates',
  decisions: {
    rule: 'The rule for the whole course',
    pattern: 'The pattern for work without dates',
    crowding: 'How much may be due at once',
    sourceSpan: 'When the old course ran',
    periods: 'The grading periods chosen by hand',
  },
  schema: ruleSetSchema.extend({
    pattern: patternSchema.nullable().default(null),
    crowding: crowdingSchema.nullable().default(null),
    sourceSpan: spanSchema.nullable().default(null),
    /** By lineage key: the names of the grading periods that were chosen by hand. */
    periods: z.record(z.string(), line(200)).default({}),
  }),
  recommended: {
    rule: defaultRule,
    kindRules: {},
    unitRules: {},
    itemRules: {},
    pattern: null,
    crowding: null,
    sourceSpan: null,
    periods: {},
  },
  join: (joiner, values) => ({
    rule: joiner.one('rule', changedIn(values, 'rule'), ruleDifferenceText),
    kindRules: joiner.keyed('kindRules', changedIn(values, 'kindRules'), ruleDifferenceText),
    unitRules: joiner.keyed('unitRules', changedIn(values, 'unitRules'), ruleDifferenceText),
    itemRules: joiner.keyed('itemRules', changedIn(values, 'itemRules'), ruleDifferenceText),
    pattern: joiner.one('pattern', changedIn(values, 'pattern'), patternText),
    crowding: joiner.one('crowding', changedIn(values, 'crowding'), crowdingText),
    sourceSpan: joiner.one('sourceSpan', changedIn(values, 'sourceSpan'), spanText),
    periods: joiner.keyed('periods', changedIn(values, 'periods'), name => name ?? 'as its dates say'),
  }),
  habit: {
    keeps: ({ rule, pattern, crowding, sourceSpan: _, periods: __, ...levels }) => ({
      pattern,
      crowding,
      sourceSpan: null,
      periods: {},
      rule: isByHand(rule) ? defaultRule : rule,
      kindRules: withoutHand(levels.kindRules),
      unitRules: withoutHand(levels.unitRules),
      itemRules: withoutHand(levels.itemRules),
    }),
    // What somebody has held in this plan is about its own calendar.
    over: (own, kept) => ({
      ...kept,
      sourceSpan: own.sourceSpan,
      periods: own.periods,
      itemRules: { ...kept.itemRules, ...onlyHand(own.itemRules) },
    }),
    tells: ({ rule, kindRules, unitRules, itemRules, pattern, crowding }) => [
      `The whole course: ${ruleText(rule)}.`,
      ...Object.entries(kindRules).map(
        ([kind, each]) => `Every ${kindWords(kind as ItemKind)[0]}: ${ruleText(each)}.`,
      ),
      ...rulesOf(unitRules, 'unit'),
      ...rulesOf(itemRules, 'item'),
      ...(crowding ? [`It asks for ${crowdingText(crowding)}.`] : []),
      ...(pattern ? [`Work without dates gets ${patternText(pattern)}.`] : []),
    ],
  },
  eachTerm: 'Dates held by hand, and what has to be settled in the new calendar.',
  again: value => value,
  furtherShells: 'the same',
  forOtherSource: value => ({ ...value, unitRules: {}, itemRules: {}, sourceSpan: null, periods: {} }),
  faults: ({ rule, kindRules, unitRules, itemRules }, term) =>
    [
      { path: ['rule'], rule },
      ...Object.entries({ kindRules, unitRules, itemRules }).flatMap(([level, rules]) =>
        Object.entries(rules).map(([key, each]) => ({ path: [level, key], rule: each })),
      ),
    ].flatMap(({ path, rule: each }) =>
      handDates(each).flatMap(({ field, at }) => farFault([...path, field], at, term)),
    ),
  // Only the dates that will be written: those of what comes, and of what is there where its dates are taken.
  effect: ({ placements, periods }) => ({
    dates: summarise(placements.flatMap(entry => entry.dates ?? [])),
    periods,
  }),
})
