import { faultsFrom, type FaultOf } from '../fault'

/** What is looked at in two shells that could share one content. `instructors` and `codeKey` as pairing knows them. */
export interface SectionToJoin {
  readonly codeKey: string
  readonly term: string
  readonly instructors: readonly string[]
  readonly items: number
}

const sentences = {
  'other-course': () => 'it is another course',
  'other-term': () => 'it is in another term',
  'other-staff': () => 'other people teach it',
  'rosters-overlap': ({ students }: { students: number }) =>
    `${students} ${students === 1 ? 'student is' : 'students are'} on both rosters`,
  'own-content': () => 'it holds content of its own',
}
const fault = faultsFrom(sentences)
/** Why a section cannot show another's content; its message follows "it cannot". */
export type JoinFault = FaultOf<typeof sentences>
/**
 * Why two sections may not share one content; none: they may. They must be one course in one term, with the same staff and rosters that do not
 * overlap, since an edit reaches all and each keeps its own students (common practice). `overlap`: students on both rosters.
 */
export function joinFaults(content: SectionToJoin, section: SectionToJoin, overlap: number): JoinFault[] {
  const staff = (list: readonly string[]): string => [...list].sort().join()
  const faults: JoinFault[] = []
  if (section.codeKey !== content.codeKey) faults.push(fault('other-course'))
  if (section.term !== content.term) faults.push(fault('other-term'))
  if (staff(section.instructors) !== staff(content.instructors)) faults.push(fault('other-staff'))
  if (overlap > 0) faults.push(fault('rosters-overlap', { students: overlap }))
  if (section.items > 0) faults.push(fault('own-content'))
  return faults
}
