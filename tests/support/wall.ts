import { wallTime, type WallTime } from '../../core/calendar/schema'

/** A date-time of a test, checked. */
export const wall = (text: string): WallTime => wallTime.parse(text)
