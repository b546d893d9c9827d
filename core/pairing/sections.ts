import { faultsFrom, type FaultOf } from '../fault'

/** What is looked at in two shells that could share one content. `instructors` and `codeKey` as pairing knows them. */
export interface SectionToJoin {
  readonly codeKey: string
  readonly term: string
  readonly instructors: readonly string[]
}
/** What a section has that another's content cannot take the place of. */
export interface HeldBySection {
  /** Students on both rosters. */
  readonly overlap: number
  /** Titles of what somebody made or changed there, or brought from elsewhere. */
  readonly own: readonly string[]
  /** Records of what students did there. */
  readonly work: number
  /** Sections that show its content. */
  readonly shown: number
}
const namedAtMost = 3
const quoted = (titles: readonly string[]): string =>
  titles
    .slice(0, namedAtMost)
    .map(title => `“${title}”`)
    .join(', ')

const sentences = {
  'other-course': () => 'it is another course',
  'other-term': () => 'it is in another term',
  'other-staff': () => 'other people teach it',
  'rosters-overlap': ({ students }: { students: number }) =>
    `${students} ${students === 1 ? 'student is' : 'students are'} on both rosters`,
  'own-content': ({ titles }: { titles: readonly string[] }) => {
    const more = titles.length - namedAtMost
    return `it holds content of its own (${quoted(titles)}${more > 0 ? ` and ${more} more` : ''})`
  },
  'is-shown': ({ sections }: { sections: number }) =>
    `${sections} ${sections === 1 ? 'section shows' : 'sections show'} its content`,
  'students-work': ({ records }: { records: number }) =>
    `students have worked there (${records} ${records === 1 ? 'record' : 'records'})`,
}
const fault = faultsFrom(sentences)
/** Why a section cannot show another's content; its message follows "it cannot". */
export type JoinFault = FaultOf<typeof sentences>
/**
 * Why two sections may not share one content; none: they may. They must be one course in one term, with the same staff and rosters that do not
 * overlap, since an edit reaches all and each keeps its own students (common practice). What a section holds goes: only what can be had again may.
 */
export function joinFaults(
  content: SectionToJoin,
  section: SectionToJoin,
  { overlap, own, work, shown }: HeldBySection,
): JoinFault[] {
  const staff = (list: readonly string[]): string => [...list].sort().join()
  const faults: JoinFault[] = []
  if (section.codeKey !== content.codeKey) faults.push(fault('other-course'))
  if (section.term !== content.term) faults.push(fault('other-term'))
  if (staff(section.instructors) !== staff(content.instructors)) faults.push(fault('other-staff'))
  if (overlap > 0) faults.push(fault('rosters-overlap', { students: overlap }))
  if (own.length > 0) faults.push(fault('own-content', { titles: own }))
  if (shown > 0) faults.push(fault('is-shown', { sections: shown }))
  if (work > 0) faults.push(fault('students-work', { records: work }))
  return faults
}
