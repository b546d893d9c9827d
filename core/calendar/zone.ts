import { dayOf, minuteOf } from './day'

/**
 * What a time zone does to wall clocks, as data. It is made outside core (from the IANA data of the server), because
 * two runtimes may know different zone data and a plan must come out the same in both.
 */
export interface ZoneRules {
  readonly timeZone: string
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

/** Whether a wall-clock minute is skipped or doubled in a zone. */
export function irregularAt(zone: ZoneRules, wall: number): Irregular | null {
  let before = zone.offset
  for (const { at, offset } of zone.transitions) {
    // No offset is further than a day from UTC, so later transitions cannot matter.
    if (at - 1440 > wall) break
    if (offset > before && wall >= at + before && wall < at + offset)
      return { kind: 'gap', minutes: offset - before }
    if (offset < before && wall >= at + offset && wall < at + before)
      return { kind: 'overlap', minutes: before - offset }
    before = offset
  }
  return null
}

/** The instant of a wall-clock date-time in minutes since 1970-01-01T00:00Z; a skipped one moves later, a doubled one is the earlier (Temporal's `compatible`). */
export function instantOf(zone: ZoneRules, wallClock: string): number {
  const wall = wallMinutes(dayOf(wallClock), minuteOf(wallClock))
  let before = zone.offset
  for (const { at, offset } of zone.transitions) {
    if (wall < at + before) break // before the change, or the earlier of two
    if (wall < at + offset) return wall - before // in the gap: the old offset carries it past
    before = offset
  }
  return wall - before
}
