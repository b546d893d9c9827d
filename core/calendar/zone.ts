import { dayOf, firstYear, floorDiv, floorMod, lastYear, minuteOf, wallOf, type WallTime } from './day'

/** From one year to another, both whole. */
export interface Years {
  readonly from: number
  readonly to: number
}
/** The years that a date may be in (`docs/dates.md` §2). */
export const validYears: Years = { from: firstYear, to: lastYear }
/** The years of several spans together. */
export const yearsOfAll = (spans: readonly Years[]): Years => ({
  from: Math.min(...spans.map(span => span.from)),
  to: Math.max(...spans.map(span => span.to)),
})
/** Whether zone data that are known for some years serve others too. */
export const holdsYears = (known: Years, wanted: Years): boolean =>
  known.from <= wanted.from && known.to >= wanted.to

/**
 * What a time zone does to wall clocks, as data. It is made outside core (from the IANA data of the server), because
 * two runtimes may know different zone data and a plan must come out the same in both.
 */
export interface ZoneRules {
  readonly timeZone: string
  /** The years whose transitions are among these; outside them nothing is known. */
  readonly years: Years
  /** Offset from UTC in minutes before the first transition. */
  readonly offset: number
  /** Changes of offset, ascending: `at` in minutes since 1970-01-01T00:00Z, the new offset from then on. */
  readonly transitions: readonly { readonly at: number; readonly offset: number }[]
}

/** A wall-clock time that a zone skips (gap) or has twice (overlap), with the minutes it is about. */
export interface Irregular {
  kind: 'gap' | 'overlap'
  minutes: number
}

/** Wall-clock minutes since 1970-01-01T00:00 of a day number and minutes after midnight. */
export const wallMinutes = (day: number, minute: number): number => day * 1440 + minute

/** Index of the first transition that may matter for a wall-clock minute: no offset is further than a day from UTC. */
function firstNear({ transitions }: ZoneRules, wall: number): number {
  let [low, high] = [0, transitions.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if ((transitions[middle]?.at ?? Infinity) < wall - 1440) low = middle + 1
    else high = middle
  }
  return low
}
const offsetBefore = ({ offset, transitions }: ZoneRules, index: number): number =>
  transitions[index - 1]?.offset ?? offset

/** Whether a wall-clock minute is skipped or doubled in a zone. */
export function irregularAt(zone: ZoneRules, wall: number): Irregular | null {
  let index = firstNear(zone, wall)
  let before = offsetBefore(zone, index)
  for (; ; index++) {
    const transition = zone.transitions[index]
    if (!transition || transition.at - 1440 > wall) return null
    const { at, offset } = transition
    if (offset > before && wall >= at + before && wall < at + offset)
      return { kind: 'gap', minutes: offset - before }
    if (offset < before && wall >= at + offset && wall < at + before)
      return { kind: 'overlap', minutes: before - offset }
    before = offset
  }
}

/** The wall clock in a zone of an instant in minutes since 1970-01-01T00:00Z. */
export function wallAtInstant(zone: ZoneRules, instant: number): WallTime {
  let offset = zone.offset
  for (const transition of zone.transitions) {
    if (transition.at > instant) break
    offset = transition.offset
  }
  const wall = Math.floor(instant + offset)
  return wallOf(floorDiv(wall, 1440), floorMod(wall, 1440))
}
/** The instant of a wall-clock date-time in minutes since 1970-01-01T00:00Z; a skipped one moves later, a doubled one is the earlier (Temporal's `compatible`). */
export function instantOf(zone: ZoneRules, wallClock: string): number {
  const wall = wallMinutes(dayOf(wallClock), minuteOf(wallClock))
  const index = firstNear(zone, wall)
  let before = offsetBefore(zone, index)
  for (const { at, offset } of zone.transitions.slice(index)) {
    if (wall < at + before) break // before the change, or the earlier of two
    if (wall < at + offset) return wall - before // in the gap: the old offset carries it past
    before = offset
  }
  return wall - before
}
