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
  /** What a habit keeps for another term; what is about one shell or one item is left out. */
  readonly habit: (value: z.output<S>) => z.output<S>
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
