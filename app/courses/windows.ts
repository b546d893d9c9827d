import type { CourseLine } from '~~/shared/api/courses'

/** `Students may enrol 5 Jan to 12 Jan 2027. They may enter …`; nothing where neither is limited. */
export function courseWindowsText(windows: CourseLine['windows']): string {
  if (!windows) return ''
  const { enrolFrom, enrolTo, openFrom, openTo } = windows
  return [
    (enrolFrom ?? enrolTo) && `Students may enrol ${rangeText(enrolFrom, enrolTo)}.`,
    (openFrom ?? openTo) && `They may enter ${rangeText(openFrom, openTo)}.`,
  ]
    .filter(Boolean)
    .join(' ')
}
