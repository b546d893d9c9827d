import { z } from 'zod'
import type { DateField, ItemDates } from '../course/dates'
import type { Crossing } from './draft'
import { ruleSchemaOf, type DateMethod, type Place, type RuleWith, type StatedDate } from './method'
import { methods, type MethodName } from './methods'

export { commonOf, type ClosurePolicy, type RuleCommon, type TimePolicy } from './rule-common'
export type { MethodName }

export type RuleOf<M extends MethodName> = RuleWith<M, (typeof methods)[M]['parameters']>
export type Rule = { [M in MethodName]: RuleOf<M> }[MethodName]

type Schemas = { [M in MethodName]: ReturnType<typeof ruleSchemaOf<M, (typeof methods)[M]['parameters']>> }
/** The schema of each method's rules, in the order of `docs/dates.md` §4. */
export const ruleSchemas = Object.fromEntries(
  Object.values(methods).map(method => [method.name, ruleSchemaOf(method.name, method.parameters)]),
) as unknown as Schemas

const knownNames = Object.keys(methods).join(', ')
export const ruleSchema = z.discriminatedUnion(
  'method',
  Object.values(ruleSchemas) as unknown as [Schemas['keep-week'], ...Schemas[MethodName][]],
  {
    error: issue => {
      const method = z.object({ method: z.unknown() }).safeParse(issue.input).data?.method
      return `${method === undefined ? 'is missing: it must be' : 'is not'} one of ${knownNames}`
    },
  },
)
type Told = Omit<Extract<DateMethod, { prepare: unknown }>, 'prepare' | 'name'> & {
  readonly name: MethodName
}
/** A method where it does not matter which: it takes any rule, and is given those of its own name. */
export type AnyPlacingMethod = Told & { readonly prepare: (rule: Rule, crossing: Crossing) => Place }
export type AnyStatingMethod = Omit<Told, 'ownDays'> &
  Pick<Extract<DateMethod, { state: unknown }>, 'flag'> & {
    readonly state: (rule: Rule, field: DateField, was: Readonly<ItemDates>) => StatedDate
  }
export type AnyMethod = AnyPlacingMethod | AnyStatingMethod
/** All methods, in the order of `docs/dates.md` §4. */
export const allMethods = Object.values(methods) as unknown as readonly AnyMethod[]
/** The method that a rule names. The list pairs each name with its own rules; on a union of rules that pairing is lost. */
export const methodOf = (rule: Rule): AnyMethod => methods[rule.method] as unknown as AnyMethod

/** A rule of a method with some parameters; parts that are left out take their defaults. */
export const ruleBy = (method: MethodName, parts: object = {}): Rule => ruleSchema.parse({ ...parts, method })

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

const own = <T>(record: Readonly<Record<string, T>>, key: string): T | undefined =>
  Object.hasOwn(record, key) ? record[key] : undefined
/** The rule that decides for an item: the nearest wins whole. */
export const ruleFor = (
  rules: RuleSet,
  item: { readonly id: string; readonly unit: string | null; readonly kind: string },
): Rule =>
  own(rules.itemRules, item.id) ??
  (item.unit === null ? undefined : own(rules.unitRules, item.unit)) ??
  own(rules.kindRules, item.kind) ??
  rules.rule
/** Every rule of a set, whatever it is for. */
export const allRules = ({ rule, kindRules, unitRules, itemRules }: RuleSet): Rule[] => [
  rule,
  ...[kindRules, unitRules, itemRules].flatMap(level => Object.values(level)),
]
