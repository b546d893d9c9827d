import { z } from 'zod'
import { civilOfDay, dayOf } from '../calendar/day'
import { checkCalendar, faultsOf, type Fault } from '../calendar/check'
import { meeting, termCalendar, wallTime } from '../calendar/schema'
import { compileTerm } from '../calendar/term'
import type { ZoneRules } from '../calendar/zone'
import { flagNames } from './draft'
import { planDates, reasonsOf, type PlannedItem, type Summary } from './plan'
import { ruleSetSchema, slotNames } from './rule'

const text = z.string({ error: 'must be a text' })
const slot = wallTime.nullish().transform(value => value ?? null)
const meetings = z
  .array(meeting, { error: 'must be a list' })
  .nullish()
  .transform(value => value ?? [])

/** A case for the plan command: two calendars, rules and items (`docs/dates.md` §7). */
export const dateCase = z.object(
  {
    source: termCalendar,
    target: termCalendar,
    sourceMeetings: meetings,
    targetMeetings: meetings,
    ...ruleSetSchema.shape,
    items: z.array(
      z.object({
        id: text,
        title: text.nullish(),
        kind: text.nullish().transform(value => value ?? ''),
        unit: text.nullish().transform(value => value ?? null),
        opens: slot,
        due: slot,
        closes: slot,
      }),
      { error: 'must be a list of items' },
    ),
  },
  { error: 'must be an object with source, target and items' },
)
export type DateCase = z.infer<typeof dateCase>

/** A field that is wrong: `items[3].due`, and a sentence. */
export interface FieldFault {
  field: string
  message: string
}

const fieldText = (path: readonly (string | number)[]): string =>
  path.reduce<string>(
    (field, key) => (typeof key === 'number' ? `${field}[${key}]` : field ? `${field}.${key}` : key),
    '',
  )

/** Reads a case key by key, in the order of `docs/dates.md` §7: the first fault returned is the first in that order. */
export function readCase(
  input: unknown,
  isTimeZone: (zone: string) => boolean,
): { case: DateCase } | { faults: FieldFault[] } {
  if (typeof input !== 'object' || input === null || Array.isArray(input))
    return { faults: [{ field: 'case', message: 'must be an object with source, target and items' }] }
  const raw = input as Record<string, unknown>
  const faults: Fault[] = []
  const parsed: Record<string, unknown> = {}
  for (const key of Object.keys(dateCase.shape) as (keyof DateCase)[]) {
    if (key === 'source' || key === 'target') {
      const { calendar, faults: found } = checkCalendar(raw[key], isTimeZone)
      parsed[key] = calendar
      faults.push(...found.map(fault => ({ ...fault, path: [key, ...fault.path] })))
      continue
    }
    const result = dateCase.shape[key].safeParse(raw[key])
    if (result.success) parsed[key] = result.data
    const found = result.success ? [] : faultsOf(result.error, [key])
    faults.push(...(key === 'items' ? withTwins(raw.items, found) : found))
  }
  if (faults.length > 0)
    return { faults: faults.map(fault => ({ field: fieldText(fault.path), message: fault.message })) }
  return { case: parsed as DateCase }
}

/** Items' faults with ids that stand twice put in where they belong: an item's id comes before its other keys. */
function withTwins(items: unknown, found: readonly Fault[]): Fault[] {
  if (!Array.isArray(items)) return [...found]
  const first = new Map<unknown, number>()
  const faults = found.filter(fault => fault.path.length === 1)
  items.forEach((item: unknown, at) => {
    const id = typeof item === 'object' && item !== null && 'id' in item ? item.id : undefined
    if (typeof id === 'string') {
      if (first.has(id))
        faults.push({ path: ['items', at, 'id'], message: `${id} is the id of items[${first.get(id)}] too` })
      else first.set(id, at)
    }
    faults.push(...found.filter(fault => fault.path[1] === at))
  })
  return faults
}

/** The years that a case's dates may reach, with one to spare on either side: its zone data must cover them. */
export function yearsOf({ source, target, rule, kindRules, unitRules, itemRules, items }: DateCase): {
  from: number
  to: number
} {
  const shifts = [
    dayOf(target.classes.from) - dayOf(source.classes.from),
    dayOf(target.classes.to) - dayOf(source.classes.to),
  ]
  for (const each of [
    rule,
    ...Object.values(kindRules),
    ...Object.values(unitRules),
    ...Object.values(itemRules),
  ])
    if (each.method === 'offset' && each.days !== null) shifts.push(each.days)
  for (const was of source.milestones)
    for (const is of target.milestones) if (was.key === is.key) shifts.push(dayOf(is.date) - dayOf(was.date))
  const days = [target.classes.from, target.classes.to].map(dayOf)
  for (const item of items)
    for (const slot of slotNames)
      if (item[slot] !== null) for (const shift of shifts) days.push(dayOf(item[slot]) + shift)
  const year = (day: number): number => civilOfDay(day).year
  return {
    from: year(days.reduce((a, b) => Math.min(a, b))) - 1,
    to: year(days.reduce((a, b) => Math.max(a, b))) + 1,
  }
}

/** Plans a checked case. */
export function planCase(input: DateCase, zone: ZoneRules): { items: PlannedItem[]; summary: Summary } {
  return planDates({
    source: compileTerm(input.source),
    target: compileTerm(input.target),
    sourceMeetings: input.sourceMeetings,
    targetMeetings: input.targetMeetings,
    zone,
    rules: {
      rule: input.rule,
      kindRules: input.kindRules,
      unitRules: input.unitRules,
      itemRules: input.itemRules,
    },
    items: input.items,
  })
}

const reason = z.object({
  slot: z.enum(slotNames),
  code: z.string(),
  before: z.string().nullable(),
  after: z.string().nullable(),
  names: z.record(z.string(), z.union([z.string(), z.number(), z.null()])).optional(),
})
const wall = z.string().nullable()
/** What the plan command prints for a case. */
export const dateResult = z.object({
  items: z.array(
    z.object({
      id: z.string(),
      opens: wall,
      due: wall,
      closes: wall,
      flags: z.array(z.enum(flagNames)),
      reasons: z.array(reason),
    }),
  ),
  /** Slots by how they came across; `dates` is all that have one. */
  summary: z.object({
    dates: z.int(),
    straight: z.int(),
    moved: z.int(),
    held: z.int(),
    settle: z.int(),
    none: z.int(),
  }),
})

/** The result of a planned case as the plan command prints it. */
export const caseResult = (planned: {
  items: PlannedItem[]
  summary: Summary
}): z.infer<typeof dateResult> => ({
  items: planned.items.map(item => {
    const { id, opens, due, closes, flags } = item
    return { id, opens, due, closes, flags: [...flags], reasons: reasonsOf(item) }
  }),
  summary: planned.summary,
})
