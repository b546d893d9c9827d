import { messageOf } from '../../message'
import { present } from '../../present'
import ICAL from 'ical.js'
import { civilOfDay, isoOf, type Day } from '../../calendar/day'
import { occurrences, type Budget, type Moment, type RecurrenceRule } from '../../calendar/recurrence'
import { findingList, type Finding, type FindingList } from '../findings'
import { readLimits, type ReadLimits } from '../limits'
import { FormatRefusal } from '../refusal'
import type { CalendarEvent } from '../report'
import { oneLine, tableText } from '../text'
import {
  componentsOf,
  propertiesOf,
  propertyOf,
  wholeCharacters,
  type Component,
  type Property,
} from './lines'
import { ruleOf, stampOfValue, type Stamp } from './rule'
import { momentAt, secondsOf, zoneOf, type StreamZone } from './zones'

export interface CalendarOptions {
  /** First and last day that matter. Without them everything is read, and an endless rule is cut 366 days after its start. */
  from?: Day | null
  to?: Day | null
  limits?: ReadLimits
  /** Wall clock, where the reader is, of an instant in seconds since 1970; without it days of UTC times are those in UTC. */
  local?: ((seconds: number) => Moment) | null
  progress?: (done: number, total: number) => void
}
export interface CalendarRead {
  events: CalendarEvent[]
  counts: Record<string, number>
  findings: Finding[]
}

/** Days after its start at which an endless rule is cut where no range is given. */
export const endlessDays = 366
/** Steps for all rules of one stream together. */
const steps = 10_000_000
const titleKept = 500

/** An event before its rule is worked out. Moments are wall clock in its own zone; `length` is days (whole days) or seconds. */
interface Entry {
  uid: string
  /** Where it stands, for a finding. */
  where: string
  title: string
  line: number
  start: Stamp
  zone: StreamZone | null
  allDay: boolean
  length: number
  rule: RecurrenceRule | null
  extra: { start: Stamp; zone: StreamZone | null; length: number | null }[]
  without: { stamp: Stamp; zone: StreamZone | null }[]
  replaces: { stamp: Stamp; zone: StreamZone | null } | null
  cancelled: boolean
}

/**
 * Reads an iCalendar stream (RFC 5545): events of whole days and timed ones, rules worked out, each as title, first day and last
 * day. Times are taken as the wall clock of the zone they are given in.
 * @throws FormatRefusal where it is no such stream, or over the limits.
 */
