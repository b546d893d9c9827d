import { itemKindDefinitions } from '~~/core/course/kinds'
import type { ItemKind } from '~~/core/course/model'

/** A shape in a box from −6 to 6, and its colour. */
export interface Mark {
  colour: string
  path: string
}
const circle = 'M0-4.6a4.6 4.6 0 1 1 0 9.2a4.6 4.6 0 1 1 0-9.2z'
const marks = {
  work: { colour: 'var(--kind-work)', path: circle },
  quiz: { colour: 'var(--kind-quiz)', path: 'M0-5.4L5.4 0L0 5.4L-5.4 0z' },
  discussion: { colour: 'var(--kind-discussion)', path: 'M0-5L5.2 4.4H-5.2z' },
  page: { colour: 'var(--kind-page)', path: 'M-5-2.4H5V2.4H-5z' },
  exam: { colour: 'var(--kind-exam)', path: 'M-4.4-4.4H4.4V4.4H-4.4z' },
}
/** A unit, where it opens: a bar as the edge of a page. */
export const unitMark: Mark = { colour: 'var(--ink-soft)', path: 'M-1.2-5H1.2V5H-1.2z' }
/** The mark of a kind of item; an exam has its own whatever its kind. */
export const markOf = (kind: ItemKind, exam = false): Mark =>
  marks[exam ? 'exam' : itemKindDefinitions[kind].mark]
