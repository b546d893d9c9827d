import { easeReasons } from './ease-reasons'
import { methods } from './methods'
import { patternReasons } from './pattern-reasons'
import { phaseReasons } from './phases'
import type { ReasonDefinitions, ReasonOf } from './reason'
import { stepReasons } from './steps'

type Methods = typeof methods
type OfMethods = { [M in keyof Methods]: ReasonOf<Methods[M]['reasons']> }[keyof Methods]
/** One step that made a date: a union discriminated by `code`, with what else is involved. */
export type Reason =
  | OfMethods
  | ReasonOf<typeof phaseReasons>
  | ReasonOf<typeof stepReasons>
  | ReasonOf<typeof patternReasons>
  | ReasonOf<typeof easeReasons>
export type ReasonCode = Reason['code']

interface AnyDefinition {
  readonly short?: string | ((reason: Reason) => string)
  readonly sentence: (told: Reason) => string
}
const asDefinitions = (definitions: ReasonDefinitions) =>
  Object.entries(definitions) as unknown as [ReasonCode, AnyDefinition][]
const definitions = new Map<ReasonCode, AnyDefinition>(
  [
    ...Object.values(methods).map(method => method.reasons),
    phaseReasons,
    stepReasons,
    patternReasons,
    easeReasons,
  ].flatMap(asDefinitions),
)
/** Every code that a reason may have. */
export const reasonCodes: readonly ReasonCode[] = [...definitions.keys()]

/** One reason as a plain sentence or two. */
export function sentence(reason: Reason): string {
  const definition = definitions.get(reason.code)
  if (!definition) throw new Error(`no sentence for the reason ${reason.code}`)
  return definition.sentence(reason)
}

/** What decided, where several steps did: the later in this list gives way to the earlier, and all of them to these. */
const deciding: readonly ReasonCode[] = [
  'set-by-hand',
  'reordered',
  'swap-day',
  'closure-moved',
  'on-closure',
  'past-end',
  'past-exams',
  'before-start',
  'no-exams',
]
/** Short name of how a date came to be, for a table's last column. */
export function shortHow(reasons: readonly Reason[]): string {
  const byCode = new Map(reasons.map(reason => [reason.code, reason]))
  const code =
    deciding.find(each => byCode.has(each)) ??
    reasonCodes.find(each => byCode.has(each) && definitions.get(each)?.short)
  const reason = code && byCode.get(code)
  if (!reason) return ''
  const short = definitions.get(reason.code)?.short ?? ''
  return typeof short === 'function' ? short(reason) : short
}