export function readCalendar(
  file: string,
  bytes: Uint8Array,
  { from = null, to = null, limits = readLimits, local = null, progress = () => {} }: CalendarOptions = {},
): CalendarRead {
  if (bytes.length > limits.textBytes) throw new FormatRefusal('too-large', file, { bytes: limits.textBytes })
  const findings = findingList(limits.findings)
  // A fold may stand within a character, since lines are folded as bytes (RFC 5545 §3.1).
  const { text, encoding } = tableText(file, wholeCharacters(bytes))
  if (encoding !== null) findings.add('encoding', file, { encoding })

  const zoneParts = new Map<string, Component>()
  const found: Component[] = []
  const others: Record<string, number> = {}
  componentsOf(file, text, component => {
    if (component.name === 'VEVENT') {
      if (found.push(component) > limits.events)
        throw new FormatRefusal('too-many-events', file, { most: limits.events })
    } else if (component.name === 'VTIMEZONE') {
      const id = component.lines
        .get('TZID')?.[0]
        ?.text.replace(/^[^:]*:/, '')
        .trim()
      if (id) zoneParts.set(id, component)
    } else others[component.name] = (others[component.name] ?? 0) + 1
  })
  for (const [component, count] of Object.entries(others))
    findings.add('not-events', file, { component, count })

  const budget: Budget = { left: steps }
  const zoneCache = new Map<string, StreamZone | null>()
  const lastYear = to === null ? 2100 : civilOfDay(to).year + 1
  const zone = (id: string | undefined, line: number): StreamZone | null => {
    if (!id) return null
    let known = zoneCache.get(id)
    if (known === undefined) {
      const part = zoneParts.get(id)
      known = null
      try {
        if (part) known = zoneOf(part, lastYear, budget)
        else findings.add('zone-unknown', `${file} line ${line}`, { zone: id })
      } catch (error) {
        findings.add('zone-unreadable', `${file} line ${present(part).line}`, {
          zone: id,
          why: messageOf(error),
        })
      }
      zoneCache.set(id, known)
    }
    return known
  }

  const entries: Entry[] = []
  let utc = 0
  found.forEach((component, at) => {
    if (at % 5000 === 0) progress(at, found.length * 2)
    try {
      const entry = entryOf(component, zone, findings, file)
      if (entry.start.kind === 'utc') utc++
      entries.push(entry)
    } catch (error) {
      const title = oneLine(rawText(component, 'SUMMARY'))
      findings.add('event-unreadable', placeOf(file, component), { title, why: messageOf(error) })
    }
  })
  if (utc > 0 && local === null) findings.add('in-utc', file, { events: utc })

  const replaced = new Map<string, Entry[]>()
  for (const entry of entries)
    if (entry.replaces) replaced.set(entry.uid, [...(replaced.get(entry.uid) ?? []), entry])
  const first = new Map<string, Entry>()
  for (const entry of entries) {
    if (entry.replaces) continue
    const other = first.get(entry.uid)
    if (!other) first.set(entry.uid, entry)
    else
      findings.add('uid-twice', entry.where, {
        title: entry.title,
        other: other.title,
        otherLine: other.line,
      })
  }
  const events: CalendarEvent[] = []
  let outside = 0
  let cut = 0
  let cancelled = 0
  const put = (entry: Entry, start: Moment, length: number, alone = false): void => {
    const firstDay = start.day
    // DTEND is exclusive: of whole days, and at midnight (RFC 5545 §3.6.1).
    const lastDay = Math.max(
      firstDay,
      entry.allDay
        ? firstDay + length - 1
        : Math.floor((secondsOf(start) + Math.max(length - 1, 0)) / 86_400),
    )
    if ((from !== null && lastDay < from) || (to !== null && firstDay > to)) {
      if (alone) outside++
      return
    }
    if (lastDay - firstDay > 3660 || lastDay > 2_932_896) {
      findings.add('too-long', entry.where, { title: entry.title })
      return
    }
    if (events.length >= limits.events)
      throw new FormatRefusal('makes-too-many-events', file, { most: limits.events })
    events.push({ title: entry.title, firstDay: isoOf(firstDay), lastDay: isoOf(lastDay) })
  }
  const localStart = (entry: Entry, start: Moment): Moment =>
    entry.start.kind === 'utc' && local !== null ? local(secondsOf(start)) : start
  const absent = absences(replaced)
  entries.forEach((entry, at) => {
    if (at % 5000 === 0) progress(entries.length + at, entries.length * 2)
    if (entry.cancelled) {
      cancelled++
      return
    }
    const isWithout = absent(entry)
    if (!entry.rule && entry.extra.length === 0) {
      if (!isWithout(entry.start.moment))
        put(entry, localStart(entry, entry.start.moment), entry.length, true)
      return
    }
    const endless = entry.rule !== null && entry.rule.count === null && entry.rule.until === null
    const last = to ?? (endless ? entry.start.moment.day + endlessDays : 2_932_896)
    if (endless && to === null) cut++
    let made = 0
    const seen = new Set<number>()
    const one = (start: Moment, length: number): void => {
      const key = secondsOf(start)
      if (seen.has(key) || isWithout(start)) return
      seen.add(key)
      put(entry, localStart(entry, start), length)
    }
    const { where } = entry
    if (entry.rule) {
      const { moment } = entry.start
      const [first] = occurrences(entry.rule, moment, moment.day, moment.day, budget)
      if (first?.day !== moment.day) findings.add('rule-without-start', where, { title: entry.title })
      for (const start of occurrences(
        entry.rule,
        entry.start.moment,
        from === null
          ? entry.start.moment.day
          : from - Math.ceil(entry.length / (entry.allDay ? 1 : 86_400)) - 1,
        last,
        budget,
      )) {
        if (++made > limits.occurrences) {
          findings.add('too-often', where, { title: entry.title, most: limits.occurrences })
          break
        }
        one(start, entry.length)
      }
      if (budget.left <= 0) throw new FormatRefusal('rules-too-long', where)
    } else one(entry.start.moment, entry.length)
    for (const more of entry.extra) one(inZone(more.start, more.zone, entry), more.length ?? entry.length)
  })
  if (cut > 0) findings.add('endless', file, { rules: cut, days: endlessDays })
  if (outside > 0) findings.add('outside', file, { events: outside })
  if (cancelled > 0) findings.add('cancelled', file, { events: cancelled })
  if (found.length === 0) findings.add('no-event', file)
  events.sort((a, b) => (a.firstDay < b.firstDay ? -1 : a.firstDay > b.firstDay ? 1 : 0))
  return { events, counts: { events: events.length }, findings: findings.all() }
}

