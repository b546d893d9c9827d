import { lineSegments } from './lines'
import type { Segment } from '../markup'

/** A file as its reader is chosen by: its name, the type it is said to be of, and what is in it. Never by what an item is called. */
export interface FileFacts {
  readonly name: string
  readonly mediaType: string
  readonly bytes: Uint8Array
}
/** A text within a body, such as a page, a part of a document, or what a picture says of itself. */
export interface BodyPart {
  /** Its name among the texts of the body; empty of a body that is one text. */
  readonly name: string
  /** Of a file within the body: its name. */
  readonly file: string | null
  readonly raw: string
  readonly segments: readonly Segment[]
  readonly canWrite: boolean
}
/** Something within a body that could not be looked into: `name` is empty where it is all of it. */
export interface Unseen {
  readonly name: string
  readonly why: string
  readonly size: number
}
/** A body as its texts. `write`: the body with those texts changed; null where they can only be read. */
export interface OpenBody {
  readonly parts: readonly BodyPart[]
  readonly write: ((raws: readonly string[]) => Uint8Array) | null
  readonly unseen: readonly Unseen[]
}
/** What a PDF says: its pages, what it says of itself with its notes, and the files within it. `partly`: why not all of it was read. */
export interface PdfTexts {
  readonly pages: readonly string[]
  readonly about: readonly string[]
  readonly files: readonly { readonly name: string; readonly bytes: Uint8Array }[]
  readonly partly: string | null
}
/** What reads a PDF: a large library, which is no part of this. */
export type ReadPdf = (bytes: Uint8Array) => Promise<PdfTexts>
/** A file within another: its name and its texts as parts of that, the name first; what in it could not be read; and what writes it. */
export interface Within {
  readonly parts: readonly BodyPart[]
  readonly unseen: readonly Unseen[]
  readonly write: OpenBody['write']
}
/** What a reader is given: how PDFs are read, how files within this one are, and how many bytes may still be unpacked. */
export interface Reading {
  readonly readPdf: ReadPdf | null
  readonly within: (file: Omit<FileFacts, 'mediaType'>, path: string) => Promise<Within>
  readonly left: { bytes: number }
}
/** What reads one sort of bodies for the search for traces. */
export interface BodyReader {
  /** What such bodies are called, for one and for many. */
  readonly words: readonly [one: string, many: string]
  /** Whether a find is told with all others of its body: a table of students, not a sentence. */
  readonly isTable: boolean
  /** @throws where the body is damaged */
  readonly open: (file: FileFacts, reading: Reading) => OpenBody | Promise<OpenBody>
}
export const utf8Bytes = (text: string): Uint8Array => new TextEncoder().encode(text)
/** A body that is one text. */
export const oneText = (
  raw: string,
  segments: readonly Segment[],
  write: (text: string) => Uint8Array = utf8Bytes,
): OpenBody => ({
  parts: [{ name: '', file: null, raw, segments, canWrite: true }],
  write: ([text]) => write(text ?? ''),
  unseen: [],
})
/** Texts that can be read and not changed. */
export const readOnly = (name: string, text: string, place: Segment['place'] = 'text'): BodyPart => ({
  name,
  file: null,
  raw: text,
  segments: lineSegments(text).map(each => ({ ...each, place })),
  canWrite: false,
})
