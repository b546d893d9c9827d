import { strFromU8, unzipSync, zipSync } from 'fflate'
import { markupSegments, type Breaks, type Segment } from '../markup'
import { utf8Bytes, type BodyReader, type OpenBody } from './reader'

/** Unpacked, so much of a document is read: a small file may hold a very large one. */
const unpackedAtMost = 64 * 1024 * 1024
const isText = (name: string): boolean =>
  /\.xml$|\.rels$/.test(name) && !/(^|\/)(theme|styles|settings|fontTable)/.test(name)
/** What ends a paragraph: of a text, a slide, a cell. Everything else stands within one. */
const paragraphs = new Set([
  'w:p',
  'w:br',
  'w:tab',
  'a:p',
  'a:br',
  'si',
  'c',
  'row',
  'text:p',
  'text:h',
  'table:table-cell',
])
const fields: Breaks = name =>
  paragraphs.has(name) || /^(dc|cp|dcterms|meta|app|vt):|^(manager|company)$/.test(name)

function openZip(bytes: Uint8Array): OpenBody {
  let unpacked = 0
  const files = unzipSync(bytes, {
    filter: ({ originalSize }) => {
      unpacked += originalSize
      if (unpacked > unpackedAtMost) throw new Error('the document is larger, unpacked, than is read')
      return true
    },
  })
  const names = Object.keys(files).filter(isText)
  const parts = names.map(name => {
    const raw = strFromU8(files[name] ?? new Uint8Array())
    return { raw, segments: segmentsOf(name, raw) }
  })
  return {
    parts,
    write: raws =>
      zipSync({
        ...files,
        ...Object.fromEntries(names.map((name, at) => [name, utf8Bytes(raws[at] ?? '')])),
      }),
  }
}
/** What a document says of itself, such as who wrote it, is not its text. */
const segmentsOf = (name: string, raw: string): Segment[] =>
  markupSegments(raw, fields).map(each =>
    /^(docProps\/|meta\.xml)/.test(name) && each.place === 'text'
      ? { ...each, place: 'metadata' as const }
      : each,
  )
export const documents: BodyReader = {
  words: ['document', 'documents'],
  isTable: false,
  fits: (type, ending) =>
    /^(docx|pptx|odt|odp)$/.test(ending) ||
    /(wordprocessingml|presentationml|opendocument\.(text|presentation))/.test(type),
  open: openZip,
}
export const workbooks: BodyReader = {
  words: ['workbook', 'workbooks'],
  isTable: true,
  fits: (type, ending) =>
    /^(xlsx|ods)$/.test(ending) || /(spreadsheetml|opendocument\.spreadsheet)/.test(type),
  open: openZip,
}
