/** What is looked at in two shells that could share one content. `instructors` and `codeKey` as pairing knows them. */
export interface SectionToJoin {
  readonly codeKey: string
  readonly term: string
  readonly instructors: readonly string[]
  readonly items: number
}

/**
 * Why two sections may not share one content; none: they may. They must be one course in one term, with the same staff and rosters that do not
 * overlap, since an edit reaches all and each keeps its own students (common practice). `overlap`: students on both rosters.
 */
export function joinFaults(content: SectionToJoin, section: SectionToJoin, overlap: number): string[] {
  const staff = (list: readonly string[]): string => [...list].sort().join()
  return [
    section.codeKey !== content.codeKey && 'it is another course',
    section.term !== content.term && 'it is in another term',
    staff(section.instructors) !== staff(content.instructors) && 'other people teach it',
    overlap > 0 && `${overlap} ${overlap === 1 ? 'student is' : 'students are'} on both rosters`,
    section.items > 0 && 'it holds content of its own',
  ].filter(fault => typeof fault === 'string')
}
