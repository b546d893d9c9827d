import { refusals, type FieldProblem, type RefusalCode, type RefusalDetails } from './refusals'

/** What is told of a refusal: RFC 9457's members, made from its code. */
export interface ToldRefusal {
  status: number
  title: string
  detail?: string
  /** Seconds after which asking again may help: sent as Retry-After. */
  retryAfter?: number
  errors?: FieldProblem[]
}

/** The one error of the application: something was asked that it does not do. `code` says what; the sentences come from `refusals.ts`. */
export class Refusal extends Error {
  override readonly name = 'Refusal'
  readonly told: ToldRefusal
  constructor(
    readonly code: RefusalCode,
    readonly details: unknown,
  ) {
    const told = tell(code, details)
    super(told.title)
    this.told = told
  }
  get status(): number {
    return this.told.status
  }
}

type Given<C extends RefusalCode> = undefined extends RefusalDetails<C> ? [] : [details: RefusalDetails<C>]
/** A refusal to throw; its details are those that its definition asks for. */
export const refuse = <C extends RefusalCode>(code: C, ...[details]: Given<C>): Refusal =>
  new Refusal(code, details)
export const notFound = (what: string): Refusal => refuse('not-found', { what })

type Words = string | ((details: unknown) => string)
interface AnyDefinition {
  status: number
  title: Words
  detail?: Words
  retryAfter?: (details: unknown) => number
  errors?: (details: unknown) => FieldProblem[]
}
function tell(code: RefusalCode, details: unknown): ToldRefusal {
  // Which details belong to which code is checked where a refusal is made.
  const definition = refusals[code] as unknown as AnyDefinition
  const say = (words: Words): string => (typeof words === 'string' ? words : words(details))
  return {
    status: definition.status,
    title: say(definition.title),
    ...(definition.detail && { detail: say(definition.detail) }),
    ...(definition.retryAfter && { retryAfter: definition.retryAfter(details) }),
    ...(definition.errors && { errors: definition.errors(details) }),
  }
}
/** A refusal in one or two sentences, for whoever reads of it later. */
export const refusalText = ({ told }: Refusal): string =>
  [told.title, told.detail].filter(Boolean).join('. ').replace(/\.\.$/, '.')
