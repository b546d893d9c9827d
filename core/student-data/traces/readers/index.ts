import { documents, workbooks } from './office'
import { pictures } from './pictures'
import type { BodyReader } from './reader'
import { pages, plainTexts, tables, xmlDocuments } from './texts'

/** A PDF's text is taken out on the server; it can be read here and not changed. */
export const portable = {
  words: ['PDF', 'PDFs'],
  fits: (type: string, ending: string): boolean => type === 'application/pdf' || ending === 'pdf',
} as const
/** Every reader of bodies, the first that fits counts. A new one is its own definition and a place here. */
export const bodyReaders: readonly BodyReader[] = [
  workbooks,
  documents,
  tables,
  pages,
  xmlDocuments,
  pictures,
  plainTexts,
]
export const endingOf = (name: string): string =>
  /\.([a-z0-9]{1,8})$/i.exec(name.trim())?.[1]?.toLowerCase() ?? ''
/** What reads a body of some type and name; null where nothing here can. */
export const readerFor = (mediaType: string, name: string): BodyReader | null =>
  bodyReaders.find(reader => reader.fits(mediaType, endingOf(name))) ?? null
