import type { NameValue, Reason } from './draft'
import { dayText, momentText, weekdayName } from './words'

type Names = Readonly<Record<string, NameValue>>
type Writer = (reason: Reason, names: Names) => string

const count = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`
const day = (value: NameValue | undefined): string =>
  value === null || value === undefined ? '' : dayText(String(value))
const slotWord = (slot: NameValue | undefined): string =>
  slot === 'opens' ? 'opening' : slot === 'closes' ? 'closing' : 'due date'
/** `is Victoria Day`, `is in Spring closure (Fri 26 Mar to Mon 29 Mar)` */
const isClosed = (names: Names): string =>
  names.from === names.to
    ? `is ${names.closure || 'closed'}`
    : `is in ${names.closure || 'a closure'} (${day(names.from)} to ${day(names.to)})`
const distance = (names: Names, after: string, before: string, on: string): string => {
  const days = Number(names.days)
  return days === 0 ? on : days > 0 ? `${count(days, 'day')} ${after}` : `${count(-days, 'day')} ${before}`
}

/** A writer for each code that a method or step notes: one or two short sentences with absolute dates. */
const writers: Record<string, Writer> = {
  'keep-week': ({ before, after }, names) => {
    const was =
      Number(names.breakWeek) > 0
        ? `Was ${day(before)}, the ${weekdayName(Number(names.was))} of a week without classes after teaching week ${names.week}.`
        : `Was ${day(before)}, the ${weekdayName(Number(names.was))} of teaching week ${names.week}.`
    const turned =
      names.weekday === names.was
        ? ''
        : ` ${weekdayName(Number(names.was))}’s work becomes ${weekdayName(Number(names.weekday))}’s.`
    const starts =
      Number(names.breakWeek) > 0
        ? `The week so many after teaching week ${names.landing} starts ${day(names.weekStarts)}`
        : names.landing === names.week
          ? `Teaching week ${names.week} starts ${day(names.weekStarts)}`
          : `The new term has ${count(Number(names.landing), 'teaching week')}; the last starts ${day(names.weekStarts)}`
    return `${was}${turned} ${starts}, so it lands on ${day(after)}.`
  },
  offset: ({ before, after }, names) => {
    const how =
      names.how === 'given'
        ? 'the distance that was asked for'
        : names.how === 'whole-weeks'
          ? 'the distance between the first days of classes, in whole weeks'
          : 'the distance between the first days of classes'
    const days = Number(names.days)
    return `Was ${day(before)}. ${count(Math.abs(days), 'day')} ${days < 0 ? 'earlier' : 'later'}, ${how}, is ${day(after)}.`
  },
  'weekday-table': ({ after }, names) =>
    `${weekdayName(Number(names.was))}’s work becomes ${weekdayName(Number(names.weekday))}’s: ${day(after)} of that week.`,
  'stretch-calendar': ({ before, after }, names) =>
    `Was ${day(before)}, ${count(Number(names.days), 'day')} into the ${names.of} of classes. The same share of ${names.ofTarget} days is ${day(after)}.`,
  'stretch-teaching': ({ before, after }, names) =>
    `Was ${day(before)}, ${residual(names)}class day ${names.index} of ${names.of}. Class day ${names.landing} of ${names.ofTarget} gives ${day(after)}.`,
  'nearest-weekday': ({ after }, names) =>
    `The nearest ${weekdayName(Number(names.weekday))} is ${day(after)}.`,
  meetings: ({ before, after }, names) =>
    `Was ${day(before)}, ${residual(names)}class meeting ${names.index} of ${names.of}. Meeting ${names.landing} of ${names.ofTarget} gives ${day(after)}.`,
  'no-meetings': (_, names) =>
    `The ${names.side === 'source' ? 'old' : 'new'} section has no class meetings, so the teaching week decides.`,
  anchor: ({ before, after }, names) =>
    `Was ${day(before)}, ${distance(names, 'after', 'before', 'on the day of')} “${names.milestone}”. That is ${day(names.anchor)} now, which gives ${day(after)}.`,
  'no-milestone': (_, names) =>
    `The ${names.side === 'source' ? 'old' : 'new'} term has no milestone “${names.milestone}”, so the teaching week decides.`,
  pattern: ({ slot, after }, names) => {
    const week =
      names.wanted === names.week
        ? `teaching week ${names.week}`
        : `teaching week ${names.week}, the last, in place of week ${names.wanted}`
    return `Unit ${names.unit}: ${slotWord(slot)} on the ${weekdayName(Number(names.weekday))} of ${week}, which starts ${day(names.weekStarts)}: ${momentText(after!)}.`
  },
  eased: ({ before, after }, names) => {
    const why =
      names.why === 'crowd'
        ? `${count(Number(names.sameDay), 'item')} were due on ${day(before)}, and ${names.perDay} a day is the limit.`
        : names.why === 'day'
          ? `${day(before)} is no day that work may be due on.`
          : `It makes room for what lies around ${day(before)}.`
    return `${why} Moved by ${count(Math.abs(Number(names.days)), 'day')} to ${day(after)}.`
  },
  span: ({ slot, after }) =>
    slot === 'opens'
      ? `Opens on the first day of classes, ${day(after)}.`
      : `${slot === 'due' ? 'Due' : 'Closes'} on the last day of classes, ${day(after)}.`,
  none: ({ before }) => `Was ${momentText(before!)}. The rule gives no dates.`,
  'always-open': ({ before }) => `Was ${momentText(before!)}. The rule keeps this always open.`,
  'set-by-hand': ({ slot, before, after }) => {
    const was = before === null ? 'It had none.' : `It was ${momentText(before)}.`
    return after === null
      ? `No ${slotWord(slot)}, by hand. ${was}`
      : `Held at ${momentText(after)} by hand. ${was}`
  },
  'from-exams': ({ before, after }, names) =>
    `Was ${day(before)}, ${distance(names, 'after exams began', 'before exams began', 'the first day of exams')}. Exams now begin ${day(names.anchor)}, which gives ${day(after)}.`,
  'no-exams': ({ before, after }, names) =>
    `Was ${day(before)}, in the exam period. ${names.term} has none, so it goes to the last day of classes, ${day(after)}.`,
  'past-exams': ({ before, after }) =>
    `${day(before)} is past the end of exams, so it is ${day(after)}, their last day.`,
  'after-classes': ({ before, after }, names) =>
    `Was ${day(before)}, ${distance(names, 'after classes ended', 'before classes ended', 'the last day of classes')}. Classes now end ${day(names.anchor)}, which gives ${day(after)}.`,
  'before-classes': ({ before, after }, names) =>
    `Was ${day(before)}, ${count(Number(names.days), 'day')} before the first teaching week. That week now starts ${day(names.anchor)}, which gives ${day(after)}.`,
  'before-start': ({ before, after }, names) =>
    `${day(before)} is before classes start on ${day(names.start)}, so it is ${day(after)}, the first class day.`,
  'past-end': ({ before, after }, names) =>
    `${day(before)} is after classes end on ${day(names.end)}, so it is ${day(after)}, the last class day.`,
  'swap-day': ({ before, after }, names) =>
    `${day(before)} ${isClosed(names)}; ${day(after)} runs on a ${weekdayName(Number(names.weekday))} timetable.`,
  'closure-moved': ({ before, after }, names) =>
    `${day(before)} ${isClosed(names)}. The ${names.policy === 'next' ? 'next' : names.policy === 'previous' ? 'last' : 'nearest'} usable day ${names.policy === 'previous' ? 'before it ' : ''}is ${day(after)}.`,
  'on-closure': ({ after }, names) =>
    names.policy === 'keep'
      ? `${day(after)} ${isClosed(names)}, and it stays there by the rule.`
      : `${day(after)} ${isClosed(names)}, and no usable day is near.`,
  'time-kept': ({ after }) => `The time is kept, ${after!.slice(11)}.`,
  'time-given': ({ after }) => `The rule sets the time, ${after!.slice(11)}.`,
  'time-of-span': ({ after }) => `From the first minute to the last: ${after!.slice(11)}.`,
  'class-start': ({ after }) => `Class starts at ${after!.slice(11)} that day.`,
  'class-end': ({ after }) => `Class ends at ${after!.slice(11)} that day.`,
  'no-meeting-that-day': ({ after }) =>
    `There is no class meeting that day, so the time is kept, ${after!.slice(11)}.`,
  reordered: ({ slot, before, after }, names) =>
    `${momentText(before!)} would be ${slot === 'opens' ? 'after' : 'before'} the ${slotWord(names.other)}, so it keeps its old distance from it: ${momentText(after!)}.`,
  'source-inverted': (_, names) =>
    `It was before the ${slotWord(names.other)} in the old course already, and is left so.`,
  'dst-gap': ({ before, after }, names) =>
    `Clocks skip ${momentText(before!)} in ${names.timeZone}, so it is ${momentText(after!)}.`,
  'dst-overlap': ({ after }, names) =>
    `${momentText(after!)} occurs twice in ${names.timeZone}; it is the earlier.`,
}
const residual = (names: Names): string => {
  const days = Number(names.residual)
  return days === 0 ? '' : days > 0 ? `${count(days, 'day')} after ` : `${count(-days, 'day')} before `
}

/** One reason as a plain sentence or two. */
export function sentence(reason: Reason): string {
  const writer = writers[reason.code]
  if (!writer) throw new Error(`no sentence for the reason ${reason.code}`)
  return writer(reason, reason.names ?? {})
}

/** Short name of how a date came to be, for a table's last column. */
export function shortHow(reasons: readonly Reason[]): string {
  const codes = new Set(reasons.map(reason => reason.code))
  if (codes.has('set-by-hand')) return 'held'
  const placed: [string, string][] = [
    ['reordered', 'kept in order'],
    ['swap-day', 'changed timetable'],
    ['closure-moved', 'off a closure'],
    ['on-closure', 'on a closure'],
    ['past-end', 'past the end'],
    ['past-exams', 'past the end'],
    ['before-start', 'before the start'],
    ['no-exams', 'no exam period'],
    ['keep-week', 'week and weekday'],
    ['offset', 'same distance'],
    ['stretch-calendar', 'stretched'],
    ['stretch-teaching', 'stretched'],
    ['meetings', 'class meeting'],
    ['anchor', 'by milestone'],
    ['span', 'all term'],
    ['from-exams', 'by exam day'],
    ['after-classes', 'after classes'],
    ['before-classes', 'before classes'],
    ['none', 'no dates'],
    ['always-open', 'always open'],
  ]
  return placed.find(([code]) => codes.has(code))?.[1] ?? ''
}
