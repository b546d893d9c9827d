import { z } from 'zod'
import { noDates } from '../course/dates'
import { noItemFields } from '../course/fields'
import { itemKinds, type ItemKind } from '../course/model'
import { itemKindDefinitions } from '../course/kinds'
import { inCourseOrder, type OutlineNode } from '../course/outline'
import { lineageOf } from '../course/lineage'
import { escapeText } from '../formats/xml'
import { filledLine } from '../text'

const key = z.uuid()
/** What can be made in a plan. */
export const madeKinds = itemKinds.filter(kind => itemKindDefinitions[kind].canBeMade)
export const madeTextAtMost = 20_000

/** A unit (`kind` null) or item that a plan adds. Where it stands, its dates and its category are decided as those of what comes. */
export const madeThing = z.object({
  kind: z.enum(madeKinds as [ItemKind, ...ItemKind[]]).nullable(),
  title: filledLine(500, 'Give it a name.'),
  /** Ten-thousandths. */
  points: z.int().min(0).max(99_999_999_9999).nullable().default(null),
  exam: z.boolean().default(false),
  /** Plain; an empty line begins a new paragraph. */
  text: z.string().max(madeTextAtMost, `At most ${madeTextAtMost} characters.`).default(''),
})
export type MadeThing = z.output<typeof madeThing>
/** An item of a course that is no source of the plan: which one, and by whose right it was taken. */
export const foundThing = z.object({ course: key, lineage: key, by: key })
export type FoundThing = z.output<typeof foundThing>

/** What a plan adds of its own, by the lineage key that it will have. */
export const addedDecisions = z.object({
  made: z.record(key, madeThing).default({}),
  found: z.record(key, foundThing).default({}),
})
export type AddedDecisions = z.output<typeof addedDecisions>
export const nothingAdded: AddedDecisions = { made: {}, found: {} }

/** The courses from which single items are taken, each once. */
export const foundCourses = ({ found }: Pick<AddedDecisions, 'found'>): string[] => [
  ...new Set(Object.values(found).map(({ course }) => course)),
]
/** Whether there is a text to write for things of a kind that a plan makes. */
export const hasMadeText = (kind: ItemKind | null): boolean =>
  kind !== null && itemKindDefinitions[kind].shows === 'text'
/** A plain text as a page: a paragraph for whatever stands between empty lines. */
export const madeHtml = (text: string): string =>
  text
    .split(/\n\s*\n/)
    .map(each => each.trim())
    .filter(Boolean)
    .map(each => `<p>${escapeText(each).replaceAll('\n', '<br>')}</p>`)
    .join('\n')

/** What tells the text of a made thing from another before it is stored. */
const textKey = (lineage: string, text: string): string => `made ${lineageOf(lineage, text)}`
/** The text of a made thing, where it has one. */
export const madeText = ({ kind, text }: MadeThing): string | null =>
  hasMadeText(kind) && text.trim() !== '' ? madeHtml(text) : null

/** The same text as long as the things that a plan adds of its own are the same, and stand in the same units. */
export function addedText({
  added,
  places,
}: {
  readonly added: AddedDecisions
  readonly places: { readonly into: Into }
}): string {
  const keys = [...Object.keys(added.made), ...Object.keys(added.found)]
  return keys.length === 0 ? '' : JSON.stringify([added, keys.map(key => places.into[key] ?? null)])
}

/** Which unit a thing goes into, by its key; undefined where nothing is said. */
type Into = Readonly<Record<string, string | null>>
const placed = (lineage: string, into: Into, position: number) => ({
  lineage,
  parent: into[lineage] ?? null,
  position,
  depth: 0,
  unit: into[lineage] ?? null,
})
const plain = {
  state: 'visible',
  category: null,
  rubric: null,
  group: null,
  release: [],
  ...noItemFields,
  identifier: null,
  size: 0,
  settings: null,
  holds: null,
  fixed: false,
  madeBy: 'person',
  gradingPeriod: null,
  ...noDates,
} as const

/** The things that a plan makes, as an outline: in the order in which they were added. */
export const madeNodes = ({ made }: Pick<AddedDecisions, 'made'>, into: Into): OutlineNode[] =>
  inCourseOrder(
    Object.entries(made).map(([lineage, thing], position): OutlineNode => {
      const { kind, title, points, exam } = thing
      const text = madeText(thing)
      return {
        ...plain,
        ...placed(lineage, into, position),
        type: kind === null ? 'unit' : 'item',
        title,
        kind,
        points,
        exam,
        body: text === null ? null : textKey(lineage, text),
        size: text?.length ?? 0,
        isHtml: false,
      }
    }),
  )
/**
 * The items taken from one course, as an outline. Of what they had there alone comes what stands by itself: they are for everyone, wait for
 * nothing, and hold nothing below them. What the course does not hold any more is not among them.
 */
export function foundNodes(
  { found }: Pick<AddedDecisions, 'found'>,
  course: { readonly id: string; readonly nodes: readonly OutlineNode[] },
  into: Into,
): OutlineNode[] {
  const nodes = new Map(course.nodes.map(node => [node.lineage, node]))
  return Object.entries(found).flatMap(([lineage, { course: id, lineage: there }], position) => {
    const node = id === course.id ? nodes.get(there) : undefined
    if (node?.type !== 'item') return []
    return [{ ...node, ...placed(lineage, into, position), group: null, release: [], holds: null }]
  })
}
