import { compileTerm } from '~~/core/calendar/term'
import { holdsYears, type ZoneRules } from '~~/core/calendar/zone'
import { compareMethods, offeredMethods, ruleToBegin } from '~~/core/dates/fit'
import { ruleAt, widerRule, withRuleAt, type RuleScope } from '~~/core/dates/levels'
import type { MethodName } from '~~/core/dates/rule'
import {
  ledgerInputs,
  planLedger,
  sourceOutline,
  zoneYearsOf,
  type CompileInput,
  type PlanBase,
} from '~~/core/plan/compile'
import { addedText } from '~~/core/carry/added'
import type { PlanDocument } from '~~/core/plan/document'
import { planNotes } from '~~/core/plan/notes'
import type { MergedSources } from '~~/core/plan/sources'
import type { Comparison, CourseSide, FromDatesWorker, ToDatesWorker } from './messages'
import { packItems } from './packing'

/** The comparison takes several times as long as the dates: who changes rule after rule does not wait for it. Milliseconds. */
const restBeforeComparing = 150
const offered = offeredMethods.map(method => method.name)

const sideOf = <S extends CourseSide>({ calendar, ...side }: S) => ({
  term: compileTerm(calendar),
  ...side,
})
/** Each source has a calendar of its own; what a method moves and leaves to settle is that of all together, and the first one's best is suggested. */
function compare(input: CompileInput, merged: MergedSources, scope: RuleScope): Comparison | null {
  const comparisons = ledgerInputs(input, merged).map(each => compareMethods(each, offered, scope))
  const told: Comparison['told'] = {}
  for (const { fits } of comparisons)
    for (const { method, summary, moves } of fits) {
      const { settles, moves: before } = told[method] ?? { settles: 0, moves: 0 }
      told[method] = { settles: settles + summary.settle, moves: before + moves }
    }
  const [first] = comparisons
  return first ? { scope, told, suggested: first.suggested, because: first.because } : null
}

/** The plan with a rule of another method for a scope; null where the terms give that method nothing to go by. */
function withMethod(input: CompileInput, scope: RuleScope, method: MethodName): CompileInput | null {
  const { dates } = input.document
  const now = ruleAt(dates, scope) ?? widerRule(dates, scope, [])
  const rule = ruleToBegin(method, now, { source: input.source.term, target: input.target.term })
  return rule && { ...input, document: { ...input.document, dates: withRuleAt(dates, scope, rule) } }
}

/**
 * A document with the parts of the one before where they say the same: what crossed to this thread is always a copy, and what was computed
 * of a part is known by it.
 */
function withKnownParts(document: PlanDocument, before: PlanDocument | null): PlanDocument {
  if (!before) return document
  const entries = Object.entries(document) as [keyof PlanDocument, unknown][]
  const kept = entries.map(([name, part]) =>
    JSON.stringify(part) === JSON.stringify(before[name]) ? [name, before[name]] : [name, part],
  )
  return Object.fromEntries(kept) as PlanDocument
}

interface KnownOutline {
  readonly added: string
  readonly outline: MergedSources
}
/** All that a plan brings as one outline: made anew only where what the plan adds of its own is something else. */
function outlineOf(base: PlanBase, known: KnownOutline | null): KnownOutline {
  const added = addedText(base.document)
  return known?.added === added ? known : { added, outline: sourceOutline(base) }
}

/**
 * Answers the messages of a page about one plan at a time: first the dates, then how the methods compare. The worker uses it,
 * and the page itself where no worker starts.
 */
export function datesComputer(answer: (answer: FromDatesWorker) => void): (message: ToDatesWorker) => void {
  let pair: Omit<PlanBase, 'document'> | null = null
  let zone: ZoneRules | null = null
  let known: KnownOutline | null = null
  let last: PlanDocument | null = null
  let next: ReturnType<typeof setTimeout> | undefined

  function plan({ round, document: sent, scope, over }: Extract<ToDatesWorker, { type: 'plan' }>): void {
    clearTimeout(next)
    if (!pair || !zone) return
    const document = (last = withKnownParts(sent, last))
    const base = { ...pair, document }
    const { outline: merged } = (known = outlineOf(base, known))
    const years = zoneYearsOf(base, merged)
    if (!holdsYears(zone.years, years))
      return answer({ type: 'zone-wanted', round, timeZone: zone.timeZone, years })
    const input = { ...base, zone }
    const { items, summary } = planLedger(input, merged)
    const notes = planNotes(input, merged, items)
    answer({ type: 'ledger', round, summary, items: packItems(items), notes })
    const other = over && withMethod(input, scope, over)
    if (over && other) {
      const laid = planLedger(other, sourceOutline(other))
      const { summary: settles, items: places } = laid
      answer({ type: 'laid-over', round, method: over, summary: settles, items: packItems(places) })
    }
    next = setTimeout(() => {
      const comparison = compare(input, merged, scope)
      if (comparison) answer({ type: 'comparison', round, comparison })
    }, restBeforeComparing)
  }
  return message => {
    switch (message.type) {
      case 'pair':
        pair = {
          source: sideOf(message.source),
          more: message.more.map(sideOf),
          found: message.found.map(sideOf),
          target: sideOf(message.target),
          before: message.before,
          // Dates rest on no text.
          traces: [],
          unseen: [],
          inPlace: message.inPlace,
        }
        known = last = null
        zone = message.zone
        return
      case 'zone':
        zone = message.zone
        return
      case 'plan':
        return plan(message)
    }
  }
}
