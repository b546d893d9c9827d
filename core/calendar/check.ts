import { faultsFrom, type FaultOf } from '../fault'
import { inOurWords } from '../schema-words'
import { present } from '../present'
import { z } from 'zod'
import { dayOf, weekdayOf } from './day'
import { termCalendar, type TermCalendar } from './schema'

const sentences = {
  missing: () => 'is missing',
  'no-calendar': () => 'must be a term calendar',
  'zone-unknown': ({ timeZone }: { timeZone: string }) => `${timeZone} is not a time zone that exists`,
  'exams-among-classes': ({ from, classesTo }: { from: string; classesTo: string }) =>
    `${from} is not after the last day of classes, ${classesTo}`,
  'timetable-twice': ({ key }: { key: string }) => `${key} has a changed timetable already`,
  'milestone-twice': ({ key }: { key: string }) => `${key} is the key of another milestone too`,
  'no-class-day': () =>
    'holds no class day: no teaching weekday is left between its ends outside the closures',
}
const fault = faultsFrom(sentences)
type CalendarFault = FaultOf<typeof sentences>
/** Something wrong: the path to the field, what it is, and a sentence that follows the field. What a schema finds has the code that Zod gives it. */
export interface Fault {
  readonly path: readonly (string | number)[]
  readonly code: CalendarFault['code'] | 'item-twice' | z.core.$ZodIssue['code']
  readonly message: string
}

/** Zod's issues as faults below a path; a key that is wrong is told as what is wrong with it. */
export function faultsOf(error: z.ZodError, below: readonly (string | number)[] = []): Fault[] {
  return error.issues.map(issue => ({
    path: [...below, ...issue.path.map(key => (typeof key === 'number' ? key : String(key)))],
    code: issue.code,
    message: issue.code === 'invalid_key' ? present(issue.issues[0]).message : issue.message,
  }))
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/**
 * Checks a term calendar field by field, in the order of `docs/dates.md`, each field's shape before its sense, so that the
 * first fault returned is the first in that order even where several fields are wrong. `isTimeZone` comes from outside: zone
 * data do.
 */
export function checkCalendar(
  input: unknown,
  isTimeZone: (zone: string) => boolean,
): { calendar: TermCalendar; faults: [] } | { calendar: null; faults: Fault[] } {
  if (!isRecord(input))
    return {
      calendar: null,
      faults: [{ ...fault(input === undefined || input === null ? 'missing' : 'no-calendar'), path: [] }],
    }
  const faults: Fault[] = []
  const parsed: { [K in keyof TermCalendar]?: TermCalendar[K] } = {}
  const read = <K extends keyof TermCalendar>(key: K): TermCalendar[K] | undefined => {
    const result = termCalendar.shape[key].safeParse(input[key], { error: inOurWords })
    if (result.success) return (parsed[key] = result.data as TermCalendar[K])
    faults.push(...faultsOf(result.error, [key]))
    return undefined
  }
  const say = (path: (string | number)[], found: CalendarFault): void => {
    faults.push({ ...found, path })
  }
  const twice = <T>(
    entries: readonly T[],
    key: (entry: T) => string,
    path: (at: number) => (string | number)[],
    code: 'timetable-twice' | 'milestone-twice',
  ): void => {
    const seen = new Set<string>()
    entries.forEach((entry, at) => {
      if (seen.has(key(entry))) say(path(at), fault(code, { key: key(entry) }))
      seen.add(key(entry))
    })
  }
  read('id')
  read('name')
  const timeZone = read('timeZone')
  if (timeZone !== undefined && !isTimeZone(timeZone)) say(['timeZone'], fault('zone-unknown', { timeZone }))
  const classes = read('classes')
  const afterClasses = faults.length
  const exams = read('exams')
  if (exams && classes && exams.from <= classes.to)
    say(['exams', 'from'], fault('exams-among-classes', { from: exams.from, classesTo: classes.to }))
  const teachingWeekdays = read('teachingWeekdays')
  read('weekStart')
  const closures = read('closures')
  const runsAs = read('runsAs')
  if (runsAs)
    twice(
      runsAs,
      entry => entry.date,
      at => ['runsAs', at, 'date'],
      'timetable-twice',
    )
  const milestones = read('milestones')
  if (milestones)
    twice(
      milestones,
      entry => entry.key,
      at => ['milestones', at, 'key'],
      'milestone-twice',
    )
  read('gradingPeriods')
  if (
    classes &&
    teachingWeekdays &&
    closures &&
    runsAs &&
    !hasClassDay({ classes, teachingWeekdays, closures, runsAs })
  )
    faults.splice(afterClasses, 0, { ...fault('no-class-day'), path: ['classes'] })
  return faults.length > 0 ? { calendar: null, faults } : { calendar: parsed as TermCalendar, faults: [] }
}

function hasClassDay(
  calendar: Pick<TermCalendar, 'classes' | 'teachingWeekdays' | 'closures' | 'runsAs'>,
): boolean {
  const last = dayOf(calendar.classes.to)
  const runsAs = new Map(calendar.runsAs.map(entry => [dayOf(entry.date), entry.weekday]))
  const closed = calendar.closures.map(closure => [dayOf(closure.from), dayOf(closure.to)] as const)
  for (let day = dayOf(calendar.classes.from); day <= last; day++) {
    const within = closed.find(([from, to]) => day >= from && day <= to)
    if (within) {
      day = within[1]
      continue
    }
    if (calendar.teachingWeekdays.includes(runsAs.get(day) ?? weekdayOf(day))) return true
  }
  return false
}
