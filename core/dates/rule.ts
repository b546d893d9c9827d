import { z } from 'zod'
import { isTime } from '../calendar/day'
import { wallTime, weekdayNumber } from '../calendar/schema'

/** The three dates an item may have, in the order in which they are computed and shown. */
export const slotNames = ['opens', 'due', 'closes'] as const
export type SlotName = (typeof slotNames)[number]

const weekdayKeys = ['1', '2', '3', '4', '5', '6', '7'] as const
const namedTimes = ['keep', 'class-start', 'class-end']
const timePolicy = z
  .string({ error: 'must be a time or keep, class-start or class-end' })
  .refine(value => namedTimes.includes(value) || isTime(value), {
    error: issue => `${String(issue.input)} is neither a time nor keep, class-start or class-end`,
  })
  .meta({
    description: 'HH:MM, keep, class-start or class-end',
    pattern: '^(keep|class-start|class-end|([01]\\d|2[0-3]):[0-5]\\d)$',
  })
const closurePolicy = z.enum(['next', 'previous', 'nearest', 'keep'], {
  error: issue => `${String(issue.input)} is not one of next, previous, nearest, keep`,
})
export type TimePolicy = z.infer<typeof timePolicy>
export type ClosurePolicy = z.infer<typeof closurePolicy>
const time = timePolicy.nullish().transform((value): TimePolicy => value ?? 'keep')
const policy = (fallback: ClosurePolicy) =>
  closurePolicy.nullish().transform((value): ClosurePolicy => value ?? fallback)
const flag = z
  .boolean({ error: 'must be true or false' })
  .nullish()
  .transform(value => value ?? false)

/** What every rule has, with the defaults of `docs/dates.md` §7. A part left out takes its default, never another rule's. */
export const ruleCommon = {
  weekdays: z
    .partialRecord(
      z.enum(weekdayKeys, { error: issue => `${String(issue.input)} is not a weekday from 1 to 7` }),
      weekdayNumber,
    )
    .nullish()
    .transform(value => value ?? {}),
  times: z
    .object({ opens: time, due: time, closes: time })
    .nullish()
    .transform(value => value ?? { opens: 'keep' as const, due: 'keep' as const, closes: 'keep' as const }),
  closures: z
    .object({ opens: policy('keep'), due: policy('next'), closes: policy('next') })
    .nullish()
    .transform(value => value ?? { opens: 'keep' as const, due: 'next' as const, closes: 'next' as const }),
}
const rule = <N extends string, T extends z.ZodRawShape>(method: N, parameters: T) =>
  z.object({ method: z.literal(method), ...parameters, ...ruleCommon })
const slotTime = wallTime.nullish().transform(value => value ?? null)

/** Parameters of each method; keys a method does not know are ignored. The order is the order of `docs/dates.md` §4. */
export const ruleSchemas = {
  'keep-week': rule('keep-week', {}),
  offset: rule('offset', {
    days: z
      .int({ error: 'must be a whole number of days' })
      .nullish()
      .transform(value => value ?? null),
    wholeWeeks: flag,
  }),
  stretch: rule('stretch', {
    basis: z
      .enum(['calendar', 'teaching'], { error: 'must be calendar or teaching' })
      .nullish()
      .transform(value => value ?? ('calendar' as const)),
    keepWeekday: flag,
  }),
  meetings: rule('meetings', {
    align: z
      .enum(['count', 'share'], { error: 'must be count or share' })
      .nullish()
      .transform(value => value ?? null),
  }),
  anchor: rule('anchor', { milestone: z.string({ error: 'must name the key of a milestone' }) }),
  span: rule('span', {}),
  set: rule('set', { opens: slotTime, due: slotTime, closes: slotTime }),
  none: rule('none', {}),
  always: rule('always', {}),
}
export type MethodName = keyof typeof ruleSchemas
export type RuleOf<M extends MethodName> = z.output<(typeof ruleSchemas)[M]>
export type Rule = { [M in MethodName]: RuleOf<M> }[MethodName]
const schemas = Object.values(ruleSchemas) as unknown as [
  (typeof ruleSchemas)['keep-week'],
  ...(typeof ruleSchemas)[MethodName][],
]
export const ruleSchema = z.discriminatedUnion('method', schemas, {
  error: issue =>
    `${(issue.input as { method?: unknown } | null)?.method === undefined ? 'is missing: it must be' : 'is not'} one of ${Object.keys(ruleSchemas).join(', ')}`,
})

/** Rules at the four levels; the nearest wins whole: item, then unit, then kind, then course. */
export interface RuleSet {
  rule: Rule
  kindRules: Readonly<Record<string, Rule>>
  unitRules: Readonly<Record<string, Rule>>
  itemRules: Readonly<Record<string, Rule>>
}
export const defaultRule: Rule = ruleSchemas['keep-week'].parse({ method: 'keep-week' })
const levels = z
  .record(z.string(), ruleSchema)
  .nullish()
  .transform(value => value ?? {})
export const ruleSetSchema = z.object({
  rule: ruleSchema.nullish().transform(value => value ?? defaultRule),
  kindRules: levels,
  unitRules: levels,
  itemRules: levels,
})
