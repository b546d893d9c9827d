import { present } from '../../present'
import { dayOfCivil, floorDiv, floorMod } from '../../calendar/day'
import { occurrences, type Budget, type Moment } from '../../calendar/recurrence'
import { propertiesOf, propertyOf, type Component } from './lines'
import { ruleOf, stampOfValue } from './rule'

/** Seconds east of UTC at a wall-clock moment, and at an instant (seconds since 1970 in UTC). */
export interface StreamZone {
  readonly atWall: (wall: Moment) => number
  readonly atInstant: (seconds: number) => number
}
export const secondsOf = ({ day, second }: Moment): number => day * 86_400 + second
export const momentAt = (seconds: number): Moment => ({
  day: floorDiv(seconds, 86_400),
  second: floorMod(seconds, 86_400),
})

function offsetOf(component: Component, name: string): number {
  const value = String(propertyOf(component, name)?.values[0] ?? '')
  const match = /^([+-])(\d\d):(\d\d)(?::(\d\d))?$/.exec(value)
  if (!match) throw new Error(`${name} is missing or no offset`)
  return (
    (match[1] === '-' ? -1 : 1) * (Number(match[2]) * 3600 + Number(match[3]) * 60 + Number(match[4] ?? 0))
  )
}

/** No zone there is has changed its clocks so often. */
const mostChanges = 2000

/** A VTIMEZONE (RFC 5545 §3.6.5), its changes worked out up to a year. @throws Error where it says nothing that can be used. */
export function zoneOf(component: Component, toYear: number, budget: Budget): StreamZone {
  const changes: { wall: number; instant: number; before: number; after: number }[] = []
  for (const part of component.parts) {
    if (part.name !== 'STANDARD' && part.name !== 'DAYLIGHT') continue
    const before = offsetOf(part, 'TZOFFSETFROM')
    const after = offsetOf(part, 'TZOFFSETTO')
    const start = stampOfValue(propertyOf(part, 'DTSTART')?.values[0])
    if (!start) throw new Error('DTSTART of a part is missing or no date-time')
    const add = (moment: Moment) => {
      if (changes.length >= mostChanges) throw new Error(`changes its offset more than ${mostChanges} times`)
      changes.push({ wall: secondsOf(moment), instant: secondsOf(moment) - before, before, after })
    }
    add(start.moment)
    const rule = propertyOf(part, 'RRULE')
    if (rule)
      for (const moment of occurrences(
        ruleOf(rule.values[0] as Record<string, unknown>, stamp =>
          stamp.kind === 'utc' ? momentAt(secondsOf(stamp.moment) + before) : stamp.moment,
        ),
        start.moment,
        start.moment.day,
        dayOfCivil(toYear + 1, 1, 1),
        budget,
      ))
        add(moment)
    for (const property of propertiesOf(part, 'RDATE'))
      for (const value of property.values) {
        const stamp = stampOfValue(value)
        if (stamp) add(stamp.moment)
      }
  }
  if (changes.length === 0) throw new Error('has neither STANDARD nor DAYLIGHT')
  changes.sort((a, b) => a.instant - b.instant)
  const at = (key: 'wall' | 'instant', value: number): number => {
    let low = 0
    let high = changes.length
    while (low < high) {
      const middle = (low + high) >> 1
      if (present(changes[middle])[key] <= value) low = middle + 1
      else high = middle
    }
    return low === 0 ? present(changes[0]).before : present(changes[low - 1]).after
  }
  return { atWall: wall => at('wall', secondsOf(wall)), atInstant: seconds => at('instant', seconds) }
}
