import type { Segment } from '../markup'

/** A text within a body, such as a page, a part of a document, or what a picture says of itself. */
export interface BodyPart {
  readonly raw: string
  readonly segments: readonly Segment[]
}
/** A body as its texts. `write`: the body with those texts changed; null where they can only be read. */
export interface OpenBody {
  readonly parts: readonly BodyPart[]
  readonly write: ((raws: readonly string[]) => Uint8Array) | null
}
/** What reads one sort of bodies for the search for traces. */
export interface BodyReader {
  /** What such bodies are called, for one and for many. */
  readonly words: readonly [one: string, many: string]
  readonly fits: (mediaType: string, ending: string) => boolean
  /** @throws where the body is damaged */
  readonly open: (bytes: Uint8Array, name: string) => OpenBody
  /** Whether a find is told with all others of its body: a table of students, not a sentence. */
  readonly isTable: boolean
}
export const utf8Bytes = (text: string): Uint8Array => new TextEncoder().encode(text)
/** A body that is one text. */
export const oneText = (raw: string, segments: readonly Segment[]): OpenBody => ({
  parts: [{ raw, segments }],
  write: ([text]) => utf8Bytes(text ?? ''),
})
