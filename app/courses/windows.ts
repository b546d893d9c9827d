import type { CourseLine } from '~~/shared/api/courses'

const daysBetween = (from: string | null, to: string | null): string =>
  `${from ? dayText(from) : 'any day'} to ${to ? `${dayText(to)} ${to.slice(0, 4)}` : 'no end'}`

/** `Students may enrol 5 Jan to 12 Jan 2027. They may enter …`; nothing where neither is limited. */
export function courseWindowsText(windows: CourseLine['windows']): string {
  if (!windows) return ''
  const { enrolFrom, enrolTo, openFrom, openTo } = windows
  return [
    (enrolFrom ?? enrolTo) && `Students may enrol ${daysBetween(enrolFrom, enrolTo)}.`,
    (openFrom ?? openTo) && `They may enter ${daysBetween(openFrom, openTo)}.`,
  ]
    .filter(Boolean)
    .join(' ')
}
