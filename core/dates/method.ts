import { z } from 'zod'
import type { WallTime } from '../calendar/schema'
import type { DateField, ItemDates } from '../course/dates'
import type { Crossing, Draft } from './draft'
import type { Flag } from './flags'
import type { ReasonDefinitions } from './reason'
import type { Reason } from './reasons'
import { ruleCommon } from './rule-common'

/** The schema of a method's rules: its name, its own parameters, and what every rule has. */
export const ruleSchemaOf = <N extends string, P extends z.ZodRawShape>(name: N, parameters: P) =>
  z.object({ method: z.literal(name), ...parameters, ...ruleCommon })
type Schema<N extends string, P extends z.ZodRawShape> = ReturnType<typeof ruleSchemaOf<N, P>>
export type RuleWith<N extends string, P extends z.ZodRawShape> = z.output<Schema<N, P>>

/** Of a method that needs none. */
export type NoParameters = Record<never, z.ZodType>

/** Places one date: sets its `day` (and may flag, note a reason, or take the date away). */
export type Place = (draft: Draft) => void
/** A date as a rule states it, and why; no reason where no date was there and none is. */
export interface StatedDate {
  readonly at: WallTime | null
  readonly reason: Reason | null
}

/** A parameter of a method that a person decides, as it is asked on screen. */
export type ParameterAsk<K extends string = string> = { readonly name: K; readonly words: string } & (
  | { readonly as: 'check'; /** Another that makes it meaningless once it is given. */ readonly unless?: K }
  /** A whole number; empty: none. */
  | { readonly as: 'number' }
  /** One of some values; `none`: what stands for no value. */
  | { readonly as: 'choice'; readonly options: Readonly<Record<string, string>>; readonly none?: string }
  /** A milestone that both terms have, by its key. */
  | { readonly as: 'milestone' }
)
type Terms = Pick<Crossing, 'source' | 'target'>

interface Common<N extends string, P extends z.ZodRawShape, R extends ReasonDefinitions> {
  readonly name: N
  /** What it is called on screen, and in a line what it goes by. */
  readonly title: string
  readonly line: string
  /** Its parameters in a rule; keys that it does not know are ignored. */
  readonly parameters: P
  readonly reasons: R
  /** What of its parameters a person decides, in the order it is asked. */
  readonly asks?: readonly ParameterAsk<Extract<keyof P, string>>[]
  /** The parameters that it begins with for a pair of terms; null: these terms give it nothing to go by. */
  readonly beginsWith?: (terms: Terms) => object | null
  /** It goes by class meetings: where a section has none, there is nothing to suggest it for. */
  readonly needsMeetings?: true
  /** What opened on a date has nothing that would open it: it arrives hidden until somebody opens it. */
  readonly waits?: true
  /** It leaves dates alone: what to suggest where they belong to the new term already. */
  readonly leavesDates?: true
  /** A decision about one item, made by hand: no habit for another term. */
  readonly byHand?: true
  /**
   * How it is compared with the others for a pair of terms: the parameters it is tried with, and its place among equals
   * (least first) where the new term is as long as the old one, and where it is not. Null: it settles everything and is
   * never suggested.
   */
  readonly compared?: { readonly with: object; readonly rank: { same: number; other: number } | null }
}
/** A method that places dates; the steps of `docs/dates.md` §5 follow. */
interface PlacingMethod<
  N extends string,
  P extends z.ZodRawShape,
  R extends ReasonDefinitions,
> extends Common<N, P, R> {
  /**
   * It puts dates on days of its own, wherever they were, at these minutes after midnight where the rule keeps times. A
   * changed timetable is then looked up by the placed day's own weekday.
   */
  readonly ownDays?: { readonly minutes: Readonly<Record<DateField, number>> }
  /** Makes it ready for a rule and a pair of terms; what it answers is applied to every date under that rule. */
  readonly prepare: (rule: RuleWith<N, P>, crossing: Crossing) => Place
}
/** A method that states dates instead of placing them: no step of §5 touches them. */
interface StatingMethod<
  N extends string,
  P extends z.ZodRawShape,
  R extends ReasonDefinitions,
> extends Common<N, P, R> {
  /** What stands on every item that it states dates of. */
  readonly flag: Flag | null
  readonly state: (rule: RuleWith<N, P>, field: DateField, was: Readonly<ItemDates>) => StatedDate
}
/**
 * How dates cross, one definition each. It is annotated with its own name, parameters and reasons, so that the list of all
 * reasons can be made from the list of all methods.
 */
export type DateMethod<
  N extends string = string,
  P extends z.ZodRawShape = z.ZodRawShape,
  R extends ReasonDefinitions = ReasonDefinitions,
> = PlacingMethod<N, P, R> | StatingMethod<N, P, R>
export type { PlacingMethod, StatingMethod }
