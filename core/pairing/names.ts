import { meetingText } from '../dates/words'
import type { Meeting } from '../calendar/schema'

const copies = [
  /^\s*(copy|kopie|copie|copia)\s+(of|von|de)\s+/i,
  /\s*[-–(\[]*\s*\bcopy\b(\s*\d+)?\s*[)\]]*\s*$/i,
]
const termName = /\s*[-–,(\[]*\s*\b(spring|summer|autumn|fall|winter)\s+(19|20)\d\d\b\s*[)\]]*/gi

const sameWords = (a: string, b: string): boolean =>
  a
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim() ===
  b
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()
/** The name of another term that a title holds, as it stands there; null where it holds none but its own. */
const otherTerm = (title: string, term: string): string | null =>
  [...title.matchAll(termName)]
    .map(([found]) => found.replace(/^[\s–,([-]+|[\s)\]]+$/g, ''))
    .find(found => !sameWords(found, term)) ?? null
/** A title without what copying leaves behind: “Copy of”, “(copy 2)”, the name of another term. Many put this term there, and mean it. */
export function cleanTitle(title: string, term = ''): string {
  let clean = title.trim()
  for (let before = ''; before !== clean;) {
    before = clean
    for (const pattern of copies) clean = clean.replace(pattern, '')
    if (before === clean)
      clean = clean
        .replace(termName, found => (sameWords(found, term) ? found : ''))
        .replace(/^[\s–,:-]+|[\s–,:-]+$/g, '')
        .replace(/\s+/g, ' ')
  }
  return clean === '' ? title.trim() : clean
}

export interface Named {
  readonly id: string
  readonly title: string
  readonly label: string | null
  /** The name of its term: in a title, that is no fault. */
  readonly term?: string
}
/** What is wrong with a course's names beside the others of its term: students must be able to tell them apart. */
export function nameFaults(
  course: Named,
  others: readonly Pick<Named, 'id' | 'title' | 'label'>[],
): { field: 'title' | 'label'; message: string }[] {
  const faults: { field: 'title' | 'label'; message: string }[] = []
  const same = (text: string): string => text.normalize('NFKC').toLowerCase().replace(/\s+/g, ' ').trim()
  if (course.title.trim() === '')
    faults.push({ field: 'title', message: 'The title is empty. Students see it.' })
  const term = course.term ?? ''
  if (cleanTitle(course.title, term) !== course.title.replace(/\s+/g, ' ').trim()) {
    const other = otherTerm(course.title, term)
    const left = other ? `The title names another term, ${other}.` : 'The title still says “Copy”.'
    faults.push({ field: 'title', message: `${left} Without it: “${cleanTitle(course.title, term)}”.` })
  }
  const twin = others.find(
    other =>
      other.id !== course.id &&
      same(other.title) === same(course.title) &&
      same(other.label ?? '') === same(course.label ?? ''),
  )
  if (twin)
    faults.push({
      field: 'label',
      message: course.label
        ? `Another section with this title has the label “${course.label}” too.`
        : 'Another section of this term has the same title. A label tells students which is theirs.',
    })
  return faults
}

export interface SectionToName {
  readonly id: string
  readonly section: string
  readonly meetings: readonly Pick<Meeting, 'weekday' | 'start'>[]
}
/**
 * Labels by which sections of one class can be told apart, from their meeting times: the days alone where that is enough, else with the
 * times, else with the section's number. No two are the same where the numbers differ.
 */
export function sectionLabels(sections: readonly SectionToName[]): Map<string, string> {
  const days = (section: SectionToName): string => meetingText(section.meetings).replace(/ \d\d:\d\d/g, '')
  const times = (section: SectionToName): string => meetingText(section.meetings)
  const withNumber = (section: SectionToName): string =>
    [times(section), section.section && `section ${section.section}`].filter(Boolean).join(', ')
  const once = (of: (section: SectionToName) => string, section: SectionToName): boolean =>
    of(section) !== '' && sections.filter(other => of(other) === of(section)).length === 1
  return new Map(
    sections.map(section => [
      section.id,
      [days, times].find(of => once(of, section))?.(section) ?? withNumber(section),
    ]),
  )
}