/** A stamp in the wall clock of an event's own zone. */
function inZone(stamp: Stamp, zone: StreamZone | null, entry: Pick<Entry, 'start' | 'zone'>): Moment {
  if (stamp.kind === 'date' || (stamp.kind === entry.start.kind && zone === entry.zone)) return stamp.moment
  const instant =
    stamp.kind === 'utc'
      ? secondsOf(stamp.moment)
      : zone
        ? secondsOf(stamp.moment) - zone.atWall(stamp.moment)
        : null
  if (instant === null) return stamp.moment
  if (entry.start.kind === 'utc') return momentAt(instant)
  return entry.zone ? momentAt(instant + entry.zone.atInstant(instant)) : momentAt(instant)
}

/** The days and moments (seconds of its own wall clock) at which an event does not take place. */
interface Gone {
  days: Set<Day>
  moments: Set<number>
}
function gone(entry: Entry, list: readonly { stamp: Stamp; zone: StreamZone | null }[]): Gone {
  const at: Gone = { days: new Set(), moments: new Set() }
  for (const { stamp, zone } of list) {
    // A date takes out what starts on that day.
    if (stamp.kind === 'date' || entry.allDay) at.days.add(inZone(stamp, zone, entry).day)
    else at.moments.add(secondsOf(inZone(stamp, zone, entry)))
  }
  return at
}

/** Tells whether an occurrence is taken out, by EXDATE or because another event of the same UID stands for it. */
function absences(replaced: ReadonlyMap<string, Entry[]>): (entry: Entry) => (start: Moment) => boolean {
  const nothing: Gone = { days: new Set(), moments: new Set() }
  // Events of one UID share what stands for them: a stream with one UID throughout must not take the square of its length.
  const shared = new Map<string, Map<StreamZone | null | 'utc', Gone>>()
  const standIns = (entry: Entry): Gone => {
    const others = entry.replaces === null ? replaced.get(entry.uid) : undefined
    if (!others) return nothing
    const byZone = shared.get(entry.uid) ?? new Map<StreamZone | null | 'utc', Gone>()
    shared.set(entry.uid, byZone)
    const key = entry.start.kind === 'utc' ? 'utc' : entry.zone
    const known =
      byZone.get(key) ??
      gone(
        entry,
        others.map(other => present(other.replaces)),
      )
    byZone.set(key, known)
    return known
  }
  return entry => {
    const own = entry.without.length > 0 ? gone(entry, entry.without) : nothing
    const theirs = standIns(entry)
    return start =>
      own.days.has(start.day) ||
      theirs.days.has(start.day) ||
      own.moments.has(secondsOf(start)) ||
      theirs.moments.has(secondsOf(start))
  }
}

/** The text of a property as it stands, unread. */
const rawText = (component: Component, name: string): string =>
  component.lines
    .get(name)?.[0]
    ?.text.replace(/^[^:]*:/, '')
    .trim() ?? ''
/** Where an event stands: its line, and its UID, by which its maker knows it. */
function placeOf(file: string, component: Component): string {
  const uid = rawText(component, 'UID')
  return `${file} line ${component.line}${uid ? `, UID ${uid.slice(0, 80)}` : ''}`
}
const dated = ['DTSTART', 'DTEND', 'RECURRENCE-ID', 'EXDATE', 'RDATE']
/** Values with a time though their property announces a DATE (RFC 5545 §3.3.4); what cannot be read at all is said elsewhere. */
function noPlainDates(component: Component): { property: string; value: string }[] {
  return dated.flatMap(property =>
    (component.lines.get(property) ?? []).flatMap(({ text }) => {
      const [head = '', value = ''] = [text.slice(0, text.indexOf(':')), text.slice(text.indexOf(':') + 1)]
      if (!/;VALUE=DATE(;|$)/i.test(head)) return []
      const wrong = value.split(',').find(each => /^\d{8}T/i.test(each.trim()))
      return wrong === undefined ? [] : [{ property, value: wrong }]
    }),
  )
}

