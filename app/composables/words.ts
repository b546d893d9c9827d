import { dayText, meetingText, momentText, shortDay } from '~~/core/dates/words'
import { sizeText } from '~~/core/formats/limits'
import { pointsText } from '~~/core/grading/points'
import type { CourseLine } from '~~/shared/api/courses'

export { dayText, meetingText, momentText, pointsText, shortDay, sizeText }

const numbers = new Intl.NumberFormat('en')
export const numberText = (n: number): string => numbers.format(n)
/** `1 item`, `3 items` */
export const counted = (n: number, one: string, many = `${one}s`): string => `${numbers.format(n)} ${n === 1 ? one : many}`
/** `HYD 240-01` */
export const codeText = (course: Pick<CourseLine, 'code' | 'section'>): string => course.section ? `${course.code}-${course.section}` : course.code
/** `Autumn 2026 · 2 Sept – 4 Dec · Mon Wed Fri 09:30` */
export const courseFacts = (course: CourseLine): string =>
  [course.term.name, `${shortDay(course.term.classesFrom)} – ${shortDay(course.term.classesTo)}`, meetingText(course.meetings)].filter(Boolean).join(' · ')

const clock = new Map<string, Intl.DateTimeFormat>()
/** An instant as wall clock in a zone: `Tue 5 Jan 20:00`. */
export function instantText(instant: string, timeZone?: string): string {
  const key = timeZone ?? ''
  let formatter = clock.get(key)
  if (!formatter) clock.set(key, formatter = new Intl.DateTimeFormat('sv-SE', { timeZone, dateStyle: 'short', timeStyle: 'short' }))
  return momentText(formatter.format(new Date(instant)).replace(' ', 'T'))
}

export const kindWords: Record<string, [string, string]> = {
  assignment: ['assignment', 'assignments'], quiz: ['quiz', 'quizzes'], bank: ['question bank', 'question banks'], discussion: ['discussion', 'discussions'], page: ['page', 'pages'], file: ['file', 'files'], weblink: ['web link', 'web links'], tool: ['tool link', 'tool links'],
  announcement: ['announcement', 'announcements'], event: ['event', 'events'], poll: ['poll', 'polls'], survey: ['survey', 'surveys'], attendance: ['attendance list', 'attendance lists'], recording: ['recording', 'recordings'], heading: ['heading', 'headings'],
}
