import { tableId, traceId } from './find'
import { edited, editsFor, isCased, segment, type Edit, type Segment } from './markup'
import { traceKinds } from './people'
import type { BodyReader, OpenBody } from './readers/reader'
import { scan, type PeopleIndex } from './scan'
import { insteadOf, type TraceAnswer } from './trace'

/** What is to become of each trace, by its id; what is not named stays. */
export type Answers = ReadonlyMap<string, TraceAnswer>
interface Cleaning {
  readonly on: string
  readonly index: PeopleIndex
  readonly answers: Answers
}

/** How a raw text is changed so that its traces are gone, or a role stands in their place. */
function editsIn(segments: readonly Segment[], { on, index, answers }: Cleaning, isTable: boolean): Edit[] {
  const edits: Edit[] = []
  const ofTable = isTable ? answers.get(tableId(on)) : undefined
  for (const each of segments) {
    for (const { from, to, kind } of scan(each.text, index, { isCased: isCased(each.place) })) {
      const text = each.text.slice(from, to)
      const answer =
        (traceKinds[kind].isStrong ? ofTable : undefined) ?? answers.get(traceId(on, each.place, text))
      if (answer === undefined || answer === 'keep') continue
      // A link to a student leads nowhere any more, and half of what a picture says is none: they go whole.
      const goesWhole = each.place === 'link' || each.place === 'metadata'
      if (goesWhole && each.whole) edits.push({ from: each.whole[0], to: each.whole[1], text: '' })
      else edits.push(...editsFor(each, from, to, insteadOf(answer, each.text.slice(0, from))))
    }
  }
  return edits
}
/** A body without the traces that are to go; null where none of them stands in it, or it cannot be written. */
export function cleanedBody(
  open: OpenBody,
  reader: Pick<BodyReader, 'isTable'>,
  cleaning: Cleaning,
): Uint8Array | null {
  if (!open.write) return null
  const raws = open.parts.map(({ raw, segments }) => edited(raw, editsIn(segments, cleaning, reader.isTable)))
  return raws.every((raw, at) => raw === open.parts[at]?.raw) ? null : open.write(raws)
}
/** A line, such as a title, without its traces. */
export const cleanedLine = (text: string, place: Segment['place'], cleaning: Cleaning): string =>
  edited(text, editsIn([segment(place, text)], cleaning, false))
    .replace(/ {2,}/g, ' ')
    .trim()

/** Texts of a JSON value: every name and every text in it. */
export function jsonSegments(value: unknown, place: Segment['place'] = 'settings'): Segment[] {
  if (typeof value === 'string') return [segment(place, value)]
  if (typeof value === 'number') return [segment(place, String(value))]
  if (typeof value !== 'object' || value === null) return []
  return Object.entries(value).flatMap(([key, inner]) => [
    ...(Array.isArray(value) ? [] : [segment(place, key)]),
    ...jsonSegments(inner, place),
  ])
}
/** A JSON value without its traces: a text that is nothing else goes with its name, as does whatever is kept under a student's. */
export function cleanedJson(
  value: unknown,
  cleaning: Cleaning,
  place: Segment['place'] = 'settings',
): unknown {
  if (typeof value === 'string' || typeof value === 'number') {
    const text = String(value)
    const clean = cleanedLine(text, place, cleaning)
    if (clean === text.replace(/ {2,}/g, ' ').trim()) return value
    return clean === '' ? undefined : clean
  }
  if (typeof value !== 'object' || value === null) return value
  if (Array.isArray(value))
    return value.map(each => cleanedJson(each, cleaning, place)).filter(each => each !== undefined)
  return Object.fromEntries(
    Object.entries(value).flatMap(([key, inner]) => {
      if (cleanedLine(key, place, cleaning) !== key.replace(/ {2,}/g, ' ').trim()) return []
      const clean = cleanedJson(inner, cleaning, place)
      return clean === undefined ? [] : [[key, clean]]
    }),
  )
}
type JsonObject = Readonly<Record<string, unknown>>
const isObject = (value: unknown): value is JsonObject =>
  typeof value === 'object' && value !== null && !Array.isArray(value)
/** What makes one JSON object of another: a merge patch (RFC 7396), in which null takes a name away. */
export function mergePatch(from: JsonObject, to: JsonObject): Record<string, unknown> {
  const patch: Record<string, unknown> = {}
  for (const key of new Set([...Object.keys(from), ...Object.keys(to)])) {
    const [before, after] = [from[key], to[key]]
    if (!Object.hasOwn(to, key)) patch[key] = null
    else if (isObject(before) && isObject(after)) {
      const inner = mergePatch(before, after)
      if (Object.keys(inner).length > 0) patch[key] = inner
    } else if (JSON.stringify(before) !== JSON.stringify(after)) patch[key] = after
  }
  return patch
}
