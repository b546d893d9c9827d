/** What pairing looks at in a course. */
export interface Candidate { readonly id: string, readonly code: string, readonly section: string, readonly title: string, readonly termStarts: string, readonly instructors: readonly string[], readonly items: number }
export interface Suggestion { readonly source: string, readonly sureness: 'sure' | 'likely' | 'possible', readonly reasons: string[] }

const plain = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]+/g, ' ').trim()

/**
 * The likeliest source for a shell: an earlier course with content, of the same code or title; then the same instructor, the
 * latest term, the same section. Null where no course has the code or the title.
 */
export function suggestSource(shell: Candidate, courses: readonly Candidate[]): Suggestion | null {
  const rated = courses.filter(course => course.id !== shell.id && course.items > 0 && course.termStarts < shell.termStarts).map((course) => {
    const code = plain(course.code) === plain(shell.code)
    const title = plain(course.title) === plain(shell.title)
    const teacher = course.instructors.some(person => shell.instructors.includes(person))
    const section = course.section === shell.section
    return { course, code, title, teacher, section, score: (code ? 8 : 0) + (title ? 4 : 0) + (teacher ? 2 : 0) }
  }).filter(entry => entry.code || entry.title)
  rated.sort((a, b) => b.score - a.score || b.course.termStarts.localeCompare(a.course.termStarts) || Number(b.section) - Number(a.section) || a.course.id.localeCompare(b.course.id))
  const best = rated[0]
  if (!best) return null
  const reasons = [best.code && `same code, ${best.course.code}`, best.title && 'same title', best.teacher && 'same instructor', best.section && `same section, ${best.course.section}`].filter(reason => reason !== false)
  return { source: best.course.id, sureness: best.code && best.teacher ? 'sure' : best.code ? 'likely' : 'possible', reasons }
}
