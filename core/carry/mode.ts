import type { ItemKind } from '../course/model'
import type { OutlineNode } from '../course/outline'

/** How a course is taught. */
export const courseModes = ['in-person', 'blended', 'online'] as const
export type CourseMode = (typeof courseModes)[number]
export const courseModeWords: Readonly<Record<CourseMode, string>> = {
  'in-person': 'in person',
  blended: 'blended',
  online: 'online',
}
/** What a course looks like as long as nobody says how it is taught: one that meets is taught in person. */
export const modeByMeetings = (meetings: readonly unknown[]): CourseMode =>
  meetings.length > 0 ? 'in-person' : 'online'

interface Sign {
  /** What tells it, as the end of a sentence. */
  readonly says: string
  readonly kinds?: readonly ItemKind[]
  /** Words of the title. */
  readonly title?: RegExp
}
// What is made for a way of teaching, by common practice; no source.
const signs: Readonly<Record<'online' | 'in-person', readonly Sign[]>> = {
  online: [
    {
      says: 'an orientation',
      title: /\borientation\b|\bhow this (online )?course works\b|\bgetting started online\b/i,
    },
    {
      says: 'a meeting on screen',
      title: /\b(webinar|video meeting|online meeting|live session|virtual)\b/i,
    },
    { says: 'a recording', kinds: ['recording'] },
    {
      says: 'people introduce themselves in writing',
      kinds: ['discussion'],
      title: /\bintroduc|\bsay hello\b|\bwhere is your\b|\bmeet your\b/i,
    },
    { says: 'a test that is taken online', kinds: ['quiz'] },
  ],
  'in-person': [
    { says: 'attendance in a room', kinds: ['attendance'] },
    { says: 'a place to be', title: /\b(room|classroom|lab rules|seating|parking|field day)\b/i },
    { says: 'something for class', title: /\b(in[- ]class|class notes|handout|slides)\b/i },
  ],
}
/** What of an item was made for the way in which the old course was taught, where the new one is taught otherwise: the first sign that fits. */
export function looksOfMode(
  { kind, title }: Pick<OutlineNode, 'kind' | 'title'>,
  { from, into }: { readonly from: CourseMode; readonly into: CourseMode },
): { mode: CourseMode; sign: string }[] {
  if (from === into || from === 'blended') return []
  const fits = ({ kinds, title: words }: Sign): boolean =>
    (!kinds || (kind !== null && kinds.includes(kind))) && (!words || words.test(title))
  const sign = signs[from].find(fits)
  return sign ? [{ mode: from, sign: sign.says }] : []
}
