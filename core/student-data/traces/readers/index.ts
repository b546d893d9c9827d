import { strFromU8, unzipSync } from 'fflate'
import { mails } from './mail'
import { pictures } from './pictures'
import { portable } from './portable'
import type { BodyReader, FileFacts } from './reader'
import { calendars, jsonTexts, pages, plainTexts, richTexts, scripts, tables, xmlDocuments } from './texts'
import { archives, documents, workbooks } from './zip'

/** Every reader of bodies, with the endings and types of what it reads. A new one is its own definition and a line here. */
const readers: readonly { reader: BodyReader; endings: string; types: RegExp }[] = [
  { reader: workbooks, endings: 'xlsx ods', types: /spreadsheetml|opendocument\.spreadsheet/ },
  {
    reader: documents,
    endings: 'docx pptx odt odp',
    types: /wordprocessingml|presentationml|opendocument\.(text|presentation)/,
  },
  { reader: portable, endings: 'pdf', types: /^application\/pdf$/ },
  { reader: tables, endings: 'csv tsv', types: /^text\/(csv|tab-separated-values)$/ },
  { reader: pages, endings: 'html htm xhtml xht', types: /^text\/html$|^application\/xhtml\+xml$/ },
  { reader: xmlDocuments, endings: 'xml svg', types: /[/+]xml$/ },
  { reader: pictures, endings: 'jpg jpeg png webp gif', types: /^image\/(jpeg|png|webp|gif)$/ },
  { reader: calendars, endings: 'ics', types: /^text\/calendar$/ },
  { reader: mails, endings: 'eml', types: /^message\/rfc822$/ },
  { reader: richTexts, endings: 'rtf', types: /^(application|text)\/rtf$/ },
  { reader: jsonTexts, endings: 'json', types: /^application\/json$|\+json$/ },
  { reader: scripts, endings: 'js mjs css', types: /^(text|application)\/(javascript|css)$/ },
  { reader: archives, endings: 'zip', types: /^application\/zip$/ },
  { reader: plainTexts, endings: 'txt md', types: /^text\// },
]
const endingOf = (name: string): string => /\.([a-z0-9]{1,8})$/i.exec(name.trim())?.[1]?.toLowerCase() ?? ''
const byEnding = (name: string): BodyReader | null =>
  readers.find(({ endings }) => endings.split(' ').includes(endingOf(name)))?.reader ?? null
const byType = (type: string): BodyReader | null =>
  readers.find(({ types }) => types.test(type))?.reader ?? null

const starts = (bytes: Uint8Array, text: string): boolean =>
  [...text].every((letter, at) => bytes[at] === letter.charCodeAt(0))
const latinStart = (bytes: Uint8Array, most: number): string => strFromU8(bytes.subarray(0, most), true)
/** What a zip archive is: by the parts that tell an office document (ISO/IEC 29500-2; ISO/IEC 26300-3). */
function inZip(bytes: Uint8Array): BodyReader {
  const paths: string[] = []
  let mimetype = ''
  try {
    const files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        paths.push(name)
        return name === 'mimetype' && originalSize < 200
      },
    })
    mimetype = strFromU8(files.mimetype ?? new Uint8Array())
  } catch {
    return archives
  }
  if (mimetype.includes('opendocument')) return mimetype.includes('spreadsheet') ? workbooks : documents
  if (!paths.includes('[Content_Types].xml')) return archives
  return paths.some(path => path.startsWith('xl/')) ? workbooks : documents
}
/** Files that only a program of their own opens, by their first bytes. */
const closed: readonly [start: string, why: string][] = [
  ['\xd0\xcf\x11\xe0', 'It is an old or a locked office document.'],
  ['Rar!', 'Northtide cannot open this kind of archive.'],
  ['7z\xbc\xaf', 'Northtide cannot open this kind of archive.'],
  ['\x1f\x8b', 'Northtide cannot open this kind of archive.'],
]
const cannot = 'Northtide cannot read this kind of file.'
/** What the first bytes say for sure; null: nothing. */
function byBytes(bytes: Uint8Array): BodyReader | string | null {
  if (starts(bytes, '%PDF-') || (!isText(bytes) && latinStart(bytes, 1024).includes('%PDF-'))) return portable
  if (starts(bytes, 'PK\x03\x04')) return inZip(bytes)
  if (starts(bytes, '\xff\xd8') || starts(bytes, '\x89PNG') || starts(bytes, 'GIF8')) return pictures
  if (starts(bytes, 'RIFF') && latinStart(bytes.subarray(8), 4) === 'WEBP') return pictures
  if (starts(bytes, '{\\rtf')) return richTexts
  return closed.find(([start]) => starts(bytes, start))?.[1] ?? null
}
const packedOnly: ReadonlySet<BodyReader> = new Set([workbooks, documents, archives, portable, pictures])
const isUtf16 = (bytes: Uint8Array): boolean => starts(bytes, '\xff\xfe') || starts(bytes, '\xfe\xff')
/** Whether bytes are letters: none of them is what no text holds. */
const isText = (bytes: Uint8Array): boolean =>
  isUtf16(bytes) || !bytes.subarray(0, 65_536).some(byte => byte < 9 || (byte > 13 && byte < 27))
/** What a text is by how it begins. */
function sortOfText(bytes: Uint8Array): BodyReader {
  const start = latinStart(bytes, 2048)
    .replace(/^\xef\xbb\xbf/, '')
    .trimStart()
  if (/^<(?:!doctype html|html|head|body|p|div|h\d|table|ul|ol)\b/i.test(start)) return pages
  if (/^<(?:\?xml|svg|[a-z][\w:-]*[\s>])/i.test(start)) return xmlDocuments
  if (start.startsWith('BEGIN:VCALENDAR')) return calendars
  if (
    /^(?:Return-Path|Received|Delivered-To|MIME-Version|Message-ID|From|To|Subject|Date):[^\n]*\n(?:[ \t][^\n]*\n|[\w-]+:)/.test(
      start,
    )
  )
    return mails
  return /^[{[]/.test(start) ? jsonTexts : plainTexts
}
/** What reads a file: by its first bytes, else by its name, else by its type, else by how its text begins. A sentence where nothing does. */
export function readerOf({ name, mediaType, bytes }: FileFacts): BodyReader | string {
  const certain = byBytes(bytes)
  const type = mediaType.split(';')[0]?.trim().toLowerCase() ?? ''
  const said = byEnding(name) ?? byType(type)
  // An office document that some program packed without saying what it is.
  if (certain === archives && said && (said === documents || said === workbooks)) return said
  if (certain !== null) return certain
  if (!isText(bytes)) return said && packedOnly.has(said) ? 'It could not be read: it is damaged.' : cannot
  if (said && !packedOnly.has(said)) return said
  return said ? 'It could not be read: it is damaged.' : sortOfText(bytes)
}
