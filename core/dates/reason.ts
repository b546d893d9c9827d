import type { DateField } from '../course/dates'

/** What a reason is told of: the date (or date-time) before and after the step, and what else was involved. */
export interface Told<D> {
  readonly field: DateField
  readonly before: string | null
  readonly after: string | null
  readonly details: D
}
/** One step that made a date, as data. `D`: what else is involved (which closure, which week); undefined where nothing is. */
export interface ReasonDefinition<D = undefined> {
  /** How a date came to be, in two or three words, where this step decided it. */
  readonly short?: string | ((told: Told<D>) => string)
  /** One or two short sentences with absolute dates. */
  readonly sentence: (told: Told<D>) => string
}
/** A reason that a method or a step can give. */
export const reason = <D = undefined>(definition: ReasonDefinition<D>): ReasonDefinition<D> => definition

export type ReasonDefinitions = Readonly<
  Record<string, { readonly short?: unknown; readonly sentence: unknown }>
>
/** The reasons of some definitions: a union discriminated by `code`. */
export type ReasonOf<R extends ReasonDefinitions> = {
  [Code in keyof R & string]: R[Code] extends ReasonDefinition<infer D>
    ? Omit<Told<D>, 'details'> & { readonly code: Code } & (undefined extends D
          ? { readonly details?: undefined }
          : { readonly details: D })
    : never
}[keyof R & string]
