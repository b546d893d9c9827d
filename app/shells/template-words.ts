import type { TemplateLine } from '~~/shared/api/shares'

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
