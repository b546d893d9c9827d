import type { UploadReply } from '~~/shared/api/uploads'

export const stateWords: Record<UploadReply['state'], string> = {
  waiting: 'waits to be read',
  reading: 'being read',
  read: 'read; nothing is stored yet',
  refused: 'refused',
  failed: 'could not be read',
  taking: 'being taken in',
  taken: 'taken in',
}
const formats = {
  'common-cartridge': 'Common Cartridge',
  oneroster: 'OneRoster bundle',
  icalendar: 'iCalendar file',
}
/** `Common Cartridge 1.3` */
export const formatText = (report: NonNullable<UploadReply['report']>): string =>
  [report.format ? formats[report.format] : report.table ? 'Table of dates' : 'File', report.version]
    .filter(Boolean)
    .join(' ')

const parts: Record<string, [string, string]> = {
  unit: ['unit', 'units'],
  heading: ['heading', 'headings'],
  page: ['page', 'pages'],
  file: ['file', 'files'],
  weblink: ['web link', 'web links'],
  topic: ['discussion', 'discussions'],
  assessment: ['quiz', 'quizzes'],
  bank: ['question bank', 'question banks'],
  lti: ['tool link', 'tool links'],
  assignment: ['assignment', 'assignments'],
  events: ['event', 'events'],
  rows: ['row', 'rows'],
}
/** `7 units, 92 pages` */
export const countsText = (counts: Record<string, number>): string =>
  Object.entries(counts)
    .filter(([, n]) => n > 0)
    .map(([name, n]) => (parts[name] ? counted(n, ...parts[name]) : `${name} ${numberText(n)}`))
    .join(', ')
export const partWord = (kind: string): string => parts[kind]?.[0] ?? kind
/** Kinds of an outline as the marks know them. */
export const markKinds: Record<string, string> = { assessment: 'quiz', topic: 'discussion', lti: 'tool' }
