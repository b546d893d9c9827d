import { summarise } from '../../dates/plan'
import { defaultRule, methodOf, ruleSetSchema, type Rule } from '../../dates/rule'
import { planPart } from '../part'

const withoutHand = (rules: Readonly<Record<string, Rule>>): Record<string, Rule> =>
  Object.fromEntries(Object.entries(rules).filter(([, rule]) => !methodOf(rule).byHand))

/** How dates cross: a rule for the course, and rules for kinds, units and items. A rule is one decision. */
export const dates = planPart({
  schema: ruleSetSchema,
  recommended: { rule: defaultRule, kindRules: {}, unitRules: {}, itemRules: {} },
  join: (joiner, from, mine, theirs) => ({
    rule: joiner.one('rule', from.rule, mine.rule, theirs.rule),
    kindRules: joiner.keyed('kindRules', from.kindRules, mine.kindRules, theirs.kindRules),
    unitRules: joiner.keyed('unitRules', from.unitRules, mine.unitRules, theirs.unitRules),
    itemRules: joiner.keyed('itemRules', from.itemRules, mine.itemRules, theirs.itemRules),
  }),
  habit: value => ({ ...value, itemRules: withoutHand(value.itemRules) }),
  furtherShells: 'the same',
  forOtherSource: value => ({ ...value, unitRules: {}, itemRules: {} }),
  // Only the dates that will be written: those of items the shell does not have yet.
  effect: ({ fresh, dates }) => ({ dates: summarise(fresh.flatMap(node => dates.get(node.lineage) ?? [])) }),
})
