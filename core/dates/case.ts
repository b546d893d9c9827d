import { z } from 'zod'
import { calendarFaults, meeting, termCalendar, wallTime, type TermCalendar } from '../calendar/schema'
import { compileTerm } from '../calendar/term'
import type { ZoneRules } from '../calendar/zone'
import { planDates, type PlannedItem, type Summary } from './plan'
import { ruleSetSchema, slotNames } from './rule'

const text = z.string({ error: 'must be a text' })
const slot = wallTime.nullish().transform(value => value ?? null)
const meetings = z.array(meeting, { error: 'must be a list' }).nullish().transform(value => value ?? [])

/** A case for the plan command: two calendars, rules and items (`docs/dates.md` §7). */
export const dateCase = z.object({
  source: termCalendar,
  target: termCalendar,
  sourceMeetings: meetings,
  targetMeetings: meetings,
  ...ruleSetSchema.shape,
  items: z.array(z.object({
    id: text,
    title: text.nullish(),
    kind: text.nullish().transform(value => value ?? ''),
    unit: text.nullish().transform(value => value ?? null),
    opens: slot,
    due: slot,
    closes: slot,
  }), { error: 'must be a list of items' }),
}, { error: 'must be an object with source, target and items' })
export type DateCase = z.infer<typeof dateCase>

/** A field that is wrong: `items[3].due`, and a sentence. */
export interface FieldFault { field: string, message: string }

const fieldText = (path: readonly PropertyKey[]): string =>
  path.reduce<string>((field, key) => typeof key === 'number' ? `${field}[${key}]` : field ? `${field}.${String(key)}` : String(key), '')

// Faults are told in the order of these keys, whichever check found them.
const keyOrder = ['source', 'target', 'sourceMeetings', 'targetMeetings', 'rule', 'kindRules', 'unitRules', 'itemRules', 'items',
  'id', 'name', 'timeZone', 'classes', 'exams', 'teachingWeekdays', 'weekStart', 'closures', 'runsAs', 'milestones', 'gradingPeriods',
  'method', 'from', 'to', 'date', 'weekday', 'key', 'start', 'end', 'weekdays', 'times', 'title', 'kind', 'unit', 'opens', 'due', 'closes']
function comparePaths(a: readonly PropertyKey[], b: readonly PropertyKey[]): number {
  for (let at = 0; at < Math.min(a.length, b.length); at++) {
    const [x, y] = [a[at]!, b[at]!]
    if (x === y) continue
    if (typeof x === 'number' && typeof y === 'number') return x - y
    const [i, j] = [keyOrder.indexOf(String(x)), keyOrder.indexOf(String(y))]
    if (i !== j && i >= 0 && j >= 0) return i - j
    return 0
  }
  return a.length - b.length
}

/** Reads a case. Every fault found is returned, the first in the order of the keys first; `isTimeZone` knows the zones that exist. */
export function readCase(input: unknown, isTimeZone: (zone: string) => boolean): { case: DateCase } | { faults: FieldFault[] } {
  const found: { path: readonly PropertyKey[], message: string }[] = []
  const parsed = dateCase.safeParse(input)
  if (!parsed.success) {
    for (const issue of parsed.error.issues) {
      const message = issue.code === 'invalid_type' && issue.message.startsWith('Invalid input') ? (issue.input === undefined ? 'is missing' : 'is not what belongs here') : issue.message
      found.push({ path: issue.path, message })
    }
  }
  for (const side of ['source', 'target'] as const) {
    const calendar = parsed.success ? parsed.data[side] : termCalendar.safeParse((input as Record<string, unknown> | null)?.[side]).data
    if (calendar) found.push(...calendarFaults(calendar, isTimeZone).map(fault => ({ path: [side, ...fault.path], message: fault.message })))
  }
  if (parsed.success) {
    const seen = new Map<string, number>()
    parsed.data.items.forEach((item, at) => {
      const first = seen.get(item.id)
      if (first !== undefined) found.push({ path: ['items', at, 'id'], message: `${item.id} is the id of items[${first}] too` })
      else seen.set(item.id, at)
    })
  }
  found.sort((a, b) => comparePaths(a.path, b.path))
  if (found.length > 0) return { faults: found.map(fault => ({ field: fieldText(fault.path) || 'case', message: fault.message })) }
  return { case: parsed.data! }
}

/** The years a case's dates may reach: its zone data must cover them. */
export function yearsOf(target: TermCalendar): { from: number, to: number } {
  return { from: Number(target.classes.from.slice(0, 4)) - 3, to: Number(target.classes.to.slice(0, 4)) + 4 }
}

/** Plans a checked case. */
export function planCase(input: DateCase, zone: ZoneRules): { items: PlannedItem[], summary: Summary } {
  return planDates({
    source: compileTerm(input.source),
    target: compileTerm(input.target),
    sourceMeetings: input.sourceMeetings,
    targetMeetings: input.targetMeetings,
    zone,
    rules: { rule: input.rule, kindRules: input.kindRules, unitRules: input.unitRules, itemRules: input.itemRules },
    items: input.items,
  })
}

/** The result of a planned case as the plan command prints it. */
export function caseResult(planned: { items: PlannedItem[], summary: Summary }): unknown {
  return {
    items: planned.items.map(item => ({ id: item.id, ...Object.fromEntries(slotNames.map(name => [name, item[name]])), flags: item.flags, reasons: item.reasons })),
    summary: planned.summary,
  }
}
