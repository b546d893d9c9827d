/**
 * What a step or a method may notice about a date, and what that makes of it on screen: to settle (a person must look),
 * moved (it lies elsewhere than the method put it), held (set by hand), or nothing. In alphabetical order: the order in
 * which the flags of an item are written.
 */
export const flags = {
  'before-start': 'settle',
  'break-week': 'nothing',
  'closure-moved': 'moved',
  'dst-gap': 'settle',
  'dst-overlap': 'nothing',
  'no-exam-period': 'settle',
  'no-meetings': 'settle',
  'no-milestone': 'settle',
  'on-closure': 'settle',
  'past-end': 'settle',
  reordered: 'moved',
  'set-by-hand': 'held',
  'source-inverted': 'settle',
  'swap-day': 'moved',
} as const satisfies Record<string, 'settle' | 'moved' | 'held' | 'nothing'>
export type Flag = keyof typeof flags
export const flagNames = Object.keys(flags) as Flag[]

/** Sets of flags are bit masks inside the engine: this is each flag's bit. */
export const bit = Object.fromEntries(flagNames.map((name, at) => [name, 1 << at])) as Readonly<
  Record<Flag, number>
>
const lists = new Map<number, readonly Flag[]>()
/** The flags of a mask in alphabetical order. The lists are shared; do not change one. */
export function flagsOf(mask: number): readonly Flag[] {
  let list = lists.get(mask)
  if (!list) {
    list = Object.freeze(flagNames.filter(name => mask & bit[name]))
    lists.set(mask, list)
  }
  return list
}

const maskOf = (outcome: 'settle' | 'moved'): number =>
  flagNames.reduce((mask, name) => (flags[name] === outcome ? mask | bit[name] : mask), 0)
const settling = maskOf('settle')
const moving = maskOf('moved')

/**
 * How a date came across, for counting on screen; the first that holds. `none`: it had a date and has none now; `empty`: it
 * never had one.
 */
export type Outcome = 'held' | 'settle' | 'moved' | 'straight' | 'none' | 'empty'
export function outcomeOf(had: boolean, has: boolean, mask: number): Outcome {
  if (!has) return had ? 'none' : 'empty'
  if (mask & bit['set-by-hand']) return 'held'
  if (mask & settling) return 'settle'
  return mask & moving ? 'moved' : 'straight'
}