function entryOf(
  component: Component,
  zone: (id: string | undefined, line: number) => StreamZone | null,
  findings: FindingList,
  file: string,
): Entry {
  const where = placeOf(file, component)
  const property = (name: string): Property | undefined => {
    try {
      return propertyOf(component, name)
    } catch (error) {
      throw new Error(`${name}: ${messageOf(error)}`, { cause: error })
    }
  }
  const stamp = (
    source: Property | undefined,
    value: unknown = source?.values[0],
  ): { stamp: Stamp; zone: StreamZone | null } | null => {
    const read = source && stampOfValue(value)
    return read
      ? { stamp: read, zone: read.kind === 'wall' ? zone(source.parameters.tzid, source.line) : null }
      : null
  }
  const startProperty = property('DTSTART')
  if (!startProperty) throw new Error('it has no DTSTART')
  const start = stamp(startProperty)
  if (!start)
    throw new Error(
      `DTSTART is no date: ${JSON.stringify(present(present(component.lines.get('DTSTART'))[0]).text.slice(0, 80))}`,
    )
  const allDay = start.stamp.kind === 'date'
  const text = oneLine(String(property('SUMMARY')?.values[0] ?? ''))
  const title =
    text.length > titleKept
      ? `${text.slice(0, titleKept - 1).replace(/[\uD800-\uDBFF]$/, '')}…`
      : text || 'Untitled'
  if (text.length > titleKept)
    findings.add('title-cut', where, { title: text, length: text.length, kept: titleKept })
  for (const wrong of noPlainDates(component)) findings.add('no-plain-date', where, { title, ...wrong })
  const own = { start: start.stamp, zone: start.zone }

  let length = allDay ? 1 : 0
  const endProperty = property('DTEND')
  const durationProperty = property('DURATION')
  if (endProperty) {
    const end = stamp(endProperty)
    if (!end) findings.add('end-unreadable', where, { title, allDay })
    else {
      const instant = (moment: Moment, kind: Stamp['kind'], at: StreamZone | null) =>
        secondsOf(moment) - (kind === 'wall' && at ? at.atWall(moment) : 0)
      const seconds =
        end.zone === start.zone
          ? secondsOf(end.stamp.moment) - secondsOf(start.stamp.moment)
          : instant(end.stamp.moment, end.stamp.kind, end.zone) -
            instant(start.stamp.moment, start.stamp.kind, start.zone)
      if (seconds < 0) findings.add('end-before-start', where, { title, allDay })
      else length = allDay ? Math.max(1, Math.ceil(seconds / 86_400)) : seconds
    }
  } else if (durationProperty) {
    const seconds = ICAL.Duration.fromString(String(durationProperty.values[0])).toSeconds()
    if (seconds < 0) findings.add('duration-below-zero', where, { title })
    else length = allDay ? Math.max(1, Math.ceil(seconds / 86_400)) : seconds
  }

  const ruleProperty = property('RRULE')
  const rule = ruleProperty
    ? ruleOf(ruleProperty.values[0] as Record<string, unknown>, until =>
        until.kind === 'date' && !allDay
          ? { day: until.moment.day, second: 86_399 }
          : inZone(until, null, own),
      )
    : null
  const extra = propertiesOf(component, 'RDATE').flatMap(more =>
    more.values.flatMap(value => {
      const [first, second] = Array.isArray(value) ? (value as [unknown, unknown]) : [value, null]
      const read = stamp(more, first)
      if (!read) {
        findings.add('rdate-unreadable', where, { title })
        return []
      }
      const end = second === null ? null : stampOfValue(second)
      const lasts =
        second === null
          ? null
          : end
            ? secondsOf(end.moment) - secondsOf(read.stamp.moment)
            : ICAL.Duration.fromString(String(second)).toSeconds()
      return [
        {
          start: read.stamp,
          zone: read.zone,
          length: lasts === null || lasts < 0 ? null : allDay ? Math.ceil(lasts / 86_400) : lasts,
        },
      ]
    }),
  )
  const without = propertiesOf(component, 'EXDATE').flatMap(gone =>
    gone.values.flatMap(value => {
      const read = stamp(gone, value)
      if (!read) findings.add('exdate-unreadable', where, { title })
      return read ? [read] : []
    }),
  )
  const recurrence = property('RECURRENCE-ID')
  return {
    uid: String(property('UID')?.values[0] ?? `line ${component.line}`),
    where,
    title,
    line: component.line,
    start: start.stamp,
    zone: start.zone,
    allDay,
    length,
    rule,
    extra,
    without,
    replaces: stamp(recurrence),
    cancelled: /^cancelled$/i.test(String(property('STATUS')?.values[0] ?? '')),
  }
}
