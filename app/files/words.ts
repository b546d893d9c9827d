import { itemKinds, type ItemKind } from '~~/core/course/model'
import { itemKindDefinitions } from '~~/core/course/kinds'
import type { GatherReply } from '~~/shared/api/gathering'
import type { UploadReply } from '~~/shared/api/uploads'

export const stateWords: Record<UploadReply['state'], string> = {
  waiting: 'waits to be read',
  reading: 'being read',
  read: 'read; nothing is stored yet',
  refused: 'refused',
  failed: 'could not be read',
  importing: 'being brought in',
  imported: 'brought in',
}
const formats = {
  'common-cartridge': 'Common Cartridge',
  oneroster: 'OneRoster bundle',
  icalendar: 'iCalendar file',
  'term-calendar': 'Term calendar (JSON)',
  'course-json': 'Course JSON',
}
/** `Common Cartridge 1.3` */
export const formatText = (report: NonNullable<UploadReply['report']>): string =>
  [report.format ? formats[report.format] : report.table ? 'Table of dates' : 'File', report.version]
    .filter(Boolean)
    .join(' ')

/** The kind of item that a part of a course package becomes; null for a unit, and for what is no part of a course. */
export const kindInPackage = (part: string): ItemKind | null =>
  itemKinds.find(kind => itemKindDefinitions[kind].inCartridge === part) ?? null

const otherWords: Record<string, readonly [one: string, many: string]> = {
  unit: ['unit', 'units'],
  events: ['event', 'events'],
  rows: ['row', 'rows'],
  closures: ['closure', 'closures'],
  milestones: ['milestone', 'milestones'],
  items: ['item', 'items'],
  categories: ['grade category', 'grade categories'],
  meetings: ['weekly meeting', 'weekly meetings'],
}
function partWords(part: string): readonly [one: string, many: string] {
  const kind = kindInPackage(part)
  return kind ? kindWords(kind) : (otherWords[part] ?? [part, part])
}
export const partWord = (part: string): string => partWords(part)[0]
/** `7 units, 92 pages` */
export const countsText = (counts: Record<string, number>): string =>
  Object.entries(counts)
    .filter(([, n]) => n > 0)
    .map(([part, n]) => counted(n, ...partWords(part)))
    .join(', ')

/** Why a package, or a file, is thought to be of a course that is there. */
export function belongsText({ why, items, isEmpty }: GatherReply['courses'][number]): string {
  const whyText = {
    chosen: 'you chose it',
    class: 'a file names this class',
    items: `${counted(items, 'item', 'items')} of the package ${items === 1 ? 'is' : 'are'} in it`,
    code: 'the same code',
    title: 'the same title',
  }[why]
  return isEmpty ? `${whyText}; it holds nothing yet` : whyText
}
