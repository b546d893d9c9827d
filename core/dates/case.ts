import { z } from 'zod'
import { checkCalendar, faultsOf, type Fault } from '../calendar/check'
import { inOurWords } from '../schema-words'
import { dayOf } from '../calendar/day'
import { civilRange, meeting, termCalendar, wallTime } from '../calendar/schema'
import { compileTerm } from '../calendar/term'
import type { Years, ZoneRules } from '../calendar/zone'
import { dateFields } from '../course/dates'
import { faultsFrom } from '../fault'
import { flagNames } from './flags'
import { planDates, reasonsOf, type PlanInput, type PlannedItem, type Summary } from './plan'
import { reasonCodes } from './reasons'
import { ruleSetSchema } from './rule'
import { yearsReached } from './years'

const text = z.string({ error: 'must be a text' })
const date = wallTime.nullish().transform(value => value ?? null)
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
        opens: date,
        due: date,
        closes: date,
      }),
      { error: 'must be a list of items' },
    ),
    /** The first and the last day on which students may enter the new course. */
    targetWindow: civilRange.nullish().transform(value => value ?? null),
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
  path.reduce<string>((field, key) => {
    if (typeof key === 'number') return `${field}[${key}]`
    return field ? `${field}.${key}` : key
  }, '')
const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/** Reads a case key by key, in the order of `docs/dates.md` §7: the first fault returned is the first in that order. */
export function readCase(
  input: unknown,
  isTimeZone: (zone: string) => boolean,
): { case: DateCase } | { faults: FieldFault[] } {
  if (!isRecord(input))
    return { faults: [{ field: 'case', message: 'must be an object with source, target and items' }] }
  const faults: Fault[] = []
  const parsed: Record<string, unknown> = {}
  for (const [key, schema] of Object.entries(dateCase.shape)) {
    if (key === 'source' || key === 'target') {
      const { calendar, faults: found } = checkCalendar(input[key], isTimeZone)
      parsed[key] = calendar
      faults.push(...found.map(fault => ({ ...fault, path: [key, ...fault.path] })))
      continue
    }
    const result = schema.safeParse(input[key], { error: inOurWords })
    if (result.success) parsed[key] = result.data
    const found = result.success ? [] : faultsOf(result.error, [key])
    faults.push(...(key === 'items' ? withTwins(input.items, found) : found))
  }
  if (faults.length > 0)
    return { faults: faults.map(fault => ({ field: fieldText(fault.path), message: fault.message })) }
  // Every key was parsed by its own schema just now.
  return { case: parsed as DateCase }
}

const fault = faultsFrom({
  'item-twice': ({ id, twin }: { id: string; twin: number }) => `${id} is the id of items[${twin}] too`,
})
/** Items' faults with ids that stand twice put in where they belong: an item's id comes before its other keys. */
function withTwins(items: unknown, found: readonly Fault[]): Fault[] {
  if (!Array.isArray(items)) return [...found]
  const first = new Map<unknown, number>()
  const faults = found.filter(fault => fault.path.length === 1)
  items.forEach((item: unknown, at) => {
    const id = isRecord(item) ? item.id : undefined
    if (typeof id === 'string') {
      const twin = first.get(id)
      if (twin === undefined) first.set(id, at)
      else faults.push({ ...fault('item-twice', { id, twin }), path: ['items', at, 'id'] })
    }
    faults.push(...found.filter(fault => fault.path[1] === at))
  })
  return faults
}

/** Plans a checked case. `zoneOf` tells what the target's zone does in the years that the case's dates may reach. */
export function planCase(
  input: DateCase,
  zoneOf: (timeZone: string, years: Years) => ZoneRules,
): { items: PlannedItem[]; summary: Summary } {
  const { rule, kindRules, unitRules, itemRules, targetWindow } = input
  const plan: Omit<PlanInput, 'zone'> = {
    source: compileTerm(input.source),
    target: compileTerm(input.target),
    sourceMeetings: input.sourceMeetings,
    targetMeetings: input.targetMeetings,
    targetWindow: targetWindow && { from: dayOf(targetWindow.from), to: dayOf(targetWindow.to) },
    rules: { rule, kindRules, unitRules, itemRules },
    items: input.items,
  }
  return planDates({ ...plan, zone: zoneOf(plan.target.timeZone, yearsReached(plan)) })
}

const reason = z.object({
  field: z.enum(dateFields),
  code: z.enum(reasonCodes),
  before: z.string().nullable(),
  after: z.string().nullable(),
  details: z.record(z.string(), z.union([z.string(), z.number(), z.null()])).optional(),
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
  /** Dates by how they came across; `dates` is all that there are. */
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
}): z.input<typeof dateResult> => ({
  items: planned.items.map(item => {
    const { id, opens, due, closes, flags } = item
    return {
      id,
      opens,
      due,
      closes,
      flags: [...flags],
      reasons: reasonsOf(item).map(reason => ({
        ...reason,
        details: reason.details && { ...reason.details },
      })),
    }
  }),
  summary: planned.summary,
})
