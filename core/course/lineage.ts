import { v5 } from 'uuid'

// Made once for this application; the name within it is "course key, line feed, source identifier".
const namespace = '5f6c0f6e-6a55-5b0b-9b0f-0d5f2a3c7e11'

/**
 * The lineage key of something first read into a course: UUIDv5 (RFC 9562) of the course's key and the identifier it had in
 * its source. Reading the same file again gives the same key; it then survives every rollover.
 */
export const lineageOf = (courseKey: string, identifier: string): string =>
  v5(`${courseKey}\n${identifier}`, namespace)

/** How running text names another item of its course: resolved within whichever course it is read in. */
export const lineageLink = (lineage: string): string => `northtide:${lineage}`
const linkPattern = /^northtide:([0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12})(.*)$/
/** The lineage key and the rest (`#part`) of a lineage link; null for any other address. */
export function parseLineageLink(address: string): { lineage: string; rest: string } | null {
  const match = linkPattern.exec(address)
  return match && { lineage: match[1]!, rest: match[2]! }
}
