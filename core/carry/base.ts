import type { SaidBy } from '../gather/saying'
import type { PartValues } from './again'

/**
 * How a thing of a source stands to the shell since an earlier run: it was carried; or its text went `into` another's place; or it was seen
 * and the shell's was kept, or it was left behind. `template`: a thing of the shell that the department's template brought, as it was then.
 */
export const baseWays = ['carried', 'into', 'kept', 'left', 'template'] as const
export type BaseWay = (typeof baseWays)[number]
/** A thing as it was carried last, or seen and declined: what the next run compares with. */
export interface CarriedBase {
  /** Lineage key in the source. */
  readonly source: string
  /** Lineage key in the shell. */
  readonly lineage: string
  readonly type: 'unit' | 'item' | 'category' | 'rules'
  readonly how: BaseWay
  readonly parts: PartValues
  /** Hash of the text that the run made of one or of several, where it is nobody's own; left out: the source's. */
  readonly wrote?: string | null
  /** Hash of the settings that the run wrote, where some were given to it; left out: the source's. */
  readonly wroteSettings?: string
  /** The course that it came from, where that was kept. */
  readonly of?: string
  /** It came from another course than those of the plan that asks: whether that has it still is not known. */
  readonly isOther?: true
  /** It came with a file, and is compared with later files of the course; left out: with a course that was rolled. */
  readonly file?: true
  /** Which kind of file said each of its dates and numbers. */
  readonly by?: SaidBy
}
/** Of how a course grades only the source's rules are kept, as they were seen last. */
export const seenRules = (source: string, type: 'category' | 'rules', settings: string): CarriedBase => ({
  source,
  lineage: source,
  type,
  how: 'kept',
  parts: {
    title: null,
    text: null,
    settings,
    points: null,
    category: null,
    dates: null,
    place: null,
    state: null,
  },
})
/** Of all that is known of a course, what a plan compares with: what files brought, where it rolls a file; else what courses did. */
export const comparedBases = (bases: readonly CarriedBase[], ofFile: boolean): CarriedBase[] =>
  bases.filter(({ how, file = false }) => how === 'template' || file === ofFile)
/** What was carried is asked by source: what came from other courses than these is marked. The very same where nothing did. */
export function askedOf<B extends { readonly bases: readonly CarriedBase[] }>(
  before: B,
  sources: readonly string[],
): B {
  const isOther = ({ of }: CarriedBase): boolean => of !== undefined && !sources.includes(of)
  if (!before.bases.some(isOther)) return before
  return { ...before, bases: before.bases.map(base => (isOther(base) ? { ...base, isOther: true } : base)) }
}
export const isBefore = ({ how }: Pick<CarriedBase, 'how'>): boolean => how === 'carried' || how === 'kept'
/** Under which lineage of the shell a thing of a source is known there. */
export const carriedAs = (bases: readonly CarriedBase[]): Map<string, string> =>
  new Map(bases.filter(isBefore).map(({ source, lineage }) => [source, lineage]))
