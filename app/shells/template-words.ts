import type { NewTemplate, TemplateLine } from '~~/shared/api/shares'

/** Something on the shelf before anything is said of it. */
export const emptyTemplate = (): NewTemplate => ({
  title: '',
  subject: '',
  arrangement: 'units',
  about: '',
  unit: null,
  org: null,
  colleagues: false,
})

export const arrangementWords: Record<TemplateLine['arrangement'], string> = {
  weeks: 'by week',
  units: 'by unit',
}
/** All that a template is found by: its name, what it says of itself, arrangement, subject and author. */
const textOf = ({ course, subject, arrangement, about, author, own }: TemplateLine): string =>
  [course.title, subject, arrangementWords[arrangement], author, own ? 'yours' : '', about]
    .join(' ')
    .toLowerCase()

/** Templates that have every word somewhere, in their order. */
export function templatesWith(templates: readonly TemplateLine[], text: string): TemplateLine[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean)
  return templates.filter(template => words.every(word => textOf(template).includes(word)))
}

/** What stands on a shelf is ordered under headings: by subject, or by the year in which it was put there. */
export type ShelfOrder = 'subject' | 'year'
export interface ShelfHeading {
  readonly title: string
  readonly templates: readonly TemplateLine[]
}
/** What is on the shelf under its headings: subjects by their names, years with the latest first. */
export function underHeadings(templates: readonly TemplateLine[], order: ShelfOrder): ShelfHeading[] {
  const titleOf = ({ subject, createdAt }: TemplateLine): string =>
    order === 'subject' ? subject : createdAt.slice(0, 4)
  const headings = new Map<string, TemplateLine[]>()
  for (const template of templates)
    headings.set(titleOf(template), [...(headings.get(titleOf(template)) ?? []), template])
  const sorted = [...headings].sort(([one], [other]) =>
    order === 'subject' ? one.localeCompare(other) : other.localeCompare(one),
  )
  return sorted.map(([title, each]) => ({ title, templates: each }))
}
