import { meetingText } from '../dates/words'
import { faultsFrom, type FaultOf } from '../fault'
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
/** A title without what copying leaves at its ends; null where it leaves nothing there. */
export function saysCopy(title: string): string | null {
  const clean = copies.reduce((text, pattern) => text.replace(pattern, ''), title).trim()
  return clean === title.trim() || clean === '' ? null : clean
}

export interface Named {
  readonly id: string
  readonly title: string
  readonly label: string | null
  /** The name of its term: in a title, that is no fault. */
  readonly term?: string
}
const sentences = {
  'title-empty': () => 'The title is empty. Students see it.',
  'title-says-copy': ({ clean }: { clean: string }) => `The title still says “Copy”. Without it: “${clean}”.`,
  'title-names-other-term': ({ term, clean }: { term: string; clean: string }) =>
    `The title names another term, ${term}. Without it: “${clean}”.`,
  'label-twice': ({ label }: { label: string }) =>
    `Another section with this title has the label “${label}” too.`,
  'label-missing': () =>
    'Another section of this term has the same title. A label tells students which is theirs.',
}
const fault = faultsFrom(sentences)
export type NameFault = FaultOf<typeof sentences> & { readonly field: 'title' | 'label' }
const same = (text: string): string => text.normalize('NFKC').toLowerCase().replace(/\s+/g, ' ').trim()
/** What is wrong with a course's names beside the others of its term: students must be able to tell them apart. */
export function nameFaults(
  course: Named,
  others: readonly Pick<Named, 'id' | 'title' | 'label'>[],
): NameFault[] {
  const faults: NameFault[] = []
  const { title, label, term = '' } = course
  if (title.trim() === '') faults.push({ ...fault('title-empty'), field: 'title' })
  const clean = cleanTitle(title, term)
  if (clean !== title.replace(/\s+/g, ' ').trim()) {
    const other = otherTerm(title, term)
    const left = other
      ? fault('title-names-other-term', { term: other, clean })
      : fault('title-says-copy', { clean })
    faults.push({ ...left, field: 'title' })
  }
  const twin = others.find(
    other =>
      other.id !== course.id &&
      same(other.title) === same(title) &&
      same(other.label ?? '') === same(label ?? ''),
  )
  if (twin)
    faults.push({ ...(label ? fault('label-twice', { label }) : fault('label-missing')), field: 'label' })
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
