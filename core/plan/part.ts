import type { z } from 'zod'
import type { Term } from '../calendar/term'
import type { Changed, Joiner } from './join'
import type { Effect, Placements } from './effect'
import type { ShellFacts } from './shell-facts'

/** What cannot be meant in a part of a plan: where in the part, and a sentence. */
export interface PartFault {
  readonly path: readonly string[]
  readonly message: string
}
/** What of a part is remembered from one term to the next. */
export interface PartHabit<V> {
  /** What is kept; what is about one shell or one item by hand is left out. */
  readonly keeps: (value: V) => V
  /** What a plan decides once the habit is laid over it; what no habit keeps stays as it is in the plan. */
  readonly over: (own: V, kept: V) => V
  /** What was kept, as sentences; none: as recommended. */
  readonly tells: (kept: V) => readonly string[]
}
/** A part of a plan: what is decided about one thing, and all that the application must know of such decisions. */
export interface PlanPart<S extends z.ZodType> {
  /** What it decides, in words that follow "changed": `the names`. */
  readonly words: string
  /** What its single decisions are about, by their key, as a sentence begins: `The title students see`. */
  readonly decisions?: Readonly<Record<string, string>>
  readonly schema: S
  /** What a plan begins with: the recommended decisions. */
  readonly recommended: z.output<S>
  /** Joins the changes of two people who began from the same value. What only one of them changed is theirs. */
  readonly join: (joiner: Joiner, values: Changed<z.output<S>>) => z.output<S>
  /** What a habit keeps of it for another term; null: nothing, as it is about one shell or stands in the shell by then. */
  readonly habit: PartHabit<z.output<S>> | null
  /** What no habit can know of it and has to be decided each term, as a sentence; null: all of it is kept. */
  readonly eachTerm: string | null
  /** What remains of it for another run into the same shell: what the shell has by now is not decided again. */
  readonly again: (value: z.output<S>) => z.output<S>
  /** Whether further shells of the plan get the same, or have their own. */
  readonly furtherShells: 'the same' | 'their own'
  /** What remains of it once the plan rolls from another course. */
  readonly forOtherSource: (value: z.output<S>) => z.output<S>
  /** What of it no plan for a term may hold. */
  readonly faults?: (value: z.output<S>, term: Pick<Term, 'classes' | 'exams'>) => PartFault[]
  /** What it adds to the effect of a run, in numbers. */
  readonly effect?: (placements: Placements) => Partial<Effect>
  /** What it changes of the shell itself; what is not named stays. */
  readonly shellFacts?: (value: z.output<S>) => Partial<ShellFacts>
}
export const planPart = <S extends z.ZodType>(part: PlanPart<S>): PlanPart<S> => part
