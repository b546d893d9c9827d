import { addressSegment, edited, segment, type Edit, type Segment, type TracePlace } from './markup'
import type { SearchedPart } from './find'
import type { OpenBody } from './readers/reader'
import { answerOf, editBy, type Trace, type TraceDecisions } from './trace'

/** What is edited in the texts of one thing, by the name of each (`traceEdit`). */
export type ThingEdits = ReadonlyMap<string, readonly Edit[]>
/** What is edited in which thing, by its lineage key: just what was found, where it was found, as it was decided. */
export function editsByThing(
  traces: readonly Trace[],
  decisions: TraceDecisions,
): ReadonlyMap<string, ThingEdits> {
  const things = new Map<string, Map<string, Edit[]>>()
  for (const trace of traces) {
    const edit = editBy(trace, answerOf(trace, decisions))
    if (edit) addEdits(things, trace.on, edit)
  }
  return things
}
function addEdits(
  things: Map<string, Map<string, Edit[]>>,
  on: string,
  { at, text }: { at: Trace['edits']['remove']['at']; text: string },
): void {
  const thing = things.get(on) ?? new Map<string, Edit[]>()
  things.set(on, thing)
  at.forEach(({ part, from, to }, n) => {
    thing.set(part, [...(thing.get(part) ?? []), { from, to, text: n === 0 ? text : '' }])
  })
}

/** How a thing's texts are named: its title, what it is called in the package, the values and names of its settings and details, its content. */
export const titlePart = 'title'
export const identifierPart = 'identifier'
export type JsonDomain = 'settings' | 'details'
const valuePart = (domain: JsonDomain, pointer: string): string => `${domain}:${pointer}`
const namePart = (domain: JsonDomain, pointer: string): string => `${domain}-name:${pointer}`
export const bodyPart = (name: string): string => `body:${name}`
/** A step of a JSON Pointer (RFC 6901, section 3). */
const step = (name: string): string => `/${name.replaceAll('~', '~0').replaceAll('/', '~1')}`

/** A line of a thing, as it is looked through. */
export const linePart = (place: 'title' | 'identifier', text: string): SearchedPart => ({
  part: place,
  file: null,
  segments: [segment(place, text)],
  canWrite: true,
})
/** The texts of a JSON value, as they are looked through: every name and every text in it. */
export function jsonParts(value: unknown, domain: JsonDomain, pointer = ''): SearchedPart[] {
  if (typeof value === 'string' || typeof value === 'number') {
    const place: TracePlace = domain === 'settings' && pointer === '/fileName' ? 'fileName' : domain
    return [jsonPart(valuePart(domain, pointer), valueSegment(place, String(value)))]
  }
  if (typeof value !== 'object' || value === null) return []
  return Object.entries(value).flatMap(([name, inner]) => {
    const at = pointer + step(name)
    const own = Array.isArray(value) ? [] : [jsonPart(namePart(domain, at), segment(domain, name))]
    return [...own, ...jsonParts(inner, domain, at)]
  })
}
const jsonPart = (part: string, each: Segment): SearchedPart => ({
  part,
  file: null,
  segments: [each],
  canWrite: true,
})
/** An address in a setting may be written with percent signs. */
const valueSegment = (place: TracePlace, text: string): Segment =>
  text.includes('%') ? addressSegment(place, text) : segment(place, text)

/** A line, such as a title, as it comes. */
export const redactedLine = (text: string, edits: ThingEdits | undefined, part: string): string =>
  edited(text, edits?.get(part) ?? [])
/** A body as it comes; null where nothing of it is edited. */
export function redactedBody(open: OpenBody, edits: ThingEdits): Uint8Array | null {
  if (!open.write) return null
  const raws = open.parts.map(({ name, raw }) => edited(raw, edits.get(bodyPart(name)) ?? []))
  return raws.every((raw, at) => raw === open.parts[at]?.raw) ? null : open.write(raws)
}
/** A JSON value as it comes: a text of which nothing is left goes with its name, as does whatever is kept under a student’s. */
export function redactedJson(value: unknown, edits: ThingEdits, domain: JsonDomain, pointer = ''): unknown {
  if (typeof value === 'string' || typeof value === 'number') {
    const own = edits.get(valuePart(domain, pointer))
    if (!own) return value
    const left = edited(String(value), own)
    return left.trim() === '' ? undefined : left
  }
  if (typeof value !== 'object' || value === null) return value
  const inner = Object.entries(value).flatMap(([name, each]) => {
    const at = pointer + step(name)
    if (edits.has(namePart(domain, at))) return []
    const left = redactedJson(each, edits, domain, at)
    return left === undefined ? [] : [[name, left] as const]
  })
  return Array.isArray(value) ? inner.map(([, left]) => left) : Object.fromEntries(inner)
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

/**
 * Whether a text that was written is the one that was read with the shown stretches edited, and nothing else. It asks in another way than
 * `edited` writes: what stands between the stretches must stand there letter for letter, one after the other.
 */
export function isEditedOnlyThere(before: string, after: string, edits: readonly Edit[]): boolean {
  const ranges = [...edits].sort((a, b) => a.from - b.from || b.to - a.to)
  const texts: string[] = []
  const kept: string[] = []
  let at = 0
  for (const { from, to, text } of ranges) {
    if (to <= at && from < at) continue
    kept.push(before.slice(at, Math.max(at, from)))
    texts.push(text)
    at = Math.max(at, to)
  }
  kept.push(before.slice(at))
  let rest = after
  for (const [n, stretch] of kept.entries()) {
    if (!rest.startsWith(stretch)) return false
    rest = rest.slice(stretch.length)
    const text = texts[n]
    if (text === undefined) break
    if (!rest.startsWith(text)) return false
    rest = rest.slice(text.length)
  }
  return rest === ''
}
