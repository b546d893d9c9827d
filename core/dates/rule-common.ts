import { z } from 'zod'
import { isTime, type Weekday } from '../calendar/day'
import { weekdayNumber } from '../calendar/schema'

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
/** True or false; false where it is left out. */
export const yesOrNo = z
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
/** The part that rules of every method have: a weekday table, times of day, and what becomes of a date on a closure. */
export type RuleCommon = z.output<z.ZodObject<typeof ruleCommon>>
/** The part of a rule that every rule has, and nothing else of it. */
export const commonOf = ({ weekdays, times, closures }: RuleCommon): RuleCommon => ({
  weekdays,
  times,
  closures,
})

/** What weekday w becomes under a rule's table. */
export const turned = (rule: Pick<RuleCommon, 'weekdays'>, weekday: Weekday): Weekday =>
  rule.weekdays[`${weekday}`] ?? weekday
